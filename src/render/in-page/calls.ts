import { clickLinks } from './links.js';
import { checkDeclarations } from './declarations.js';
import { fitOutside, fitSelectors } from './fitting.js';
import { enterSlot, leaveSlot, readFocus, readFocusLater } from './focus.js';
import { readInner } from './inner.js';
import { readLayers } from '../../facts/layers/read.js';
import { readNatural, releaseFrames, squeezeFrames } from './natural.js';
import { findReaching } from './reaching.js';
import { readObjects } from './objects.js';
import { scrollThrough, settle } from './settle.js';
import { takeCare } from './stated.js';
import { seekCure } from './trial/search.js';
import { findEffects, tryCures } from './trial/trial.js';
import { searchWidths } from './widths/search.js';
import { bringForSwipe, listSwipePlaces, readScroll, scrollBack, scrollToEnd } from './swipes.js';
import { readWhole, settleAndRead } from './whole.js';
import { clickToStop } from './stops.js';
import {
  clearAway,
  clickOn,
  markWhole,
  hideLetters,
  renewBoxes,
  renewLetters,
  setGutter,
  showMedia,
  showSlot,
} from './show.js';

/** What can be asked of the code that stands in a page. */
export const CALLS = {
  bringForSwipe,
  checkDeclarations,
  clearAway,
  clickLinks,
  clickOn,
  clickToStop,
  enterSlot,
  findEffects,
  findReaching,
  fitOutside,
  fitSelectors,
  hideLetters,
  leaveSlot,
  listSwipePlaces,
  markWhole,
  readFocus,
  readFocusLater,
  readInner,
  readLayers,
  readNatural,
  readObjects,
  readScroll,
  readWhole,
  releaseFrames,
  renewBoxes,
  renewLetters,
  scrollBack,
  scrollThrough,
  scrollToEnd,
  searchWidths,
  seekCure,
  setGutter,
  settle,
  settleAndRead,
  showMedia,
  showSlot,
  squeezeFrames,
  takeCare,
  tryCures,
};

export type PageCalls = typeof CALLS;
