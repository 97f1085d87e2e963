import {
  addSeen,
  getFactKey,
  selectRenders,
  type Check,
  type Prepared,
  type RenderOf,
  type Seen,
} from '../check.js';
import { FACT_KINDS, type FactKind } from '../evidence.js';
import { flatMap } from '../lists.js';
import { nameRoom } from '../render.js';
import { silenceExplained, type JudgedFact } from './silence.js';

/** Runs a check on certain renders. */
type Run = (check: Check, renders: readonly RenderOf<FactKind>[]) => JudgedFact[];

/**
 * What the first minute brings that was not there at rest: each time that pages were read in it is judged for
 * itself, as a page of its own.
 * @param known what is there at rest, explained by something else or not
 */
export function judgeLater(
  checks: readonly Check[],
  prepared: readonly Prepared[],
  known: readonly JudgedFact[],
  run: Run,
): JudgedFact[] {
  const found = new Map<string, JudgedFact | null>(known.map((one) => [getKey(one), null]));
  for (const renders of listTurns(prepared)) {
    const facts = flatMap(checks, (check) => run(check, selectRead(renders, check)));
    for (const one of silenceExplained(facts)) {
      const key = getKey(one);
      const before = found.get(key);
      if (before === undefined) found.set(key, one);
      else if (before) addSeen(before.fact.seen, one.fact.seen, getRoom);
    }
  }
  return [...found.values()].filter((one) => one !== null);
}

/** Whether a check reads pages that are a while old: not one that compares different conditions. */
export function readsLater({ needs }: Check): boolean {
  return needs.kinds.length > 0 && needs.variants.join() === 'as-is';
}

/** In each the first, second or next reading of every place. */
function listTurns(prepared: readonly Prepared[]): Prepared[][] {
  const turns: Prepared[][] = [];
  const counts = new Map<string, number>();
  for (const one of prepared) {
    if (one.evidence.render.variant !== 'minute') continue;
    const room = getRoom(one.whole.at);
    const turn = counts.get(room) ?? 0;
    counts.set(room, turn + 1);
    (turns[turn] ??= []).push(one);
  }
  return turns;
}

/** Where all that a check reads was looked for. */
function selectRead(renders: readonly Prepared[], check: Check): RenderOf<FactKind>[] {
  const { kinds } = check.needs;
  const read = renders.filter(({ evidence: { sought = FACT_KINDS } }) =>
    kinds.every((kind) => sought.includes(kind)),
  );
  return readsLater(check) ? selectRenders(read, { kinds, variants: ['minute'] }) : [];
}

function getRoom(place: Pick<Seen, 'slot' | 'insert' | 'viewport' | 'engine'>): string {
  return [nameRoom(place), place.viewport, place.engine].join(' ');
}

function getKey({ check, fact }: JudgedFact): string {
  return `${check.id} ${getFactKey(fact)}`;
}

/** When something comes that is not there at rest, in words to be put behind what is wrong; '' for what is. */
export function describeLater(seen: readonly Seen[]): string {
  const all = seen.map(({ after }) => after).filter((after) => after !== null);
  if (all.length === 0 || all.length < seen.length) return '';
  return ` It comes later: within ${Math.max(...all)} s after the page has come to rest.`;
}
