import type { Listening, PageHand } from '../page/browser-page.js';
import type { Session } from './connection.js';

const SHIFT = 8;
const KEYS = {
  Tab: { key: 'Tab', code: 'Tab', windowsVirtualKeyCode: 9 },
  Escape: { key: 'Escape', code: 'Escape', windowsVirtualKeyCode: 27 },
  ArrowDown: { key: 'ArrowDown', code: 'ArrowDown', windowsVirtualKeyCode: 40 },
  Space: { key: ' ', code: 'Space', windowsVirtualKeyCode: 32, text: ' ' },
} as const;
const MOVES = 4;
/** Where the mouse comes in, px: in what is drawn of a page that nobody looks at, and not at its upper edge. */
const POINT_TOP = 15;

/** A visitor's keys and finger. */
export class Hand implements PageHand {
  #session: Session;
  #reveal: () => Promise<void>;

  /** @param reveal has the whole window drawn: a finger finds nothing where nothing is */
  constructor(session: Session, reveal: () => Promise<void>) {
    this.#session = session;
    this.#reveal = reveal;
  }

  async listListeners(): Promise<Listening[]> {
    const found = await Promise.all([this.#listAt('window'), this.#listAt('document')]);
    return found.flat().map(({ type, passive }) => ({ type, passive }));
  }

  /** On what an expression gives, and on all that is in it. */
  async #listAt(expression: string) {
    const session = this.#session;
    const { result } = await session.send('Runtime.evaluate', { expression, userGesture: false });
    if (!result.objectId) return [];
    const wish = { objectId: result.objectId, depth: -1, pierce: true };
    return (await session.send('DOMDebugger.getEventListeners', wish)).listeners;
  }

  /** The browser makes up a mouse in the corner of a page, now and then: until there is a hand nothing is to move. */
  async rest(): Promise<void> {
    await this.#session.hold('Input.setIgnoreInputEvents', { ignore: true });
  }

  #begin(): Promise<void> {
    return this.#session.hold('Input.setIgnoreInputEvents', { ignore: false });
  }

  async point(): Promise<void> {
    await this.#begin();
    for (const x of [1, -10])
      await this.#session.send('Input.dispatchMouseEvent', { type: 'mouseMoved', x, y: POINT_TOP });
    await this.rest();
  }

  async press(key: keyof typeof KEYS, shift: boolean): Promise<void> {
    const event = { ...KEYS[key], modifiers: shift ? SHIFT : 0 };
    await this.#begin();
    // A key that writes something does what it does by what it writes.
    const type = 'text' in event ? 'keyDown' : 'rawKeyDown';
    await this.#session.send('Input.dispatchKeyEvent', { type, ...event });
    await this.#session.send('Input.dispatchKeyEvent', { type: 'keyUp', ...event });
  }

  async wheel({ x, y }: { x: number; y: number }, down: number): Promise<void> {
    await this.#begin();
    await this.#reveal();
    const turn = { type: 'mouseWheel', x, y, deltaX: 0, deltaY: down } as const;
    await this.#session.send('Input.dispatchMouseEvent', turn);
  }

  async click({ x, y }: { x: number; y: number }): Promise<void> {
    await this.#begin();
    await this.#reveal();
    for (const type of ['mousePressed', 'mouseReleased'] as const)
      await this.#session.send('Input.dispatchMouseEvent', {
        ...{ type, x, y },
        ...{ button: 'left', clickCount: 1 },
      });
  }

  async swipe<T>(
    { x, from, to }: { x: number; from: number; to: number },
    meanwhile: () => Promise<T>,
  ): Promise<T> {
    const touch = (type: 'touchStart' | 'touchMove' | 'touchEnd', y: number) =>
      this.#session.send('Input.dispatchTouchEvent', {
        type,
        touchPoints: type === 'touchEnd' ? [] : [{ x, y }],
      });
    await this.#begin();
    await this.#reveal();
    await touch('touchStart', from);
    try {
      for (let i = 1; i <= MOVES; i++) await touch('touchMove', from + ((to - from) * i) / MOVES);
      return await meanwhile();
    } finally {
      await touch('touchEnd', to);
    }
  }
}
