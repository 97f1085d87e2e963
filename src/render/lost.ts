import { SEEN_KINDS, getEmptyFacts, type Evidence } from '../core/evidence.js';
import type { Render } from '../core/render.js';

/** The evidence of a render that gave none. */
export function makeLost(render: Render, of: number, why: string): Evidence {
  const gaps = SEEN_KINDS.map((kind) => ({ kind, why, seen: null, kept: null }));
  return { render, of, gaps, ...getEmptyFacts(), shot: null };
}
