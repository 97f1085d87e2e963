import type { ElementFact } from '../../core/evidence.js';
import { flatMap } from '../../core/lists.js';
import type { Collector } from '../collector.js';
import type { CoveredFact } from './fact.js';

export const collectLayers: Collector<'layers'> = ({ reading, parted }) => {
  const own = new Map(parted?.elements.map((element) => [element.id, element]));
  return flatMap(reading?.objects.layers ?? [], ({ inSlot, by, ...one }): CoveredFact[] => {
    const [covered, cover] = [own.get(one.id), own.get(by.id)];
    // What stands in a slot and is not this snippet's is another's.
    if (!covered && (inSlot || !cover)) return [];
    const { tag, control } = by;
    return [{ ...one, ...getWho(covered), by: { tag, control, ...getWho(cover) } }];
  });
};

function getWho(element: ElementFact | undefined): Pick<CoveredFact, 'from' | 'selector'> {
  return { from: element?.from ?? null, selector: element?.selector ?? null };
}
