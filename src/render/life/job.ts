import {
  FITTING_KINDS,
  type Baseline,
  type Box,
  type Evidence,
  type FactKind,
} from '../../core/evidence.js';
import type { Markup } from '../../core/markup/markup.js';
import type { Traits } from '../../core/markup/traits.js';
import type { Load } from '../../core/recording/exchange.js';
import { CONDITIONS, type Render } from '../../core/render.js';
import type { Glimpse } from '../glimpse.js';
import type { Learned } from './learned.js';
import type { Limits } from '../bounds/limit.js';
import { makeLost } from '../bounds/lost.js';

const HANGING_AGAIN = 2000;
const SLOW_LOAD = 5000;
const SLOW_SETTLE = 2000;

/** The snippets of a page, in the order of its renders'; of the page alone what that can. It holds for all loads of it. */
export interface Subject {
  texts: readonly string[];
  markups: readonly Markup[];
  traits: readonly Traits[];
}

/** How a page is to be dealt with, by what came of it before. */
export interface Manner {
  /** It is profiled from the start, to name the line where it hangs. */
  profile: boolean;
  /** Its code runs: not so where it took the page down before. */
  scripted: boolean;
  /** It broke down when it was looked at as others are: nothing is asked that a browser is known to break down on. */
  careful: boolean;
  /** It has hung before: no need to wait as long again. */
  hanging: boolean;
  /** It had not come to rest when the time was over: nor will it now. */
  restless: boolean;
}

/** Of a page of which nothing is known yet. */
export const UNHURRIED: Manner = {
  profile: false,
  scripted: true,
  careful: false,
  hanging: false,
  restless: false,
};

/** Whether keys and fingers are tried. */
export interface Hands {
  keys: boolean;
  swipes: boolean;
}

/** Nothing of the kind. */
export const NO_HANDS: Hands = { keys: false, swipes: false };

/** What a load is made for. */
export interface Purpose {
  /** The kinds of facts that somebody reads: for others nothing is done that costs anything. */
  wants: ReadonlySet<FactKind>;
  hands: Hands;
  /** The windows that it names can be tried in a later render. */
  postpones: boolean;
  /**
   * Whether a picture is taken; `last`: only of what was stopped, since others are loaded once more for theirs.
   */
  shots: 'taken' | 'last' | 'none';
  /** Which piece of the page; null: the slot with what stands in it. */
  region: Box | null;
  /**
   * Whether the first minute is lived on in it, by the page's own time; `only`: for nothing else. Or until when, s, it
   * is waited for by the machine's, to see whether it hangs then.
   */
  minute: 'no' | 'also' | 'only' | { until: number };
  /** What it shows is looked at from the start: whether it flashes. */
  watched: boolean;
  /** How the page looked at rest in the load whose minute it is; left out: as in this one. */
  rested?: Glimpse | null;
  /** Something was painted all the time in that load, and was watched there; left out: as in this one. */
  moved?: boolean;
}

/** One load that is to be made. */
export interface Job extends Manner, Purpose {
  subject: Subject;
  render: Render;
  /** The page without the snippet; null while that itself is rendered. */
  baseline: Baseline | null;
  /** The same in its first minute, where that is lived on. */
  later?: Baseline | null;
  /** What loads before have taught, of each snippet. */
  known: readonly Learned[];
  /** Gives that, where loads before go on beside it: it is asked when the page was looked at. */
  learn?: (() => Promise<readonly Learned[]>) | undefined;
  /** Whether its minute is lived on, where that goes by another that goes on beside it: asked when it is to begin. */
  mayLive?: (() => Promise<boolean>) | undefined;
  /** Told what is known of each snippet as soon as no more can be learned here, which may be long before the end. */
  onLearned?: ((learned: readonly Learned[]) => void) | undefined;
}

/**
 * Whether the windows that a render names can be tried in one of those that follow: on a page with scroll bars
 * these can be done without, and else nothing tells the kinds of windows apart.
 */
export function canPostpone(render: Render, later: readonly Render[]): boolean {
  const { viewport, search } = render;
  if (search.length === 0 || viewport.scrollBars !== 'overlay') return false;
  const getKey = ({ snippets, insert, variant, viewport: { scheme, userAgent } }: Render) =>
    JSON.stringify([snippets, insert, variant, scheme, userAgent]);
  return later.some(
    (one) =>
      one.search.length > 0 &&
      one.viewport.scrollBars === 'classic' &&
      getKey(one) === getKey(render),
  );
}

