import type { Protocol } from 'devtools-protocol';
import type { PageScreen, ShownFrame } from '../page/page-screen.js';
import type { Session } from './connection.js';

/** px of the window for each pixel: small, since each frame is packed, sent and unpacked. */
const COARSE = 16;
/** So many are kept that nobody has taken. */
const MOST_KEPT = 600;

/** What the browser shows of a page, frame by frame, as soon as something in it is painted. */
export class Screencast implements PageScreen {
  #session: Session;
  /** Has all of the window drawn. */
  #reveal: () => Promise<void>;
  #kept: ShownFrame[] = [];
  #waiting: (() => void)[] = [];
  count = 0;

  constructor(session: Session, reveal: () => Promise<void>) {
    this.#session = session;
    this.#reveal = reveal;
    session.on('Page.screencastFrame', this.#onFrame);
  }

  async watch({ width, height }: { width: number; height: number }): Promise<void> {
    this.#kept = [];
    await this.#reveal();
    await this.#session.send('Page.startScreencast', {
      format: 'png',
      maxWidth: Math.ceil(width / COARSE),
      maxHeight: Math.ceil(height / COARSE),
    });
  }

  take(): ShownFrame[] {
    return this.#kept.splice(0);
  }

  whenShown(): Promise<true> {
    return new Promise((resolve) => this.#waiting.push(() => resolve(true)));
  }

  async rest(): Promise<void> {
    this.#kept = [];
    await this.#session.send('Page.stopScreencast');
  }

  #onFrame = ({ data, metadata, sessionId }: Protocol.Page.ScreencastFrameEvent) => {
    this.#session.tell('Page.screencastFrameAck', { sessionId });
    this.count++;
    if (this.#kept.length < MOST_KEPT) this.#kept.push(toFrame(data, metadata));
    for (const told of this.#waiting.splice(0)) told();
  };
}

function toFrame(data: string, told: Protocol.Page.ScreencastFrameMetadata): ShownFrame {
  const { timestamp = 0, deviceWidth, pageScaleFactor, scrollOffsetX, scrollOffsetY } = told;
  return {
    at: 1000 * timestamp,
    late: Date.now() - 1000 * timestamp,
    png: Buffer.from(data, 'base64'),
    width: deviceWidth,
    zoom: pageScaleFactor,
    left: scrollOffsetX,
    top: scrollOffsetY,
  };
}
