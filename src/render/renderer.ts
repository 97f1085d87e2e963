import type { Baseline, Evidence } from '../core/evidence.js';
import { composePage } from '../core/host/host-page.js';
import type { House } from '../core/house/house.js';
import { ToolError } from '../core/errors.js';
import { readMarkup, type Markup } from '../core/markup/markup.js';
import { ALL_WANTED } from '../core/wants.js';
import { getTraits, joinTraits, STILL, type Traits } from '../core/markup/traits.js';
import { CONDITIONS, getEmpty, getRenderKey, type Render } from '../core/render.js';
import type { Snippet } from '../core/snippet.js';
import { makeBaseline } from './empty/baseline.js';
import { Baselines } from './empty/baselines.js';
import { compareRendered } from './empty/compare.js';
import { EmptyPages } from './empty/empty-pages.js';
import { Breakdown } from './bounds/breakdown.js';
import { Budget } from './bounds/budget.js';
import { DEFAULT_LIMITS, getCeiling, inTime, type Limits } from './bounds/limit.js';
import { EMPTY, shortenLimits, UNHURRIED, type Job, type Subject } from './life/job.js';
import { loadWindows, type Loading } from './life/load-windows.js';
import { Booths, type Booth } from './life/booths.js';
import { getRules, type RendererOptions } from './renderer-options.js';
import { getHost, getSources } from './sources.js';
import { OWN_FAULT } from './bounds/lost.js';
import { poseAll } from './life/posing.js';
import { NO_SEATS } from './life/seats.js';
import { renderSeries, type Doing } from './life/series.js';
import { findReach } from './reach.js';
import type { Around } from './setting.js';
import { renderPage, type Rendered } from './stage.js';

/** What a render may take longer than its snippet's time, to tell what it has seen by then, ms. */
const GRACE = 10_000;

/** Turns snippets into evidence. Close it: browser, gates and profiles go with it. */
export class Renderer {
  readonly house: House;
  #options: RendererOptions;
  #limits: Limits;
  #hostTraits: Traits;
  #booths: Booths;
  #baselines: Baselines;
  #empty: EmptyPages;
  /** The page breaks down, without any snippet, when it is looked at as others are. */
  #careful = false;

  /** Starts the browser. @throws ToolError `browser-failed` */
  static async open(options: RendererOptions): Promise<Renderer> {
    const memory = { recordTo: options.recordTo ?? null, recording: options.recording ?? null };
    const { program, house } = options;
    const rules = getRules(options);
    return new Renderer(options, await Booths.open(program, rules, memory, house.language));
  }

