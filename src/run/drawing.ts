import { ToolError } from '../core/errors.js';
import { doAlive } from '../render/life/attempt.js';
import type { BrowserProgram } from '../render/browser/bundled.js';
import type { Booths } from '../render/life/booths.js';

/** Draws pages of our own; the browser is started by the first, and asks for nothing outside. */
export class Drawer {
  readonly #wanted: string | undefined;
  #opening: Promise<Booths> | null = null;

  /** @param wanted a browser, as users name it */
  constructor(wanted: string | undefined) {
    this.#wanted = wanted;
  }

  /**
   * A PNG; null where the page is higher than a picture can be.
   * @throws ToolError `browser-failed` also where the browser is gone each time
   */
  async draw(html: string, width: number): Promise<Buffer | null> {
    const booths = await (this.#opening ??= this.#open());
    const first = await booths.enter();
    const { done, booth } = await doAlive(
      first,
      () => booths.enter('alone'),
      async ({ page }) => ({ drawn: await page.draw(html, width) }),
    ).catch(async (error: unknown) => {
      await first.leave('broken');
      throw error;
    });
    await booth.leave('used');
    if (done === null)
      throw new ToolError('browser-failed', 'The browser was gone each time a picture was drawn.');
    return done.drawn;
  }

  async close(): Promise<void> {
    const booths = await this.#opening?.catch(() => null);
    await booths?.close();
  }

  async #open(): Promise<Booths> {
    const { findBrowser } = await import('../render/browser/find.js');
    const { Booths } = await import('../render/life/booths.js');
    const program: BrowserProgram = await findBrowser(this.#wanted);
    const rules = { origin: 'https://drawing.invalid', reroute: {}, offline: true };
    return Booths.open(program, rules, { recordTo: null, recording: null }, 'en');
  }
}
