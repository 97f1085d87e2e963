import type { Picture } from '../render/picture.js';
import type { Renderer } from '../render/renderer.js';
import { wantsPictures } from './options.js';
import type { Means } from './rendering.js';
import type { Plan, Results } from './report.js';
import { write, type World } from './streams.js';

const NO_SANDBOX =
  'mivket: The browser runs without its sandbox, because you are root; better run as an ordinary user.\n';

/** A renderer that is opened once, by whoever needs it first. */
export class LazyRenderer {
  #plan: Plan;
  #means: Means;
  #world: World;
  #signal: AbortSignal;
  #opening: Promise<Renderer> | null = null;
  engines: Results['engines'] | null = null;

  constructor(plan: Plan, means: Means, world: World, signal: AbortSignal) {
    this.#plan = plan;
    this.#means = means;
    this.#world = world;
    this.#signal = signal;
  }

  get(): Promise<Renderer> {
    return (this.#opening ??= this.#open());
  }

  /** Draws a page of our own. */
  async draw(html: string, width: number): Promise<Buffer | null> {
    return (await this.get()).draw(html, width);
  }

  /** Ends the browser, where there is one; what was recorded becomes its file. */
  async close(): Promise<void> {
    const renderer = await this.#opening?.catch(() => null);
    await renderer?.close();
    await this.#means.recordTo?.finish();
  }

  async #open(): Promise<Renderer> {
    const { house, ownPage, root, options } = this.#plan;
    const { program, recording, recordTo, pictures } = this.#means;
    const { Renderer } = await import('../render/renderer.js');
    const renderer = await Renderer.open({
      program,
      house,
      ownPage,
      root,
      offline: options.offline,
      signal: this.#signal,
      ...(recordTo && { recordTo: recordTo.spool }),
      ...(recording && { recording: recording.exchanges }),
      ...(wantsPictures(options) && {
        onPicture: ({ shot, bytes }: Picture) => pictures.add(shot.hash, bytes),
      }),
    });
    this.engines = [{ name: 'chromium', version: renderer.version }];
    if (!renderer.sandboxed && !options.quiet) await write(this.#world.stderr, NO_SANDBOX);
    return renderer;
  }
}
