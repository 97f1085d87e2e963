import type { Size } from '../../core/evidence.js';

/** How many px files have that were chosen from several. */
const counted = new WeakMap<HTMLImageElement, Size & { address: string }>();

/** Whether the browser was given a choice of files: then it tells of sizes by what the choice says of them. */
function isChosen(image: HTMLImageElement): boolean {
  return image.srcset !== '' || image.parentElement?.localName === 'picture';
}

function isThere(image: HTMLImageElement): boolean {
  return image.complete && image.naturalWidth > 0;
}

/** Counts the px of the files that were chosen from several. */
export async function countPixels(page: Document): Promise<void> {
  const unknown = Array.from(page.images).filter(
    (one) => isChosen(one) && isThere(one) && counted.get(one)?.address !== one.currentSrc,
  );
  await Promise.all(unknown.map(count));
}

async function count(image: HTMLImageElement): Promise<void> {
  const address = image.currentSrc;
  // What cannot be decoded is not known.
  const bitmap = await createImageBitmap(image).catch(() => null);
  if (!bitmap) return;
  counted.set(image, { address, width: bitmap.width, height: bitmap.height });
  bitmap.close();
}

/** The px of its file; null for one that did not come, or whose px were not counted. */
export function getPixels(image: HTMLImageElement): Size | null {
  if (!isThere(image)) return null;
  if (!isChosen(image)) return { width: image.naturalWidth, height: image.naturalHeight };
  const known = counted.get(image);
  return known?.address === image.currentSrc ? { width: known.width, height: known.height } : null;
}
