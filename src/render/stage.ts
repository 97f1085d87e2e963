import type { Baseline, Box, Evidence, Facts, Gap, RefusedStyle } from '../core/evidence.js';
import { flatMap } from '../core/lists.js';
import { joinTraits, type Traits } from '../core/markup/traits.js';
import type { House } from '../core/house/house.js';
import type { Render, Viewport } from '../core/render.js';
import { collectFacts } from '../facts/collector.js';
import { askOf, type Asking } from './asked.js';
import { Breakdown } from './breakdown.js';
import type { Budget } from './budget.js';
import { addFitting } from './collect/fitting.js';
import { describeHang } from './collect/hang.js';
import { needsMakers, part } from './collect/makers.js';
import type { Parted } from './collect/own.js';
import type { Reading } from './collect/read.js';
import { readRefused } from './collect/refused.js';
import { findGaps, listCut } from './gaps.js';
import { readGrounds } from './grounds.js';
import { shootHarmed } from './harm-shot.js';
import { getLoad } from './job.js';
import { look, type Seen } from './look.js';
import { inTime, within, type Limits } from './limit.js';
import type { BrowserPage, Preparation } from './page/browser-page.js';
import { ServedPage, type Sources } from './page/served-page.js';
import type { Place } from './places.js';
import type { Hands } from './handling.js';
import { readNaturals } from './naturals.js';
import type { Waiting } from './search-windows.js';
import { takeShot, type TakenShot } from './shot.js';
import { tryAll } from './tries.js';
import type { Markup } from '../core/markup/markup.js';
import type { Intent } from '../core/mend/intent.js';

/** What one render gives: evidence of each of its snippets, and what the page without any is compared by. */
export interface Rendered {
  evidence: Evidence[];
  served: ServedPage;
  parted: Parted | null;
  requests: string[];
  /** What is set for the whole page. */
  settings: Record<string, string>;
  shots: TakenShot[];
}

/** A page that stands loaded in a tab. */
export interface Shown {
  /** Its text, where it is the one to render. */
  served: ServedPage | null;
  /** The same page, and it cannot tell: it may be brought to a width instead of loaded anew. */
  resizable: boolean;
  /** Where it has code. */
  code: NonNullable<Preparation['before']>;
}

/** What a render needs to know besides its sources. */
export interface StageOptions {
  /** What each of the render's snippets can do, in their order; of the page alone, what that can. */
  traits: readonly Traits[];
  /** The snippets, in the same order. */
  trials: readonly Trial[];
  /** Whether causes and cures are looked for by trying. */
  tries: boolean;
  /** Whether the windows that a render names are tried. */
  searches: boolean;
  /** Those can be tried in a later render as well. */
  waits: boolean;
  limits: Limits;
  /** The time for the snippet as a whole. */
  budget: Budget;
  /** The page without the snippet; null while that itself is rendered. */
  baseline: Baseline | null;
  /** The page without the snippet has code. */
  hostChanges: boolean;
  /** The font family of the slot on the page around, where it stands in a frame of its own; else null. */
  pageFamily: string | null;
  /** The page around is the house's own. */
  ownPage: boolean;
  /** Code may wait for a mouse, which any visitor with one moves: else one would be there by chance alone. */
  points: boolean;
  /** Whether keys and fingers are tried. */
  hands: Hands;
  /** What is done before anything is read. */
  steps: House['steps'];
  /** How large the window is in which it is rendered. */
  window: Viewport;
  /** A folder of files that the host page may ask for. */
  root: string | null;
  /** What stands in the tab; null in a new one. */
  shown: Shown | null;
  /** Everything is asked for again. */
  cold: boolean;
  /** Profile from the start, to name the line where it hangs. */
  profile: boolean;
  /** Its code runs; else it took the page down before. */
  scripted: boolean;
  /** Nothing is asked of it that a browser is known to break down on. */
  careful: boolean;
  /**
   * Whether a picture is taken: to take one makes the page paint, and load, what nobody has looked at, so that
   * nothing may be read or tried after it. `last`: only where nothing will be, since it was stopped.
   */
  shots: 'taken' | 'last' | 'none';
  /** Which piece of the page; left out: the slot with what stands in it. */
  region?: Box | null;
}

/** How long it may take to make a tab ready, beside what it may hang, ms. */
const PREPARED = 4000;

/**
 * Renders one load: serves the page, loads it, lets it come to rest, reads it.
 * @throws Error where page or browser are gone
 */
export async function renderPage(
  place: Pick<Place, 'page' | 'gate' | 'refusals'>,
  render: Render,
  sources: Sources,
  options: StageOptions,
): Promise<Rendered> {
  const { page, gate } = place;
  const served = options.shown?.served ?? new ServedPage(sources);
  const { address, published } = sources;
  const { limits } = options;
  const ready = options.shown?.resizable
    ? page.resize(options.window)
    : prepare(place, render, served, sources, options);
  // What stands there from before may hang by now.
  await inTime(
    ready,
    limits.hang + PREPARED,
    () => new Breakdown('the tab could not be made ready'),
  );
  const seen = await look(page, { address, served, published }, render, options);
  // A page that is only brought to another width has asked for nothing since: what was refused it still is.
  if (!options.shown?.resizable) place.refusals.push(...(await gate.takeRefusals()));
  const told: Told[] = [];
  for (const of of options.traits.keys())
    told.push(await tell(place, { render, of }, served, seen, options));
  return {
    evidence: told.map(({ evidence }) => evidence),
    served,
    parted: told[0]?.parted ?? null,
    requests: page.requests.requests.map((one) => one.address),
    settings: seen.reading?.raw.settings ?? {},
    shots: flatMap(told, ({ shots }) => shots),
  };
}

