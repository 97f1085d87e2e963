import type { Baseline, Box, Evidence } from '../core/evidence.js';
import type { Traits } from '../core/markup/traits.js';
import type { Load } from '../core/recording/exchange.js';
import type { Render } from '../core/render.js';
import type { Hands } from './handling.js';
import type { Limits } from './limit.js';
import { makeLost } from './lost.js';
import type { Trial } from './stage.js';

const HANGING_AGAIN = 2000;
const VAIN_LOAD = 5000;
const VAIN_SETTLE = 2000;
/** A job of which nothing is known yet. */
export const UNHURRIED = {
  profile: false,
  scripted: true,
  careful: false,
  hanging: false,
  vain: false,
};

/** One load that is to be made. */
export interface Job {
  render: Render;
  /** The texts of the render's snippets, and what each can do; of the page alone, what that can. */
  texts: readonly string[];
  traits: readonly Traits[];
  trials: readonly Trial[];
  baseline: Baseline | null;
  profile: boolean;
  /** Its code runs: not so where it took the page down before. */
  scripted: boolean;
  /** It broke down when it was looked at as others are. */
  careful: boolean;
  /** It has hung before: no need to wait as long again. */
  hanging: boolean;
  /** It was waited for in vain before. */
  vain: boolean;
  /** Only what is too wide is asked for. */
  light: boolean;
  /** Whether keys and fingers are tried. */
  hands: Hands;
  /** The windows that it names can be tried in a later render. */
  waits: boolean;
  /** It is loaded for its picture alone. */
  poses?: boolean;
  /** The piece of the page without any snippet that is shot; left out: none is. */
  region?: Box;
}

/**
 * Whether the windows that a render names can be tried in one of those that follow: on a page with scroll bars
 * these can be done without, and else nothing tells the kinds of windows apart.
 */
export function canWait(render: Render, later: readonly Render[]): boolean {
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

/** Keys are tried where there is a mouse, fingers where the glass is touched: each once for a slot, the first of its kind. */
export function getHands(render: Render, renders: readonly Render[], wanted: boolean): Hands {
  const key = JSON.stringify([render.snippets, render.insert]);
  const same = renders.filter((one) => JSON.stringify([one.snippets, one.insert]) === key);
  const keyed = same.find(({ viewport }) => !viewport.touch) ?? same[0];
  const touched = same.find(({ viewport }) => viewport.touch);
  return { keys: wanted && render === keyed, swipes: wanted && render === touched };
}

/** Nothing of the kind. */
export const NO_HANDS: Hands = { keys: false, swipes: false };

/** A load that is made only for what is too wide. */
export const QUICK = { light: true, hands: NO_HANDS, waits: false };

/** A load that is made only for the picture: of what is measured in it nothing is kept, so that care costs nothing. */
export const POSING = { ...QUICK, light: false, poses: true, careful: true };

/** Evidence of each snippet of a load that could not be made. */
export function loseAll({ render, texts }: Job, why: string): Evidence[] {
  return texts.map((_, of) => makeLost(render, of, why));
}

/** How long is waited, in view of what was waited for before. */
export function shorten(limits: Limits, { hanging, vain }: Job): Limits {
  return {
    load: vain ? Math.min(limits.load, VAIN_LOAD) : limits.load,
    settle: vain ? Math.min(limits.settle, VAIN_SETTLE) : limits.settle,
    hang: hanging ? Math.min(limits.hang, HANGING_AGAIN) : limits.hang,
  };
}

/** A load in the words of recordings. */
export function getLoad({ snippets, viewport, variant }: Render): Load {
  const slots = snippets.map(({ slot }) => slot).join(' and ');
  const state = variant === 'as-is' || variant === 'empty' ? '' : `, ${variant}`;
  const snippet = variant === 'empty' ? '' : snippets.map(({ name }) => name).join(' and ');
  return { snippet, view: `${slots} at ${viewport.name}${state}` };
}

/** Which pictures a load is for. */
export function getShots({ render, light, poses, region }: Job): 'taken' | 'last' | 'none' {
  if (poses || region) return 'taken';
  return light || render.variant === 'empty' ? 'none' : 'last';
}
