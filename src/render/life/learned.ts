import type { RefusedStyle, WidthsFact } from '../../core/evidence.js';
import type { Intent } from '../../core/mend/intent.js';
import type { Postponed } from '../steps/windows.js';

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