/** A snippet to be tried out, and the cures that were found for it so far. */
export interface Trial {
  markup: Markup;
  cures: Intent[][];
  /** Something of it was too wide in a window. */
  bursts: boolean;
  /** The declarations that the browser does not take; null as long as it was not asked. */
  refused: readonly RefusedStyle[] | null;
  /** Searches of windows that a later render makes with its own. */
  waiting: Waiting[];
}

interface Told {
  evidence: Evidence;
  parted: Parted | null;
  shots: TakenShot[];
}

/** What was seen, as it concerns one of the snippets. */
async function tell(
  { page, refusals }: Pick<Place, 'page' | 'refusals'>,
  { render, of }: { render: Render; of: number },
  served: ServedPage,
  { reading, stopped, stillMoving, cut }: Seen,
  options: StageOptions,
): Promise<Told> {
  const { traits, trials, limits, budget, baseline, hostChanges, window, scripted } = options;
  const own = traits[of]!;
  const whose = { ...own, of, served, hostChanges, baseline };
  const parting = reading && part(page, reading, whose).catch(() => null);
  const parted = parting && (await within(parting, limits.hang));
  const read = parted && reading;
  const hung = describeHang(page, served, of, stopped, scripted ? limits.hang / 1000 : null);
  const { happened, requests } = page;
  const late: Gap[] = [];
  const asked = { ms: limits.hang, budget, gaps: late };
  const refused = read ? await findRefused(page, trials[of], asked) : [];
  const { facts, gaps } = collectFacts({
    page,
    served,
    of,
    happened,
    reading: read,
    parted,
    hung,
    stillMoving,
    refusals,
    baseline,
    hostChanges,
    changes: own.changes,
    refused,
    hasSound: (file) => page.hasSound(file),
  });
  facts.slot.pageFamily = options.pageFamily;
  if (read && parted && !hung)
    Object.assign(facts, await lookAround(page, { facts, parted, read, of }, options, asked));
  gaps.push(...findGaps({ facts, reading: read, hung, requests, of, left: happened.left, cut }));
  if (!hung) gaps.push(...late);
  if (read && !hung && !budget.isOver)
    facts.frames = await readNaturals(page, facts.frames, read.inner);
  const tried = read && !hung ? await tryAll(page, { render, of }, facts, gaps, options) : {};
  if (cut === null && budget.isOver) gaps.push(...listCut(facts, budget.words));
  const isTaken = options.shots === 'taken' || (options.shots === 'last' && hung !== null);
  const seenIn = { render: { ...render, viewport: window }, of, region: options.region };
  const raw = reading?.raw ?? null;
  const shot = isTaken && !budget.isOver ? await takeShot(page, seenIn, raw, facts.elements) : null;
  const whole = read !== null && !hung && render.variant === 'as-is';
  const harmed =
    isTaken && whole && !budget.isOver ? await shootHarmed(page, facts, options) : null;
  return {
    evidence: {
      ...{ render, of, gaps, ...facts, ...tried },
      shot: shot && shot.shot,
      harm: harmed && { with: harmed.shot, without: null },
    },
    parted,
    shots: [shot, harmed].filter((one) => one !== null),
  };
}

/** What rules reach of the page around, and what stands behind texts. */
async function lookAround(
  page: BrowserPage,
  { facts, parted, read, of }: { facts: Facts; parted: Parted; read: Reading; of: number },
  { trials, ownPage, budget, window }: StageOptions,
  asked: Asking,
): Promise<Pick<Facts, 'host' | 'texts'>> {
  const markups = { markup: trials[of]?.markup, every: ownPage };
  const fitting = addFitting(page, facts.host, parted.parts, markups);
  const host = await askOf('host', fitting, { ...asked, otherwise: facts.host });
  if (budget.isOver) return { host, texts: facts.texts };
  return { host, texts: await readGrounds(page, facts.texts, window, read.raw.width.clientWidth) };
}

/** The browser takes a declaration or does not, at whatever width: it is asked once. */
async function findRefused(
  page: BrowserPage,
  trial: Trial | undefined,
  asked: Asking,
): Promise<readonly RefusedStyle[]> {
  if (!trial) return [];
  const reading = trial.refused ? Promise.resolve(trial.refused) : readRefused(page, trial.markup);
  const found = await askOf('styles', reading, { ...asked, otherwise: null });
  trial.refused = found;
  return found ?? [];
}

async function prepare(
  place: Pick<Place, 'page' | 'gate' | 'refusals'>,
  render: Render,
  served: ServedPage,
  sources: Sources,
  options: StageOptions,
): Promise<void> {
  const { page, gate } = place;
  const { shown, root, cold, profile: profiled, scripted } = options;
  const { pathname, search } = new URL(sources.address);
  const { headers, published } = sources;
  const content = { html: served.html, headers, root, path: pathname + search, published };
  await Promise.all([
    gate.setPage(content, getLoad(render)),
    page.prepare({
      viewport: options.window,
      variant: render.variant,
      before: shown && shown.code,
      cold,
      traced: needsMakers({ ...options, changes: joinTraits(options.traits).changes }),
      profiled,
      scripted,
    }),
  ]);
  await gate.takeRefusals();
  place.refusals.length = 0;
}
