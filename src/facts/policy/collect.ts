import type { Source } from '../../core/evidence.js';
import { flatMap } from '../../core/lists.js';
import type { Collector, Look } from '../collector.js';
import type { PolicyFact } from './fact.js';
import type { RawRefusal } from './read.js';

export const collectPolicy: Collector<'policy'> = (look, { traffic }) => {
  const { reading, parted, baseline } = look;
  const own = new Map(parted?.elements.map((element) => [element.id, element.from]));
  const asked = new Map(traffic.map(({ address, first, from }) => [first || address, from]));
  if (baseline === null) return [];
  return flatMap(reading?.objects.policy ?? [], (refusal): PolicyFact[] => {
    const { directive, blocked } = refusal;
    const from =
      (refusal.id === null ? undefined : own.get(refusal.id)) ??
      asked.get(blocked) ??
      locate(refusal, look);
    return from ? [{ directive, blocked, from }] : [];
  });
};

/** By the place that the browser names; null where that is the page's own. */
function locate({ line, column, blocked }: RawRefusal, { served, of }: Look): Source | null {
  if (line > 0) {
    const place = served.locateLine(line - 1, Math.max(column - 1, 0));
    if (place.to === 'snippet' && place.snippet === of) return place.from;
  }
  return URL.canParse(blocked) && served.mentions(of, blocked)
    ? { script: null, line: null }
    : null;
}
