import { round } from '../../render/in-page/shared.js';

/** A jump of the layout: its score, and what was moved from where to where (tops, px of the page). */
export interface RawJump {
  score: number;
  moved: { id: number; from: number; to: number }[];
}

/** All jumps of the layout so far. */
export function readJumps(): RawJump[] {
  const { jumps, idOf } = globalThis.mivketNotebook;
  return jumps.map(({ score, moved }) => ({
    score,
    moved: moved.map(({ node, from, to }) => ({
      id: idOf(node),
      from: round(from),
      to: round(to),
    })),
  }));
}
