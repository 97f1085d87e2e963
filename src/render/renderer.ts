import type { Baseline, Evidence } from '../core/evidence.js';
import { composePage } from '../core/host/host-page.js';
import { ToolError } from '../core/errors.js';
import { readMarkup, type Markup } from '../core/markup/markup.js';
import { getTraits, joinTraits, STILL, type Traits } from '../core/markup/traits.js';
import { getEmpty, getRenderKey, isOneKind, type Render, type Viewport } from '../core/render.js';
import type { Snippet } from '../core/snippet.js';
import { makeBaseline } from './baseline.js';
import { Baselines } from './baselines.js';
import { EmptyPages } from './empty-pages.js';
import { Breakdown } from './breakdown.js';
import { Budget } from './budget.js';
import { DEFAULT_LIMITS, getCeiling, inTime, type Limits } from './limit.js';
import { getShots, NO_HANDS, shorten, UNHURRIED, type Job } from './job.js';
import { loadWindows, type Loading } from './load-windows.js';
import { Places, type Place } from './places.js';
import type { RendererOptions } from './renderer-options.js';
import { getHost, getSources } from './sources.js';
import { OWN_FAULT } from './lost.js';
import { poseAll } from './posing.js';
import { renderSeries } from './series.js';
import { renderPage, type Rendered, type Trial } from './stage.js';

/** What a render may take longer than its snippet's time, to tell what it has seen by then, ms. */
const GRACE = 10_000;

/** Turns snippets into evidence. Close it: browser, gates and profiles go with it. */
export class Renderer {
  #options: RendererOptions;
  #hostTraits: Traits;
  #places: Places;
  #baselines: Baselines;
  #empty: EmptyPages;
  /** The page breaks down, without any snippet, when it is looked at as others are. */
  #careful = false;

  /** Starts the browser. @throws ToolError `browser-failed` */
  static async open(options: RendererOptions): Promise<Renderer> {
    const { origin, reroute, language } = options.house;
    const rules = { origin, reroute, offline: options.offline };
    const memory = { recordTo: options.recordTo ?? null, recording: options.recording ?? null };
    return new Renderer(options, await Places.open(options.program, rules, memory, language));
  }

