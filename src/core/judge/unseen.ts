import type { Check } from '../check.js';
import type { Evidence } from '../evidence.js';
import { NOT_SOUGHT } from '../engines.js';
import { planVariants } from '../plan.js';
import { getPlace, getRenderKey, nameState } from '../render.js';
import type { NotJudged } from '../run.js';
import type { Judged } from './judge.js';
import { readsLater } from './later.js';

/** What a check could not see: all renders, or those with a gap in what it reads. */
export function explainNotJudged(check: Check, judged: Judged, fault: string | null): NotJudged[] {
  const why = fault ?? findUnseen(check, judged);
  return why === null ? [] : [{ id: check.id, why, snippet: judged.snippet.name }];
}

function findUnseen(check: Check, judged: Judged): string | null {
  const { markupOnly, evidence } = judged;
  if (markupOnly === null) {
    const whys = [tellGaps(evidence, check), tellUncalled(check, judged)].filter(Boolean);
    return whys.length > 0 ? whys.join('; ') : null;
  }
  return check.needs.kinds.length > 0 && check.markup !== true ? markupOnly : null;
}

/** What was seen calls for other variants under this house, and there are none of them, as under another house that called for none. */
function tellUncalled(check: Check, { evidence, baselines, markup, house }: Judged): string | null {
  if (!check.needs.calls) return null;
  const asIs = evidence.filter(({ render }) => render.variant === 'as-is');
  const there = new Set(evidence.map(({ render }) => getRenderKey(render)));
  const missing = planVariants(asIs, [check], baselines, { markup, house }).filter(
    (render) => !there.has(getRenderKey(render)),
  );
  return missing.length > 0 ? NOT_SOUGHT : null;
}

/** The gaps in what a check reads, each reason once with the places it holds for; null where there is none. */
function tellGaps(all: readonly Evidence[], check: Check): string | null {
  const { needs } = check;
  const places = new Map<string, Set<string>>();
  // What calls for the other variants is read of the page as it is.
  const read: readonly string[] = needs.calls ? ['as-is', ...needs.variants] : needs.variants;
  const evidence = all.filter(({ render }) => read.includes(render.variant));
  const later = readsLater(check) ? all.filter(({ render }) => render.variant === 'minute') : [];
  for (const one of [...evidence, ...later]) {
    const { viewport, slot, variant, after, scrolled } = getPlace(one);
    for (const { kind, why } of one.gaps) {
      if (!needs.kinds.includes(kind)) continue;
      const known = places.get(why) ?? new Set();
      const place = `${viewport}, ${slot}`;
      // What was not seen at rest need not be said again.
      if (variant === 'minute' && known.has(place)) continue;
      const state = nameState({ variant, after, scrolled });
      places.set(why, known.add(state ? `${place}, ${state}` : place));
    }
  }
  const told = [...places].map(([why, where]) =>
    where.size === evidence.length && where.size > 1 ? why : `${why} (${[...where].join('; ')})`,
  );
  return told.length > 0 ? told.join('; ') : null;
}
