import { computeControlName } from '../../core/standards/accessible-name.js';
import { getControl } from '../../core/standards/elements.js';
import { describe, isIgnored, makeNameTree } from '../../render/in-page/names.js';
import type { ObjectReader } from '../../render/in-page/object-reader.js';
import type { OfElement } from '../common.js';
import type { ControlFact } from './fact.js';

export type RawControl = Omit<ControlFact, OfElement>;

export const readControl: ObjectReader<RawControl> = {
  fits: (_real, node) => getControl(describe(node)) !== null,
  read(real, node, book) {
    const control = getControl(describe(node))!;
    const pictures = [...node.querySelectorAll('img:not([alt])')];
    return {
      id: book.idOf(real),
      tag: node.localName,
      kind: control.kind,
      ignored: isIgnored(real, book),
      name: computeControlName(makeNameTree(book), node, control),
      pictured: pictures.some((one) => !isIgnored(one, book)),
    };
  },
};
