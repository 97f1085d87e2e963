import type { RawCovered } from '../facts/layers/read.js';
import type { Budget } from './bounds/budget.js';
import type { Limits } from './bounds/limit.js';
import type { Viewport } from '../core/render.js';
import type { Watched } from './flashes.js';
import type { Glimpse } from './glimpse.js';
import type { BrowserPage, Hottest } from './page/browser-page.js';
import type { Sighting } from './stage.js';
import type { TakenShot } from './steps/shot.js';

/** What was read of a page some time after it had come to rest. */
export interface Moment extends Sighting {
  shots: TakenShot[];
}

/** How a page's first minute went by. */
export interface Lived {
  /** Where it was otherwise than before. */
  moments: Moment[];
  /** Why not all of it was seen; null where it was. */
  unseen: string | null;
  /** When it did not answer any more, s: its code hangs, or it waits for a clock that stands while code runs. */
  stuck?: number;
}

/** When it is read. */
export interface Instant {
  /** s of its own time. */
  after: number;
  /** Where its code spent its time, where that had to be stopped. */
  stopped?: { hottest: Hottest } | null;
  /** How far down, px, and what lies over what there. */
  down?: { scrolled: number; covered: RawCovered[] };
  /** What was seen of whether it flashes. */
  watched?: Watched;
}

/** How a page is watched. */
export interface Watching {
  window: Pick<Viewport, 'width' | 'height'>;
  /** The slot that is watched, by its name. */
  slot: string;
  /** Something was painted all the time from the start, and it was looked at. */
  moved: boolean;
}

/** A page that came to rest and was read. */
export interface Living {
  page: BrowserPage;
  limits: Limits;
  budget: Budget;
  /** Nothing stands in its slots: it is read at each place on the way down, to know what it does itself. */
  empty: boolean;
  /** How it was when it had come to rest and was read; null where that was not seen. */
  rested: Glimpse | null;
  /** That was in a load before, and nothing but this is done in this one. */
  alone: boolean;
  /** It is watched whether it flashes, in a window; null: nobody asks. */
  watches: Watching | null;
  /** Reads it as it stands. */
  read(at: Instant): Promise<Moment>;
}
