import type { Check } from '../core/check.js';
import autoplayValueIgnored from './media/autoplay-value-ignored.js';
import autoplayWithSound from './media/autoplay-with-sound.js';
import frameFixedSize from './frames/frame-fixed-size.js';
import frameWiderThanSlot from './frames/frame-wider-than-slot.js';
import hostPrivateAddress from './scripts/host-private-address.js';
import pageHangs from './page/page-hangs.js';
import pageScrollsSideways from './page/page-scrolls-sideways.js';
import pictureWithoutAlt from './pictures/picture-without-alt.js';
import scriptWeightOverLimit from './scripts/script-weight-over-limit.js';
import slotOverflow from './page/slot-overflow.js';

/** All checks, by name. A new one is one file and one line here. */
export const CHECKS: readonly Check[] = [
  autoplayValueIgnored,
  autoplayWithSound,
  frameFixedSize,
  frameWiderThanSlot,
  hostPrivateAddress,
  pageHangs,
  pageScrollsSideways,
  pictureWithoutAlt,
  scriptWeightOverLimit,
  slotOverflow,
];
