import type { Box } from '../../core/evidence.js';
import { inTime, within } from '../bounds/limit.js';
import { ProtocolError, type Session } from './connection.js';

/** The highest picture the browser takes in one piece, px. */
const MOST_HEIGHT = 12_000;
const DRAW_LIMIT = 60_000;

/** A piece of the page, one pixel for each CSS px; null where it was not drawn in time. */
export async function shoot(
  session: Session,
  region: Box,
  density: number,
  ms: number,
): Promise<Buffer | null> {
  const taking = session.send('Page.captureScreenshot', {
    format: 'png',
    optimizeForSpeed: false,
    captureBeyondViewport: true,
    clip: { ...region, scale: 1 / density },
  });
  const taken = await within(taking, ms).catch(() => null);
  return taken && Buffer.from(taken.data, 'base64');
}

/** So often is taken again what does not stay as it is: films do not. */
const MOST_TAKES = 4;

/**
 * Takes it until two are alike. What comes into view with a shot, a frame of another process has not painted yet:
 * on a busy machine it was blank in one of four first ones, and blurred in as many second ones.
 */
export async function takeSteady(take: () => Promise<Buffer | null>): Promise<Buffer | null> {
  let taken = await take();
  for (let takes = 1; taken && takes < MOST_TAKES; takes++) {
    const again = await take();
    if (!again || again.equals(taken)) return taken;
    taken = again;
  }
  return taken;
}

/**
 * Draws a page of our own, and not of any snippet's: it stands in an empty tab and asks for nothing.
 * @param width px
 * @returns the PNG; null where the page is higher than one picture can be
 */
export async function draw(
  session: Session,
  frameId: string,
  html: string,
  width: number,
): Promise<Buffer | null> {
  await session.send('Emulation.setDeviceMetricsOverride', {
    width,
    height: 800,
    deviceScaleFactor: 1,
    mobile: false,
  });
  await session.send('Page.setDocumentContent', { frameId, html });
  const ready = await session.send('Runtime.evaluate', {
    expression: `Promise.all(Array.from(document.images, (one) => one.decode().catch(() => 0)))
      .then(() => Math.ceil(document.documentElement.getBoundingClientRect().height))`,
    awaitPromise: true,
    returnByValue: true,
  });
  const height = ready.result.value as number;
  if (height > MOST_HEIGHT) return null;
  const taking = session.send('Page.captureScreenshot', {
    format: 'png',
    captureBeyondViewport: true,
    clip: { x: 0, y: 0, width, height, scale: 1 },
  });
  const late = () => new ProtocolError('the picture was not drawn in time');
  return Buffer.from((await inTime(taking, DRAW_LIMIT, late)).data, 'base64');
}
