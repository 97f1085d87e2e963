import type { Check } from '../core/check.js';
import addressCarriesSecret from './paste/address-carries-secret.js';
import addressInsteadOfCode from './paste/address-instead-of-code.js';
import addressWorksOnlyHere from './paste/address-works-only-here.js';
import altSaysNothing from './pictures/alt-says-nothing.js';
import altTooWordy from './pictures/alt-too-wordy.js';
import asksForDevice from './scripts/asks-for-device.js';
import attributeMisspelt from './paste/attribute-misspelt.js';
import audioAutoplays from './media/audio-autoplays.js';
import autoplayCannotBeStopped from './media/autoplay-cannot-be-stopped.js';
import autoplayDespiteReducedMotion from './media/autoplay-despite-reduced-motion.js';
import autoplayDidNotStart from './media/autoplay-did-not-start.js';
import autoplayOnWrongElement from './media/autoplay-on-wrong-element.js';
import autoplayValueIgnored from './media/autoplay-value-ignored.js';
import autoplayWithSound from './media/autoplay-with-sound.js';
import autoplayWithoutInline from './media/autoplay-without-inline.js';
import autoplayWithoutStill from './media/autoplay-without-still.js';
import blockedByHostPolicy from './scripts/blocked-by-host-policy.js';
import codeMangled from './paste/code-mangled.js';
import codeShowsAsText from './paste/code-shows-as-text.js';
import contactsBeforeConsent from './scripts/contacts-before-consent.js';
import contentCutOff from './page/content-cut-off.js';
import contentJumps from './page/content-jumps.js';
import contentSwallowed from './paste/content-swallowed.js';
import controlUnnamed from './pictures/control-unnamed.js';
import coveredByLayer from './page/covered-by-layer.js';
import coversHostControls from './page/covers-host-controls.js';
import curlyQuotes from './paste/curly-quotes.js';
import downloadForced from './scripts/download-forced.js';
import elementMisspelt from './paste/element-misspelt.js';
import extraPageHeading from './paste/extra-page-heading.js';
import flashes from './media/flashes.js';
import focusTakenAtLoad from './page/focus-taken-at-load.js';
import fontNotThere from './paste/font-not-there.js';
import formInsideForm from './paste/form-inside-form.js';
import frameAutoplayWithSound from './media/frame-autoplay-with-sound.js';
import frameBorderLeftOn from './frames/frame-border-left-on.js';
import frameCutsContent from './frames/frame-cuts-content.js';
import frameFixedSize from './frames/frame-fixed-size.js';
import frameGrantedTooMuch from './frames/frame-granted-too-much.js';
import frameHeightCollapsed from './frames/frame-height-collapsed.js';
import frameLoadsEarly from './frames/frame-loads-early.js';
import frameLoadsLate from './frames/frame-loads-late.js';
import frameMostlyEmpty from './frames/frame-mostly-empty.js';
import frameNotSecure from './frames/frame-not-secure.js';
import frameOnlyCounts from './frames/frame-only-counts.js';
import framePermissionMissing from './frames/frame-permission-missing.js';
import frameProportionLost from './frames/frame-proportion-lost.js';
import frameRefused from './frames/frame-refused.js';
import frameResizeUnheard from './frames/frame-resize-unheard.js';
import frameSandboxOpen from './frames/frame-sandbox-open.js';
import frameScrollsSideways from './frames/frame-scrolls-sideways.js';
import frameUnnamed from './frames/frame-unnamed.js';
import frameWiderThanSlot from './frames/frame-wider-than-slot.js';
import headingOutOfStep from './paste/heading-out-of-step.js';
import hostContentDamaged from './page/host-content-damaged.js';
import hostNotAllowed from './scripts/host-not-allowed.js';
import hostPrivateAddress from './scripts/host-private-address.js';
import hostStyleReachesIn from './paste/host-style-reaches-in.js';
import idUsedTwice from './paste/id-used-twice.js';
import jumpToTopLink from './paste/jump-to-top-link.js';
import keyboardTrapped from './page/keyboard-trapped.js';
import linkedPictureUnnamed from './pictures/linked-picture-unnamed.js';
import mediaCannotBeStarted from './media/media-cannot-be-started.js';
import mediaFormatUnplayable from './media/media-format-unplayable.js';
import mediaMissing from './media/media-missing.js';
import mediaOverLimit from './media/media-over-limit.js';
import mediaPageNotFile from './media/media-page-not-file.js';
import mediaSizeUnset from './media/media-size-unset.js';
import mediaSourcesDisagree from './media/media-sources-disagree.js';
import mediaTypeMismatch from './media/media-type-mismatch.js';
import mediaWithoutCaptions from './media/media-without-captions.js';
import motionCannotBeStopped from './page/motion-cannot-be-stopped.js';
import nestedDocument from './paste/nested-document.js';
import notSecure from './scripts/not-secure.js';
import nothingRendered from './page/nothing-rendered.js';
import obsoleteMarkup from './paste/obsolete-markup.js';
import offCentre from './page/off-centre.js';
import outageHarmsPage from './scripts/outage-harms-page.js';
import pageHangs from './page/page-hangs.js';
import pageLocked from './page/page-locked.js';
import pageScrollsSideways from './page/page-scrolls-sideways.js';
import pageSettingsChanged from './paste/page-settings-changed.js';
import pageTakenOver from './page/page-taken-over.js';
import pastedTwice from './paste/pasted-twice.js';
import pictureBlurry from './pictures/picture-blurry.js';
import pictureCannotBeStopped from './pictures/picture-cannot-be-stopped.js';
import pictureMissing from './pictures/picture-missing.js';
import pictureNeverLoaded from './pictures/picture-never-loaded.js';
import pictureOversized from './pictures/picture-oversized.js';
import pictureSizeUnset from './pictures/picture-size-unset.js';
import pictureSqueezed from './pictures/picture-squeezed.js';
import pictureWithoutAlt from './pictures/picture-without-alt.js';
import picturesLoadEarly from './pictures/pictures-load-early.js';
import placeholderLeftIn from './paste/placeholder-left-in.js';
import playerAddressMalformed from './media/player-address-malformed.js';
import requestFailed from './scripts/request-failed.js';
import scriptBlocksPage from './scripts/script-blocks-page.js';
import scriptBreaksHost from './scripts/script-breaks-host.js';
import scriptError from './scripts/script-error.js';
import scriptIdleWhenLate from './scripts/script-idle-when-late.js';
import scriptLoadedTwice from './scripts/script-loaded-twice.js';
import scriptLoaderMissing from './scripts/script-loader-missing.js';
import scriptMostlyUnused from './scripts/script-mostly-unused.js';
import scriptNeverRests from './scripts/script-never-rests.js';
import scriptPullsInOthers from './scripts/script-pulls-in-others.js';
import scriptTimeOverLimit from './scripts/script-time-over-limit.js';
import scriptVersionFloats from './scripts/script-version-floats.js';
import scriptWeightOverLimit from './scripts/script-weight-over-limit.js';
import scriptWithoutIntegrity from './scripts/script-without-integrity.js';
import scriptWritesDocument from './scripts/script-writes-document.js';
import scrollCaught from './page/scroll-caught.js';
import shrunkNotReflowed from './page/shrunk-not-reflowed.js';
import siteAltersCode from './paste/site-alters-code.js';
import slotOverflow from './page/slot-overflow.js';
import storesOnDevice from './scripts/stores-on-device.js';
import styleDeclarationIgnored from './paste/style-declaration-ignored.js';
import styleImportTooLate from './paste/style-import-too-late.js';
import styleReachesOutside from './paste/style-reaches-outside.js';
import tagLeftOpen from './paste/tag-left-open.js';
import textContrastLow from './page/text-contrast-low.js';
import textInvisible from './page/text-invisible.js';
import textTooSmall from './page/text-too-small.js';
import tooSmallOnPhone from './page/too-small-on-phone.js';
import vectorColourLost from './pictures/vector-colour-lost.js';
import vectorDrawnOutside from './pictures/vector-drawn-outside.js';
import vectorUnnamed from './pictures/vector-unnamed.js';
import vectorWithoutViewbox from './pictures/vector-without-viewbox.js';
import visitorHindered from './page/visitor-hindered.js';
import weightOverLimit from './page/weight-over-limit.js';

