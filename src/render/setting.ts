import type { House } from '../core/house/house.js';
import type { Viewport } from '../core/render.js';
import type { Budget } from './bounds/budget.js';
import type { Limits } from './bounds/limit.js';
import type { RendererOptions } from './renderer-options.js';
import type { Preparation } from './page/browser-page.js';
import type { ServedPage } from './page/served-page.js';

/** What holds for all loads of a run. */
export interface Terms {
  /** What is done before anything is read. */
  steps: House['steps'];
  /** A folder of files that the host page may ask for. */
  root: string | null;
  /** Everything is asked for again. */
  cold: boolean;
  /** Wants to know what stands in the page. */
  onlooker?: RendererOptions['onlooker'];
}

/** What holds for all loads of one page in one window. */
export interface Around {
  /** How large the window is. */
  window: Viewport;
  /** It stands where it is: all of it is the snippet's. */
  published: boolean;
  /** The page around is the house's own. */
  ownPage: boolean;
  /** The page without the snippet has code. */
  hostChanges: boolean;
  /** The font family of the slot on the page around, where it stands in a frame of its own; else null. */
  pageFamily: string | null;
  /** Code may wait for a mouse, which any visitor with one moves: else one would be there by chance alone. */
  points: boolean;
}

/** How a page is reached: it is loaded, or stands there and is brought to another window, which it cannot tell. */
export type Reach =
  | {
      by: 'load';
      served: ServedPage;
      /** What stood there before. */
      before: Preparation['before'];
    }
  | { by: 'resize'; served: ServedPage };

/** How one load is made. */
export interface Setting {
  terms: Terms;
  around: Around;
  reach: Reach;
  limits: Limits;
  /** The time for the snippet as a whole. */
  budget: Budget;
}
