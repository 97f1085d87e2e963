import { clickLinks } from '../in-page/links.js';
import { listStops, scrollTo } from '../in-page/down.js';
import { checkDeclarations } from '../in-page/declarations.js';
import { fitOutside, fitSelectors } from '../in-page/fitting.js';
import { enterSlot, leaveFocus, leaveSlot, readFocus, readFocusLater } from '../in-page/focus.js';
import { awaitFrames } from '../in-page/frames.js';
import { glance, glanceInside, showFrame, tellFrame } from '../in-page/glance.js';
import { readInner } from '../in-page/inner.js';
import { readLayers } from '../../facts/layers/read.js';
import { listCoveredOnTheWay, noteStop } from '../../facts/layers/way.js';
import { readNatural, releaseFrames, squeezeFrames, waitForRoom } from '../in-page/natural.js';
import { findReaching } from '../in-page/reaching.js';
import { readObjects } from './objects.js';
import { scrollThrough, settle } from '../in-page/settle.js';
import { takeCare } from '../in-page/stated.js';
import { seekCure } from '../in-page/trial/search.js';
import { findEffects, tryCures } from '../in-page/trial/trial.js';
import { searchWidths } from '../in-page/widths/search.js';
import {
  bringForSwipe,
  listSwipePlaces,
  readScroll,
  scrollBack,
  scrollToEnd,
} from '../in-page/swipes.js';
import { noteLate } from '../in-page/noted.js';
import { readWhole, settleAndRead } from './whole.js';
import {
  clickOwnLink,
  findOwnPlace,
  focusFirst,
  forgetTab,
  hasLeft,
  listHindered,
} from '../in-page/visit.js';
import { findSlotEdges, readView } from '../in-page/painted.js';
import { clickFilms } from '../in-page/stops.js';
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
} from '../in-page/show.js';
import { readLength } from '../in-page/moving.js';
import { readStanding } from '../in-page/standing.js';
import { readStored } from '../in-page/stored.js';

/** What can be asked of the code that stands in a page. */
export const CALLS = {
  awaitFrames,
  bringForSwipe,
  checkDeclarations,
  clearAway,
  clickLinks,
  clickOn,
  clickFilms,
  enterSlot,
  findEffects,
  findOwnPlace,
  findReaching,
  findSlotEdges,
  fitOutside,
  fitSelectors,
  focusFirst,
  forgetTab,
  glance,
  glanceInside,
  hasLeft,
  hideLetters,
  leaveFocus,
  leaveSlot,
  listCoveredOnTheWay,
  clickOwnLink,
  listHindered,
  listStops,
  listSwipePlaces,
  markWhole,
  noteLate,
  noteStop,
  readFocus,
  readFocusLater,
  readInner,
  readLayers,
  readLength,
  readNatural,
  readObjects,
  readScroll,
  readStanding,
  readStored,
  readView,
  readWhole,
  releaseFrames,
  renewBoxes,
  renewLetters,
  scrollBack,
  scrollThrough,
  scrollTo,
  scrollToEnd,
  searchWidths,
  seekCure,
  setGutter,
  settle,
  settleAndRead,
  showFrame,
  showMedia,
  showSlot,
  squeezeFrames,
  takeCare,
  tellFrame,
  tryCures,
  waitForRoom,
};

export type PageCalls = typeof CALLS;
