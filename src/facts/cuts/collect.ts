import type { Collector } from '../collector.js';
import { withElements } from '../objects.js';

export const collectCuts: Collector<'cuts'> = ({ parted, reading }) => {
  const own = new Map(parted?.elements.map((element) => [element.id, element]));
  return withElements(reading?.objects.cuts, parted).map(({ clippedBy, ...cut }) => {
    const by = clippedBy === null ? undefined : own.get(clippedBy);
    const clipper = by ? { tag: by.tag, from: by.from, selector: by.selector } : null;
    if (clippedBy === null) return { ...cut, by: 'window', clipper };
    return { ...cut, by: clipper ? 'own' : 'page', clipper };
  });
};