  private constructor(options: RendererOptions, places: Places) {
    this.#options = options;
    this.#hostTraits = options.ownPage === null ? STILL : getTraits(readMarkup(options.ownPage));
    this.#places = places;
    this.#baselines = new Baselines({
      places,
      getKey: (render) => this.#getPageKey(getEmpty(render)),
      make: (place, render) => this.#makeBaseline(place, render),
      leaves: this.#getLeaving([]),
      signal: options.signal,
    });
    this.#empty = new EmptyPages({
      places,
      makeJob: (render) => this.#getEmptyJob(render),
      render: (place, job) => this.#renderEmpty(place, job),
      getKey: (render) => this.#getPageKey(render),
    });
  }

  get #limits(): Limits {
    return this.#options.limits ?? DEFAULT_LIMITS;
  }

  /** The browser's product and version. */
  get version(): string {
    return this.#places.version;
  }

  get sandboxed(): boolean {
    return this.#places.sandboxed;
  }

  close(): Promise<void> {
    return this.#places.close();
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
   */
  async renderSnippet(
    snippet: Snippet,
    markup: Markup,
    renders: readonly Render[],
    onRender: () => void,
    budget?: Budget,
  ): Promise<Evidence[]> {
    return (await this.renderTogether([{ snippet, markup }], renders, onRender, budget)).flat();
  }

  /**
   * Renders snippets that stand on one page, each in its slot; each render names them in the same order.
   * @returns for each render the evidence of each
   */
  async renderTogether(
    snippets: readonly { snippet: Snippet; markup: Markup }[],
    renders: readonly Render[],
    onRender: () => void,
    budget = new Budget(),
  ): Promise<Evidence[][]> {
    this.#baselines.prepare(renders);
    const texts = snippets.map(({ snippet }) => snippet.text);
    const traits = snippets.map(({ markup }) => getTraits(markup));
    const { resizable, asksKind } = joinTraits([...traits, this.#hostTraits]);
    const trials = snippets.map(({ markup }): Trial => ({
      markup,
      cures: [],
      bursts: false,
      refused: null,
      waiting: [],
    }));
    const loading = this.#getLoading(budget);
    const leaves = this.#getLeaving(traits);
    const hands = this.#options.hands ?? true;
    const page = { texts, traits, trials };
    const options = { leaves, hands, kindless: resizable && !asksKind };
    const evidence = await renderSeries(loading, page, renders, options, onRender);
    return this.#options.onShot ? poseAll(loading, page, evidence, leaves) : evidence;
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
    return loadWindows(this.#getLoading(budget), { text, traits: getTraits(markup), like }, choose);
  }

  #getLoading(budget: Budget): Loading {
    return {
      find: (render) => this.#baselines.find(render),
      enter: (wanted) => this.#places.enter(wanted),
      attempt: (place, job) => budget.spend(() => this.#attempt(place, job, budget)),
      budget,
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

  /** Without code and films nothing stays behind in a place that the next load would not clear. */
  #getLeaving(traits: readonly Traits[]): 'clean' | 'used' {
    const { live, media } = joinTraits([...traits, this.#hostTraits]);
    return live || media ? 'used' : 'clean';
  }

  async #attempt(place: Place, job: Job, budget: Budget): Promise<Rendered | null> {
    try {
      return await this.#renderInTime(place, job, budget);
    } catch (error) {
      if (this.#options.signal?.aborted) throw error;
      this.#explain(error);
      return null;
    }
  }

  /** @throws Breakdown where it takes longer than any render may */
  async #renderInTime(place: Place, job: Job, budget: Budget): Promise<Rendered> {
    const rendering = this.#render(place, job, budget);
    rendering.catch(() => undefined);
    const late = () => new Breakdown('the render took too long');
    return inTime(rendering, Math.min(getCeiling(this.#limits), budget.left + GRACE), late);
  }

  /** The page without a snippet. @throws Breakdown also where only a part of it could be read */
  async #renderEmpty(place: Place, job: Job): Promise<Rendered> {
    const rendering = this.#renderInTime(place, job, new Budget(Infinity));
    const rendered = await rendering.finally(() => {
      this.#careful ||= place.page.happened.crashed;
    });
    const { gone, happened } = place.page;
    const isRead = rendered.parted !== null || happened.left;
    if (gone || happened.crashed || !isRead) throw new Breakdown('the page could not be read');
    return rendered;
  }

  async #render(place: Place, job: Job, budget: Budget): Promise<Rendered> {
    const { root, onShot, cold = true, tries = true } = this.#options;
    const { render } = job;
    const traits = joinTraits(job.traits);
    const sources = getSources(this.#options, render, job.texts);
    const same = place.shown?.isOf(sources) ?? false;
    const around = await this.#findAround(render);
    const all = joinTraits([traits, this.#hostTraits]);
    const { live, changes, points } = all;
    const framed = live ? 'framed-code' : 'no-code';
    const code = changes ? 'code' : framed;
    const resizable = same && !live && traits.resizable && this.#isResizable(place, job, all);
    const rendered = await renderPage(place, render, sources, {
      traits: job.traits,
      trials: job.trials,
      tries: tries && !job.light && !job.poses,
      // The neutral page is as wide as any window.
      searches: !job.poses && (render.variant === 'as-is' || this.#options.ownPage !== null),
      limits: shorten(this.#limits, job),
      budget,
      baseline: job.baseline,
      hostChanges: this.#hostTraits.changes && render.insert !== 'frame',
      ...around,
      ownPage:
        this.#options.ownPage !== null && render.insert !== 'frame' && !job.light && !job.poses,
      points: points && !render.viewport.touch,
      hands: job.hands,
      waits: job.waits,
      steps: this.#options.house.steps,
      root,
      shown: place.shown && { served: same ? place.shown : null, resizable, code },
      cold,
      profile: job.profile,
      scripted: job.scripted,
      careful: job.careful || this.#careful,
      shots: onShot ? getShots(job) : 'none',
      region: job.region ?? null,
    });
    for (const shot of rendered.shots) await onShot?.(shot);
    for (const { harm } of rendered.evidence)
      if (harm) harm.without = await this.#empty.shoot(render, harm.with.region);
    place.shown = rendered.served;
    place.viewport = render.viewport;
    place.variant = render.variant;
    return rendered;
  }

  /** Whether what stands there can be brought to another window, and not tell. */
  #isResizable(place: Place, { render, profile }: Job, traits: Traits): boolean {
    const { viewport, variant, page } = place;
    const { alwaysLoad, published } = this.#options;
    if (viewport === null || variant !== render.variant || alwaysLoad || profile) return false;
    // What a finger began may come later: a tap that takes the focus, a page that glides on.
    if (page.happened.handled) return false;
    if (isOneKind(viewport, render.viewport)) return true;
    // A film has other controls under a finger, and whoever is asked may answer by the kind of browser.
    const asks = traits.asksKind || traits.media || published || page.requests.requests.length > 1;
    return viewport.scheme === render.viewport.scheme && traits.resizable && !asks;
  }

  /** A frame of its own is as wide as its slot: its document is looked at in a window of that width. */
  async #findAround(render: Render): Promise<{ window: Viewport; pageFamily: string | null }> {
    const { viewport, insert } = render;
    if (insert !== 'frame') return { window: viewport, pageFamily: null };
    const { box, family } = await this.#empty.measureSlot(render);
    const width = Math.round(box.width) || viewport.width;
    return { window: { ...viewport, width }, pageFamily: family };
  }

  /** With the same text, renders of different slots have the same page. */
  #getPageKey(render: Render): string {
    const snippets: Render['snippets'] = [];
    return `${getRenderKey({ ...render, snippets })} ${composePage(getHost(this.#options, render), [])}`;
  }

  async #makeBaseline(place: Place, render: Render): Promise<Baseline> {
    const job = this.#getEmptyJob(render);
    const first = await this.#renderEmpty(place, job);
    // The neutral page has nothing that could differ from one load to the next.
    const second = this.#options.ownPage === null ? first : await this.#renderEmpty(place, job);
    return makeBaseline(first, second);
  }

  #getEmptyJob(render: Render): Job {
    const traits = [{ ...this.#hostTraits, media: false, script: null, scripts: [] }];
    return {
      render,
      texts: [],
      trials: [],
      traits,
      baseline: null,
      ...UNHURRIED,
      light: false,
      hands: NO_HANDS,
      waits: false,
    };
  }
}
