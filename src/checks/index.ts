import type { Check } from '../core/check.js';
import altSaysNothing from './pictures/alt-says-nothing.js';
import attributeMisspelt from './paste/attribute-misspelt.js';
import audioAutoplays from './media/audio-autoplays.js';
import autoplayDespiteReducedMotion from './media/autoplay-despite-reduced-motion.js';
import autoplayDidNotStart from './media/autoplay-did-not-start.js';
import autoplayValueIgnored from './media/autoplay-value-ignored.js';
import autoplayWithSound from './media/autoplay-with-sound.js';
import autoplayWithoutInline from './media/autoplay-without-inline.js';
import frameAutoplayWithSound from './media/frame-autoplay-with-sound.js';
import frameBorderLeftOn from './frames/frame-border-left-on.js';
import frameFixedSize from './frames/frame-fixed-size.js';
import frameRefused from './frames/frame-refused.js';
import frameUnnamed from './frames/frame-unnamed.js';
import frameWiderThanSlot from './frames/frame-wider-than-slot.js';
import hostPrivateAddress from './scripts/host-private-address.js';
import linkedPictureUnnamed from './pictures/linked-picture-unnamed.js';
import nothingRendered from './page/nothing-rendered.js';
import pageHangs from './page/page-hangs.js';
import pageScrollsSideways from './page/page-scrolls-sideways.js';
import pageTakenOver from './page/page-taken-over.js';
import pictureWithoutAlt from './pictures/picture-without-alt.js';
import scriptBlocksPage from './scripts/script-blocks-page.js';
import scriptWeightOverLimit from './scripts/script-weight-over-limit.js';
import slotOverflow from './page/slot-overflow.js';
import tagLeftOpen from './paste/tag-left-open.js';

/** All checks, by name. A new one is one file and one line here. */
export const CHECKS: readonly Check[] = [
  altSaysNothing,
  attributeMisspelt,
  audioAutoplays,
  autoplayDespiteReducedMotion,
  autoplayDidNotStart,
  autoplayValueIgnored,
  autoplayWithSound,
  autoplayWithoutInline,
  frameAutoplayWithSound,
  frameBorderLeftOn,
  frameFixedSize,
  frameRefused,
  frameUnnamed,
  frameWiderThanSlot,
  hostPrivateAddress,
  linkedPictureUnnamed,
  nothingRendered,
  pageHangs,
  pageScrollsSideways,
  pageTakenOver,
  pictureWithoutAlt,
  scriptBlocksPage,
  scriptWeightOverLimit,
  slotOverflow,
  tagLeftOpen,
];