/** All checks, by name. A new one is one file and one line here. */
export const CHECKS: readonly Check[] = [
  addressCarriesSecret,
  addressInsteadOfCode,
  addressWorksOnlyHere,
  altSaysNothing,
  altTooWordy,
  asksForDevice,
  attributeMisspelt,
  audioAutoplays,
  autoplayCannotBeStopped,
  autoplayDespiteReducedMotion,
  autoplayDidNotStart,
  autoplayOnWrongElement,
  autoplayValueIgnored,
  autoplayWithSound,
  autoplayWithoutInline,
  autoplayWithoutStill,
  blockedByHostPolicy,
  codeMangled,
  codeShowsAsText,
  contactsBeforeConsent,
  contentCutOff,
  contentJumps,
  contentSwallowed,
  controlUnnamed,
  coveredByLayer,
  coversHostControls,
  curlyQuotes,
  downloadForced,
  elementMisspelt,
  extraPageHeading,
  flashes,
  focusTakenAtLoad,
  fontNotThere,
  formInsideForm,
  frameAutoplayWithSound,
  frameBorderLeftOn,
  frameCutsContent,
  frameFixedSize,
  frameGrantedTooMuch,
  frameHeightCollapsed,
  frameLoadsEarly,
  frameLoadsLate,
  frameMostlyEmpty,
  frameNotSecure,
  frameOnlyCounts,
  framePermissionMissing,
  frameProportionLost,
  frameRefused,
  frameResizeUnheard,
  frameSandboxOpen,
  frameScrollsSideways,
  frameUnnamed,
  frameWiderThanSlot,
  headingOutOfStep,
  hostContentDamaged,
  hostNotAllowed,
  hostPrivateAddress,
  hostStyleReachesIn,
  idUsedTwice,
  jumpToTopLink,
  keyboardTrapped,
  linkedPictureUnnamed,
  mediaCannotBeStarted,
  mediaFormatUnplayable,
  mediaMissing,
  mediaOverLimit,
  mediaPageNotFile,
  mediaSizeUnset,
  mediaSourcesDisagree,
  mediaTypeMismatch,
  mediaWithoutCaptions,
  motionCannotBeStopped,
  nestedDocument,
  notSecure,
  nothingRendered,
  obsoleteMarkup,
  offCentre,
  outageHarmsPage,
  pageHangs,
  pageLocked,
  pageScrollsSideways,
  pageSettingsChanged,
  pageTakenOver,
  pastedTwice,
  pictureBlurry,
  pictureCannotBeStopped,
  pictureMissing,
  pictureNeverLoaded,
  pictureOversized,
  pictureSizeUnset,
  pictureSqueezed,
  pictureWithoutAlt,
  picturesLoadEarly,
  placeholderLeftIn,
  playerAddressMalformed,
  requestFailed,
  scriptBlocksPage,
  scriptBreaksHost,
  scriptError,
  scriptIdleWhenLate,
  scriptLoadedTwice,
  scriptLoaderMissing,
  scriptMostlyUnused,
  scriptNeverRests,
  scriptPullsInOthers,
  scriptTimeOverLimit,
  scriptVersionFloats,
  scriptWeightOverLimit,
  scriptWithoutIntegrity,
  scriptWritesDocument,
  scrollCaught,
  shrunkNotReflowed,
  siteAltersCode,
  slotOverflow,
  storesOnDevice,
  styleDeclarationIgnored,
  styleImportTooLate,
  styleReachesOutside,
  tagLeftOpen,
  textContrastLow,
  textInvisible,
  textTooSmall,
  tooSmallOnPhone,
  vectorColourLost,
  vectorDrawnOutside,
  vectorUnnamed,
  vectorWithoutViewbox,
  visitorHindered,
  weightOverLimit,
];
