import type { RefusedStyle, WidthsFact } from '../core/evidence.js';
import { flatMap } from '../core/lists.js';
import type { Intent } from '../core/mend/intent.js';
import type { Given } from './steps/given.js';
import { isTooWide, type Postponed } from './steps/windows.js';
import type { Scene } from './steps/step.js';

/** What renders of a snippet have taught for those that follow. */
export interface Learned {
  /** Cures that were found for it. */
  cures: readonly Intent[][];
  /** Something of it was too wide in a window. */
  tooWide: boolean;
  /** The declarations that the browser does not take; null as long as it was not asked. */
  refused: readonly RefusedStyle[] | null;
  /** Searches of windows that a later render makes with its own. */
  postponed: readonly Postponed[];
  /** What came of those that were made so, by the keys of their renders. */
  settled: ReadonlyMap<string, WidthsFact>;
}

/** What is known before the first render. */
export const NOTHING: Learned = {
  cures: [],
  tooWide: false,
  refused: null,
  postponed: [],
  settled: new Map(),
};

/** What is known after one more render. */
export function learn(scene: Scene, { refused, causes, windows }: Partial<Given>): Learned {
  const { known, hung } = scene;
  const { postponed, settled = [] } = windows ?? { postponed: null };
  const done = new Set(settled.map(({ key }) => key));
  return {
    cures: [...known.cures, ...(causes?.found ?? [])],
    tooWide: scene.reading !== null && !hung ? isTooWide(scene) : known.tooWide,
    refused: refused ?? known.refused,
    postponed: [
      ...known.postponed.filter(({ key }) => !done.has(key)),
      ...(postponed ? [postponed] : []),
    ],
    settled: new Map([
      ...known.settled,
      ...flatMap(settled, ({ key, widths }) => [[key, widths] as const]),
    ]),
  };
}
