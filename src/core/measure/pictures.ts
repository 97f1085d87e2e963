import type { RenderOf } from '../check.js';
import type { PictureFact, Size } from '../evidence.js';
import { flatMap } from '../lists.js';
import { findAnswer } from './failed.js';

/** A picture made of px that came and shows. */
export type ShownPicture = PictureFact & { pixels: Size; drawn: Size };

/** What is no larger is a spacer, a line or a counter, px. */
const TINY = 2;

/** The addresses of drawings, which have no px of their own. */
export const SVG = /^data:image\/svg|\.svg([?#]|$)/i;

/** Whether a picture is a drawing, which is as sharp at any size. */
export function isVector(
  { address }: Pick<PictureFact, 'address'>,
  traffic: RenderOf<'traffic'>['traffic'],
): boolean {
  return SVG.test(address) || findAnswer(address, traffic)?.contentType === 'image/svg+xml';
}

/** The pictures of px that came and show. */
export function listShownPictures({
  pictures,
  traffic,
}: RenderOf<'pictures' | 'traffic'>): ShownPicture[] {
  return flatMap(pictures, (picture) => {
    const { shown, pixels, drawn } = picture;
    if (!shown || !pixels || !drawn || isVector(picture, traffic)) return [];
    const least = Math.min(pixels.width, pixels.height, drawn.width, drawn.height);
    return least > TINY ? [{ ...picture, pixels, drawn }] : [];
  });
}

/**
 * How many px of its file there are for each CSS px that it shows at, along a side; null where it is not
 * put into its box by its size.
 */
export function getSharpness({ pixels, drawn, fit }: ShownPicture): number | null {
  const across = pixels.width / drawn.width;
  const down = pixels.height / drawn.height;
  if (fit === 'contain') return Math.max(across, down);
  if (fit === 'cover') return Math.min(across, down);
  return fit === 'fill' ? Math.sqrt(across * down) : null;
}

/** How large a picture's file is, and how large it shows, px. */
export type ShownMeasures = Record<'width' | 'height' | 'shownWidth' | 'shownHeight', number>;

export function measureShown({ pixels, drawn }: ShownPicture): ShownMeasures {
  return { ...pixels, shownWidth: drawn.width, shownHeight: drawn.height };
}

/** As `320 × 240 px shown at 640 × 480 px`. */
export function describeShown({ shownWidth, shownHeight, ...file }: ShownMeasures): string {
  return `${formatArea(file)} shown at ${formatArea({ width: shownWidth, height: shownHeight })}`;
}

/** As `320 × 240 px`. */
export function formatArea({ width, height }: Size): string {
  return `${Math.round(width)} × ${Math.round(height)} px`;
}