  /** Another in the same browser, for another house or page of the same language; it is to be closed before this one. */
  beside(options: RendererOptions): Renderer {
    return new Renderer(options, this.#booths.beside(getRules(options), options.house.language));
  }

  private constructor(options: RendererOptions, booths: Booths) {
    this.house = options.house;
    this.#options = options;
    this.#limits = options.limits ?? DEFAULT_LIMITS;
    this.#hostTraits = options.ownPage === null ? STILL : getTraits(readMarkup(options.ownPage));
    this.#booths = booths;
    this.#baselines = new Baselines({
      booths,
      toEmpty: (render) => this.#toEmpty(render),
      getKey: (empty) => this.#getPageKey(empty),
      make: (booth, render) => this.#makeBaseline(booth, render),
      leaves: this.#getLeaving([]),
      signal: options.signal,
    });
    this.#empty = new EmptyPages({
      booths,
      makeJob: (render) => this.#getEmptyJob(render),
      render: (booth, job) => this.#renderEmpty(booth, job),
      leaves: this.#getLeaving([]),
      getKey: (render) => this.#getPageKey(render),
    });
  }

  /** The browser's product and version. */
  get version(): string {
    return this.#booths.version;
  }

  get sandboxed(): boolean {
    return this.#booths.sandboxed;
  }

  close(): Promise<void> {
    return this.#booths.close();
  }

  /** The page without the snippet, for every render for which it could be rendered. */
  async getBaselines(renders: readonly Render[]): Promise<Map<string, Baseline>> {
    const found = new Map<string, Baseline>();
    for (const render of renders) {
      const baseline = await this.#baselines.find(render);
      if (baseline) found.set(getRenderKey(getEmpty(render)), baseline);
    }
    return found;
  }

  /**
   * Renders a snippet as planned, one load after the other in one context of its own.
   * @param onRender told after each render
   * @param budget what is left of the time for it; left out: a whole one
   * @param doing what is otherwise in the first minute is told behind the renders
   */
  async renderSnippet(
    snippet: Snippet,
    markup: Markup,
    renders: readonly Render[],
    onRender: () => void,
    budget?: Budget,
    doing: Partial<Doing> = {},
  ): Promise<Evidence[]> {
    const one = [{ snippet, markup }];
    return (await this.renderTogether(one, renders, onRender, budget, doing)).flat();
  }

  /**
   * Renders snippets that stand on one page, each in its slot; each render names them in the same order.
   * @returns for each render the evidence of each, and behind these what was seen later in some of them
   */
  async renderTogether(
    snippets: readonly { snippet: Snippet; markup: Markup }[],
    renders: readonly Render[],
    onRender: () => void,
    budget = new Budget(),
    { minute = false, hands = true, posesOnly = false }: Partial<Doing> = {},
  ): Promise<Evidence[][]> {
    this.#baselines.prepare(renders);
    const subject: Subject = {
      texts: snippets.map(({ snippet }) => snippet.text),
      markups: snippets.map(({ markup }) => markup),
      traits: snippets.map(({ markup }) => getTraits(markup)),
    };
    const { traits } = subject;
    const { resizable, asksKind, live } = joinTraits([...traits, this.#hostTraits]);
    const { moves, plays } = joinTraits(traits);
    const loading = this.#getLoading(budget);
    const leaves = this.#getLeaving(traits);
    const options = {
      leaves,
      getWants: ({ variant }: Render) => new Set((this.#options.wants ?? ALL_WANTED)[variant]),
      windowsAlike: resizable && !asksKind,
      apart: live || !resizable,
      watched: minute && (moves || plays),
      ...{ minute: minute && moves, hands, posesOnly },
    };
    const evidence = await renderSeries(loading, subject, renders, options, onRender);
    return loading.pictures ? poseAll(loading, subject, evidence, options) : evidence;
  }

  /**
   * Loads a snippet's page in other windows, as in a render of it: nothing is tried out and no shot is taken.
   * @param choose the widths to load next, in view of what was loaded so far; none when it is enough
   */
  loadWindows(
    { text }: Snippet,
    markup: Markup,
    like: Render,
    choose: (loads: readonly Evidence[]) => readonly number[],
    budget = new Budget(),
  ): Promise<Evidence[]> {
    const subject = { texts: [text], markups: [markup], traits: [getTraits(markup)] };
    return loadWindows(this.#getLoading(budget), subject, like, choose);
  }

  #getLoading(budget: Budget): Loading {
    return {
      find: (render) => this.#baselines.find(render),
      enter: (wanted) => this.#booths.enter(wanted),
      attempt: (booth, job) => budget.spend(() => this.#attempt(booth, job, budget)),
      budget,
      seats: this.#options.seats ?? NO_SEATS,
      pictures: this.#options.onShot !== undefined,
      explain: (error) => this.#explain(error),
      signal: this.#options.signal,
    };
  }

  /** Why there is nothing where something was thrown; what Mivket itself is to blame for is told besides. */
  #explain(error: unknown): string {
    if (error instanceof Breakdown) return error.message;
    if (!(error instanceof ToolError)) this.#options.onFault?.(error);
    return error instanceof ToolError ? error.message : OWN_FAULT;
  }

  /** Without code and films nothing stays behind in a booth that the next load would not clear. */
  #getLeaving(traits: readonly Traits[]): 'clean' | 'used' {
    const { live, media } = joinTraits([...traits, this.#hostTraits]);
    return live || media ? 'used' : 'clean';
  }

  async #attempt(booth: Booth, job: Job, budget: Budget): Promise<Rendered | null> {
    try {
      return await this.#renderInTime(booth, job, budget);
    } catch (error) {
      if (this.#options.signal?.aborted) throw error;
      this.#explain(error);
      return null;
    }
  }

  /** @throws Breakdown where it takes longer than any render may */
  async #renderInTime(booth: Booth, job: Job, budget: Budget): Promise<Rendered> {
    const rendering = this.#render(booth, job, budget);
    rendering.catch(() => undefined);
    const late = () => new Breakdown('the render took too long');
    return inTime(rendering, Math.min(getCeiling(this.#limits), budget.left + GRACE), late);
  }

  /** The page without a snippet. @throws Breakdown also where only a part of it could be read */
  async #renderEmpty(booth: Booth, job: Job): Promise<Rendered> {
    const rendering = this.#renderInTime(booth, job, new Budget(Infinity));
    const rendered = await rendering.finally(() => {
      this.#careful ||= booth.page.happened.crashed;
    });
    const { gone, happened } = booth.page;
    const isRead = rendered.parted !== null || happened.left;
    if (gone || happened.crashed || !isRead) throw new Breakdown('the page could not be read');
    return rendered;
  }

  async #render(booth: Booth, job: Job, budget: Budget): Promise<Rendered> {
    const { root, onShot, onlooker, cold = true, house } = this.#options;
    const { render } = job;
    const sources = getSources(this.#options, render, job.subject.texts);
    const around = await this.#findAround(job);
    const rendered = await renderPage(
      booth,
      sources,
      {
        terms: { steps: house.steps, root, cold, ...(onlooker && { onlooker }) },
        around,
        reach: findReach(booth, job, sources, this.#hostTraits, this.#options),
        limits: shortenLimits(this.#limits, job),
        budget,
      },
      { ...job, careful: job.careful || this.#careful },
    );
    for (const shot of rendered.shots) await onShot?.(shot);
    booth.shown = rendered.served;
    booth.viewport = render.viewport;
    booth.variant = render.variant;
    return compareRendered(rendered, this.#empty, job.hands);
  }

  /** A frame of its own is as wide as its slot: its document is looked at in a window of that width. */
  async #findAround({ render, subject }: Job): Promise<Around> {
    const { viewport, insert } = render;
    const framed = insert === 'frame';
    const { points } = joinTraits([...subject.traits, this.#hostTraits]);
    const around = {
      published: Boolean(this.#options.published),
      ownPage: this.#options.ownPage !== null && !framed,
      hostChanges: this.#hostTraits.changes && !framed,
      points: points && !viewport.touch,
    };
    if (!framed) return { ...around, window: viewport, pageFamily: null };
    const { box, family } = await this.#empty.measureSlot(render);
    const width = Math.round(box.width) || viewport.width;
    return { ...around, window: { ...viewport, width }, pageFamily: family };
  }

  /** With the same text, renders of different slots have the same page. */
  #getPageKey(render: Render): string {
    const snippets: Render['snippets'] = [];
    return `${getRenderKey({ ...render, snippets })} ${composePage(getHost(this.#options, render), [])}`;
  }

  async #makeBaseline(booth: Booth, render: Render): Promise<Baseline> {
    if (CONDITIONS[render.variant].later) return this.#makeLater(booth, render);
    const job = this.#getEmptyJob(render);
    const first = await this.#renderEmpty(booth, job);
    // The neutral page has nothing that could differ from one load to the next.
    const second = this.#options.ownPage === null ? first : await this.#renderEmpty(booth, job);
    return makeBaseline([first, second]);
  }

  /** The page without a snippet in its first minute. */
  async #makeLater(booth: Booth, render: Render): Promise<Baseline> {
    const job = this.#getEmptyJob(render);
    const first = await this.#renderEmpty(booth, { ...job, watched: true });
    const second = await this.#renderEmpty(booth, { ...job, minute: 'only' });
    return makeBaseline([first, second, ...second.later]);
  }

  /** What cannot change by itself is the same later. */
  #toEmpty(render: Render): Render {
    const empty = getEmpty(render);
    const { moves, plays } = this.#hostTraits;
    const isStill = CONDITIONS[empty.variant].later && !moves && !plays;
    return isStill ? { ...empty, variant: 'empty' } : empty;
  }

  #getEmptyJob(render: Render): Job {
    const traits = [{ ...this.#hostTraits, media: false, script: null, scripts: [] }];
    const subject = { texts: [], markups: [], traits };
    return { ...UNHURRIED, ...EMPTY, subject, render, baseline: null, known: [] };
  }
}
