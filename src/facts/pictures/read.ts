import { computeName } from '../../core/standards/accessible-name.js';
import { isPicture, isWhole } from '../../core/standards/elements.js';
import { describe, isIgnored, makeNameTree } from '../../render/in-page/names.js';
import type { Notebook } from '../../render/in-page/observe.js';
import type { ObjectReader } from '../../render/in-page/object-reader.js';
import { getPixels } from '../../render/in-page/pixels.js';
import { getDrawn, tryRoom } from '../../render/in-page/room.js';
import { listParents } from '../../render/in-page/shared.js';
import type { OfElement } from '../common.js';
import type { PictureFact } from './fact.js';

export type RawPicture = Omit<PictureFact, OfElement>;

export const readPicture: ObjectReader<RawPicture> = {
  fits: (_real, node) => isPicture(describe(node)),
  read(real, node, book) {
    return {
      id: book.idOf(real),
      tag: node.localName,
      ignored: isIgnored(real, book) || isOfDrawing(real, book),
      loaded: !(real instanceof HTMLImageElement) || (real.complete && real.naturalWidth > 0),
      address: real instanceof HTMLImageElement ? real.currentSrc : '',
      ...(real instanceof HTMLImageElement ? readImage(real) : NO_IMAGE),
      name: computeName(makeNameTree(book), node),
    };
  },
};

type OfImage = 'pixels' | 'drawn' | 'fit' | 'pixelated' | 'lazy' | 'pushes';

const NO_IMAGE: Pick<RawPicture, OfImage> = {
  ...{ pixels: null, drawn: null, fit: 'fill', pixelated: false, lazy: false, pushes: 0 },
};

/** Before its file comes, a picture without a size is nothing. */
const NOTHING = { width: 0, height: 0 };

function readImage(image: HTMLImageElement): Pick<RawPicture, OfImage> {
  const { objectFit, imageRendering } = getComputedStyle(image);
  const pixels = getPixels(image);
  return {
    pixels,
    drawn: getDrawn(image),
    fit: objectFit,
    pixelated: /pixelated|crisp-edges/.test(imageRendering),
    lazy: image.loading === 'lazy',
    pushes: pixels ? tryRoom(image, NOTHING) : 0,
  };
}

/** Part of a drawing that is a picture as a whole. */
function isOfDrawing(real: Element, book: Notebook): boolean {
  if (real.localName !== 'image') return false;
  const tree = makeNameTree(book);
  for (const at of listParents(real))
    if (isWhole(describe(book.own(at)), () => computeName(tree, at))) return true;
  return false;
}
