import { round } from '../../render/in-page/shared.js';
import type { Notebook } from '../../render/in-page/observe.js';

/** A jump of the layout: its score, and what was moved from where to where (tops, px of the page). */
export interface RawJump {
  score: number;
  moved: { id: number; from: number; to: number }[];
}

type Jump = Notebook['jumps'][number];

/** Jumps are of one burst with less than this between two of them, and in this altogether, ms. */
const [BETWEEN, ALTOGETHER] = [1000, 5000];

/** All jumps of the layout while it loaded; of what goes on after that the worst burst. */
export function readJumps(): RawJump[] {
  const { jumps, idOf, aged } = globalThis.mivketNotebook;
  const told = aged ? findWorst(jumps) : jumps;
  return told.map(({ score, moved }) => ({
    score,
    moved: moved.map(({ node, from, to }) => ({
      id: idOf(node),
      from: round(from),
      to: round(to),
    })),
  }));
}

function findWorst(jumps: readonly Jump[]): readonly Jump[] {
  const bursts: Jump[][] = [];
  for (const jump of jumps) {
    const burst = bursts.at(-1);
    const isSame =
      burst && jump.at - burst.at(-1)!.at < BETWEEN && jump.at - burst[0]!.at < ALTOGETHER;
    if (isSame) burst.push(jump);
    else bursts.push([jump]);
  }
  const of = (burst: readonly Jump[]) => burst.reduce((sum, { score }) => sum + score, 0);
  return bursts.reduce<readonly Jump[]>((worst, one) => (of(one) > of(worst) ? one : worst), []);
}
