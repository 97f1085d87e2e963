import { resolve } from 'node:path';
import { housePublished } from '../core/house/published.js';
import type { MeasureSetting } from '../core/measuring.js';
import type { Published } from '../core/snippet.js';
import type { BrowserProgram } from '../render/browser/bundled.js';
import type { RendererOptions } from '../render/renderer-options.js';
import { Seats } from '../render/life/seats.js';
import type { Renderer } from '../render/renderer.js';
import type { Events } from './events.js';
import { Keeper } from './keeper.js';
import { RecordingFile, RecordingText } from './recording-file.js';
import { getJobs, type Plan } from './request.js';
import { ShotStore } from './shots.js';
import { makeOnlooker } from './onlooker.js';
import { nameSource } from './source.js';
import { Faults } from './faults.js';

/** What a run of renders reads from and writes to. */
export interface Means {
  program: BrowserProgram;
  recording: RecordingText | null;
  recordTo: RecordingFile | null;
  keeper: Keeper | null;
  shots: ShotStore | null;
  /** How many loads may go on at once. */
  seats: Seats;
  /** What could not be written on the way. */
  faults: Faults;
}

/** Opens all of it, before the first page is loaded. @throws ToolError */
export async function openMeans(plan: Plan, faults: Faults): Promise<Means> {
  const { keep, record, replay, browser, shots } = plan.request;
  const recording = replay === undefined ? null : await RecordingText.open(resolve(replay), replay);
  const { findBrowser } = await import('../render/browser/find.js');
  const program = await findBrowser(browser);
  const source = recording && (await nameSource(plan, recording.hash, program));
  const keeper = keep === undefined ? null : await Keeper.open(resolve(keep), source);
  // What is wrong with it is said before anything is rendered; what was kept of it was made out before.
  if (!keeper?.remembers) recording?.getExchanges();
  return {
    program,
    recording,
    recordTo: record === undefined ? null : await RecordingFile.open(resolve(record)),
    keeper,
    shots: shots === undefined ? null : new ShotStore(resolve(shots), faults),
    seats: new Seats(getJobs(plan.request)),
    faults,
  };
}

/** Renderers that are opened once, by whoever needs them first. One run after the other may be served. */
export class LazyRenderer {
  #plan: Plan;
  #means: Means;
  #events: Events;
  readonly #signal: AbortSignal;
  /** By the address of the published page that it is for; '' for the house's own page. */
  #opening = new Map<string, Promise<Renderer>>();
  /** The browser's product and version; null before it is needed. */
  version: string | null = null;

  constructor(plan: Plan, means: Means, events: Events, signal: AbortSignal) {
    this.#plan = plan;
    this.#means = means;
    this.#events = events;
    this.#signal = signal;
  }

  /** From now on it works for another run of the same house, checks and page. */
  serve(plan: Plan, means: Means, events: Events): void {
    this.#plan = plan;
    this.#means = means;
    this.#events = events;
  }

  get(published?: Published): Promise<Renderer> {
    const key = published?.address ?? '';
    const [first = null] = this.#opening.values();
    const opening = this.#opening.get(key) ?? this.#open(published, first);
    this.#opening.set(key, opening);
    return opening;
  }

  /** Ends the browser, where there is one. */
  async close(): Promise<void> {
    // The browser is the first one's.
    for (const opening of [...this.#opening.values()].reverse())
      await (await opening.catch(() => null))?.close();
  }

  /** @param first the one whose browser there is by now */
  async #open(
    published: Published | undefined,
    first: Promise<Renderer> | null,
  ): Promise<Renderer> {
    const { house, ownPage, root, request, wants } = this.#plan;
    const { program, recording, recordTo } = this.#means;
    const { Renderer } = await import('../render/renderer.js');
    const setting: MeasureSetting = {
      house: published ? housePublished(house, published) : house,
      ownPage: published ? null : ownPage,
      published: published ?? null,
      offline: request.offline ?? false,
      cold: wants['as-is'].includes('traffic') || recordTo !== null || recording !== null,
      wants,
    };
    const options: RendererOptions = {
      ...setting,
      program,
      root: published ? null : root,
      seats: this.#means.seats,
      signal: this.#signal,
      onFault: (error) => this.#means.faults.add(error, 'a render'),
      ...(request.standing && {
        onlooker: makeOnlooker(request.standing, published?.address ?? house.origin, {
          tell: (event) => this.#events.tell(event),
          add: async ({ shot, bytes }) => this.#means.shots?.add(shot.hash, bytes),
        }),
      }),
      ...(recordTo && { recordTo: recordTo.spool }),
      ...(recording && { recording: recording.getExchanges() }),
      ...(this.#means.shots && {
        onShot: async ({ shot, bytes }) => this.#means.shots?.add(shot.hash, bytes),
      }),
    };
    const other = await first?.catch(() => null);
    const renderer = other ? other.beside(options) : await Renderer.open(options);
    const { version, sandboxed } = renderer;
    if (this.version === null) this.#events.tell({ type: 'browser', version, sandboxed });
    this.version = version;
    return renderer;
  }
}
