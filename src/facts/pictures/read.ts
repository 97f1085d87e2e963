import { computeName } from '../../core/standards/accessible-name.js';
import { isPicture } from '../../core/standards/elements.js';
import { describe, isIgnored, makeNameTree } from '../../render/in-page/names.js';
import type { ObjectReader } from '../../render/in-page/object-reader.js';
import type { OfElement } from '../common.js';
import type { PictureFact } from './fact.js';

export type RawPicture = Omit<PictureFact, OfElement>;

export const readPicture: ObjectReader<RawPicture> = {
  fits: (_real, node) => isPicture(describe(node)),
  read(real, node, book) {
    return {
      id: book.idOf(real),
      tag: node.localName,
      ignored: isIgnored(real, book),
      loaded: !(real instanceof HTMLImageElement) || (real.complete && real.naturalWidth > 0),
      address: real instanceof HTMLImageElement ? real.currentSrc : '',
      name: computeName(makeNameTree(book), node),
    };
  },
};
