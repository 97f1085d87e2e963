import { flatMap } from '../core/lists.js';
import type { Parted } from '../render/collect/own.js';

/** Those of the objects read whose element is the snippet's own, with what is known of that. */
export function withElements<T extends { id: number }>(
  raws: readonly T[] | undefined,
  parted: Pick<Parted, 'elements'> | null,
) {
  const own = new Map(parted?.elements.map((element) => [element.id, element]));
  return flatMap(raws ?? [], (raw) => {
    const element = own.get(raw.id);
    if (!element) return [];
    const { from, selector, box, shown, exposed, style } = element;
    return [{ ...raw, from, selector, box, shown, exposed, style }];
  });
}
