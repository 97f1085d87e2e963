import {
  addSeen,
  getFactKey,
  selectRenders,
  type Check,
  type Fact,
  type Prepared,
  type RenderOf,
  type Seen,
} from '../check.js';
import { FACT_KINDS, type FactKind } from '../evidence.js';
import { flatMap, mapPresent } from '../lists.js';
import { AS_VISITED, nameRoom } from '../render.js';
import { silenceExplained, type JudgedFact } from './silence.js';

/** Runs a check on certain renders. */
type Run = (check: Check, renders: readonly RenderOf<FactKind>[]) => JudgedFact[];

/**
 * What the first minute brings that was not there at rest: each time that pages were read in it is judged for
 * itself, beside those that stayed as they were.
 * @param known what is there at rest, explained by something else or not
 * @returns what comes, and what of `known` does not last
 */
export function judgeLater(
  checks: readonly Check[],
  prepared: readonly Prepared[],
  known: readonly JudgedFact[],
  run: Run,
): { later: JudgedFact[]; over: JudgedFact[] } {
  const found = new Map<string, JudgedFact | null>(known.map((one) => [getKey(one), null]));
  const lasting = known.filter(({ check }) => check.lasts);
  const over = new Set<JudgedFact>();
  for (const renders of listTurns(prepared)) {
    const facts = flatMap(checks, (check) => run(check, selectRead(renders, check)));
    const there = new Set(facts.map(getKey));
    for (const one of lasting) {
      const isRead = selectRead(renders, one.check).some(({ at }) => at.after !== null);
      if (isRead && !there.has(getKey(one))) over.add(one);
    }
    for (const one of silenceExplained(facts)) {
      const key = getKey(one);
      // What is seen at rest alone was judged at rest.
      const seen = one.fact.seen.filter(({ after }) => after !== null);
      // What has to last was to be there at rest too.
      if (seen.length === 0 || one.check.lasts) continue;
      const before = found.get(key);
      if (before === undefined) found.set(key, { ...one, fact: { ...one.fact, seen } });
      else if (before) addSeen(before.fact.seen, seen, getRoom);
    }
  }
  return { later: [...found.values()].filter((one) => one !== null), over: [...over] };
}

/** Whether a check reads pages that are a while old: not one that compares different conditions. */
export function readsLater({ needs }: Check): boolean {
  return needs.kinds.length > 0 && needs.variants.join() === 'as-is';
}

/** In each the first, second or next reading of every place; of one that has none of it, how it was last seen. */
function listTurns(prepared: readonly Prepared[]): Prepared[][] {
  const rooms = new Map<string, { rest: Prepared | null; late: Prepared[] }>();
  for (const one of prepared) {
    const { variant } = one.evidence.render;
    const key = getRoom(one.whole.at);
    const room = rooms.get(key) ?? { rest: null, late: [] };
    rooms.set(key, room);
    if (variant === 'minute') room.late.push(one);
    else if (variant === 'as-is') room.rest ??= one;
  }
  const all = [...rooms.values()];
  const most = Math.max(0, ...all.map(({ late }) => late.length));
  return Array.from({ length: most }, (_, turn) =>
    mapPresent(all, ({ rest, late }) => late[turn] ?? late.at(-1) ?? rest),
  );
}

/** Where all that a check reads was looked for. */
function selectRead(renders: readonly Prepared[], check: Check): RenderOf<FactKind>[] {
  const { later: kinds = check.needs.kinds } = check;
  const read = renders.filter(({ evidence: { sought = FACT_KINDS } }) =>
    kinds.every((kind) => sought.includes(kind)),
  );
  return readsLater(check) ? selectRenders(read, { kinds, variants: AS_VISITED }) : [];
}

function getRoom(place: Pick<Seen, 'slot' | 'insert' | 'viewport' | 'engine'>): string {
  return [nameRoom(place), place.viewport, place.engine].join(' ');
}

function getKey({ check, fact }: JudgedFact): string {
  return `${check.id} ${getFactKey(fact)}`;
}

/** What is unusual about all windows in which something is seen, in words to be put behind what is wrong; '' where one is not. */
export function describeCondition(seen: readonly Seen[]): string {
  const all = [...new Set(seen.map(({ condition }) => condition))];
  if (all.length === 0 || all.includes('')) return '';
  return ` It is so ${all.join(', or ')}.`;
}

/** In which slot it is seen, in words to be put behind what is wrong; '' where it is in several, or there is no other. */
export function describeSlot(
  { seen, ranges = [] }: Pick<Fact<unknown>, 'seen' | 'ranges'>,
  slots: ReadonlySet<string>,
): string {
  const own = [...new Set([...seen, ...ranges].map(({ slot }) => slot))];
  return own.length === 1 && slots.size > 1 ? ` It is so in “${own[0]}”.` : '';
}

/** When something comes that is not there at rest, in words to be put behind what is wrong; '' for what is. */
export function describeLater(seen: readonly Seen[]): string {
  const all = mapPresent(seen, ({ after }) => after);
  if (all.length === 0 || all.length < seen.length) return '';
  const scrolled = mapPresent(seen, (one) => one.scrolled);
  // Where it came without that it would have been seen before.
  if (scrolled.length === seen.length)
    return ` It shows once the page is scrolled down, by ${Math.min(...scrolled)} px.`;
  return ` It comes later: within ${Math.max(...all)} s after the page has come to rest.`;
}
