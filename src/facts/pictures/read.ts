import { computeName } from '../../core/standards/accessible-name.js';
import { isPicture, isWhole } from '../../core/standards/elements.js';
import { describe, isIgnored, makeNameTree } from '../../render/in-page/names.js';
import type { Notebook } from '../../render/in-page/observe.js';
import type { ObjectReader } from '../../render/in-page/object-reader.js';
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
      name: computeName(makeNameTree(book), node),
    };
  },
};

/** Part of a drawing that is a picture as a whole. */
function isOfDrawing(real: Element, book: Notebook): boolean {
  if (real.localName !== 'image') return false;
  const tree = makeNameTree(book);
  for (const at of listParents(real))
    if (isWhole(describe(book.own(at)), () => computeName(tree, at))) return true;
  return false;
}