/** Those of the same snippets in the same place. */
function listBeside(render: Render, renders: readonly Render[]): Render[] {
  const getKey = ({ snippets, insert }: Render) => JSON.stringify([snippets, insert]);
  return renders.filter((one) => getKey(one) === getKey(render));
}

/** Keys are tried where there is a mouse, fingers where the glass is touched: each once for a slot, the first of its kind. */
export function getHands(render: Render, renders: readonly Render[]): Hands {
  const same = listBeside(render, renders);
  const keyed = same.find(({ viewport }) => !viewport.touch) ?? same[0];
  const touched = same.find(({ viewport }) => viewport.touch);
  return { keys: render === keyed, swipes: render === touched };
}

/** How many times as wide a window may be as one that stands for it. */
const ALIKE = 1.35;

/**
 * Whether a minute is lived on in a render: in the narrowest and the widest window of each place, or in ones like
 * these in which no hands are tried.
 */
export function livesOn(render: Render, renders: readonly Render[]): boolean {
  const same = listBeside(render, renders);
  const byWidth = same.sort((a, b) => a.viewport.width - b.viewport.width);
  return [byWidth, byWidth.toReversed()].some((all) => pickUnused(all, renders) === render);
}

/** The first, or one like it. */
function pickUnused(all: readonly Render[], renders: readonly Render[]): Render {
  const [first] = all as [Render];
  const widths = (one: Render) => [one.viewport.width, first.viewport.width];
  const isLike = (one: Render) => Math.max(...widths(one)) <= ALIKE * Math.min(...widths(one));
  const isUnused = (one: Render) => {
    const { keys, swipes } = getHands(one, renders);
    return !keys && !swipes;
  };
  return all.find((one) => isLike(one) && isUnused(one)) ?? first;
}

const PLAIN = {
  hands: NO_HANDS,
  postpones: false,
  region: null,
  minute: 'no',
  watched: false,
} as const;

/** A load that is made only for what is too wide. */
export const QUICK: Purpose = {
  ...PLAIN,
  wants: new Set<FactKind>([...FITTING_KINDS, 'widths']),
  shots: 'none',
};

/** What is looked at of a page without any snippet. */
export const EMPTY: Purpose = {
  ...PLAIN,
  wants: new Set<FactKind>([
    ...FITTING_KINDS,
    'host',
    'shifts',
    'widths',
    'traffic',
    'stored',
    'scripts',
    'flashing',
  ]),
  shots: 'none',
};

/** A load that is made only for its picture: of what is measured in it nothing is kept, so that care costs nothing. */
export const POSING: Purpose & Manner = {
  ...UNHURRIED,
  ...PLAIN,
  careful: true,
  // A film that is out of view begins when it is brought into it.
  wants: new Set<FactKind>([...FITTING_KINDS, 'media']),
  shots: 'taken',
};

/** Evidence of each snippet of a load that could not be made. */
export function loseAll({ render, subject }: Job, why: string): Evidence[] {
  return subject.texts.map((_, of) => makeLost(render, of, why));
}

/** How long is waited, in view of what was waited for before. */
export function shortenLimits(limits: Limits, { hanging, restless }: Job): Limits {
  return {
    load: restless ? Math.min(limits.load, SLOW_LOAD) : limits.load,
    settle: restless ? Math.min(limits.settle, SLOW_SETTLE) : limits.settle,
    hang: hanging ? Math.min(limits.hang, HANGING_AGAIN) : limits.hang,
  };
}

/** A load in the words of recordings. */
export function getLoad({ snippets, viewport, variant }: Render): Load {
  const slots = snippets.map(({ slot }) => slot).join(' and ');
  const isEmpty = CONDITIONS[variant].source === 'none';
  const state =
    variant === 'as-is' || variant === 'empty' ? '' : `, ${variant.replace('empty-', '')}`;
  const snippet = isEmpty ? '' : snippets.map(({ name }) => name).join(' and ');
  return { snippet, view: `${slots} at ${viewport.name}${state}` };
}
