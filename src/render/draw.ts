import { within } from './limit.js';
import { ProtocolError } from './protocol/connection.js';
import type { Tab } from './tab.js';

/** The highest picture the browser takes in one piece, px. */
export const MOST_HEIGHT = 12_000;
const LIMIT = 60_000;

/**
 * Draws a page of our own, and not of any snippet's: it stands in an empty tab and asks for nothing.
 * @param width px
 * @returns the PNG; null where the page is higher than one picture can be
 */
export async function drawPage(tab: Tab, html: string, width: number): Promise<Buffer | null> {
  const { session, targetId } = tab;
  await session.send('Emulation.setDeviceMetricsOverride', {
    width,
    height: 800,
    deviceScaleFactor: 1,
    mobile: false,
  });
  await session.send('Page.setDocumentContent', { frameId: targetId, html });
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
  const taken = await within(taking, LIMIT);
  if (!taken) throw new ProtocolError('the picture was not drawn in time');
  return Buffer.from(taken.data, 'base64');
}
