import { Budget } from '../../src/render/bounds/budget.js';
import type { Instant, Living } from '../../src/render/living.js';
import type { BrowserPage } from '../../src/render/page/browser-page.js';

/** A page to live on. @param onRead told when it is read as a whole */
export function makeLiving(page: BrowserPage, onRead: (instant: Instant) => void): Living {
  return {
    page,
    limits: { load: 10, settle: 10, hang: 10 },
    budget: new Budget(),
    empty: false,
    rested: null,
    alone: false,
    watches: null,
    read: (instant) => {
      onRead(instant);
      return Promise.resolve({
        evidence: [],
        parted: null,
        requests: [],
        settings: {},
        sheets: [],
        shots: [],
      });
    },
  };
}
