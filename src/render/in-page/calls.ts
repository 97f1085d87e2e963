import { readInner } from './inner.js';
import { readObjects } from './objects.js';
import { readPage } from './page.js';
import { scrollThrough, settle } from './settle.js';
import { setGutter, showMedia, showSlot } from './show.js';

/** What can be asked of the code that stands in a page. */
export const CALLS = {
  readInner,
  readObjects,
  readPage,
  scrollThrough,
  setGutter,
  settle,
  showMedia,
  showSlot,
};

export type PageCalls = typeof CALLS;
