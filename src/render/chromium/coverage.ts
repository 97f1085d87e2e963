import type { Protocol } from 'devtools-protocol';
import { flatMap } from '../../core/lists.js';
import type { RanScript } from '../page/browser-page.js';

/** Ranges stand in each other: the innermost tells of a place. */
export function measureRan(
  functions: readonly Pick<Protocol.Profiler.FunctionCoverage, 'ranges'>[],
): Pick<RanScript, 'length' | 'ran'> {
  const ranges = flatMap(functions, (one) => one.ranges).sort(
    (a, b) => a.startOffset - b.startOffset || b.endOffset - a.endOffset,
  );
  const open: Protocol.Profiler.CoverageRange[] = [];
  let [at, ran, length] = [0, 0, 0];
  const goTo = (to: number) => {
    if ((open.at(-1)?.count ?? 0) > 0) ran += to - at;
    at = to;
  };
  const close = (before: number) => {
    for (let last = open.at(-1); last && last.endOffset <= before; last = open.at(-1)) {
      goTo(last.endOffset);
      open.pop();
    }
  };
  for (const range of ranges) {
    close(range.startOffset);
    goTo(range.startOffset);
    open.push(range);
    length = Math.max(length, range.endOffset);
  }
  close(length);
  return { length, ran };
}
