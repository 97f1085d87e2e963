import { getCulpritKey, type Check, type Fact } from '../check.js';
import { flatMap, groupBy } from '../lists.js';
import { getElementFrom, getTagSpan, type Markup } from '../markup/markup.js';
import { applyEdits } from '../mend/apply.js';
import { composeMends } from '../mend/compose.js';
import { bySayingMore, listTouched, type Intent } from '../mend/intent.js';
import type { Cause, Finding } from '../run.js';
import { counts } from '../verdict.js';

/** A finding on its way: what would cure it is not yet written out. */
export interface Telling {
  check: Check;
  fact: Fact<unknown>;
  finding: Omit<Finding, 'cause' | 'key'>;
  intents: Intent[] | null;
}

/**
 * Which findings one change cures: what is done to the source is the same, or stands at the same place.
 * Those that are alike at many places have numbers one after the other.
 * @param told in the order in which they are to be told
 * @returns for each its cause's number, from 1
 */
export function numberCauses(markup: Markup, told: readonly Telling[]): number[] {
  if (told.length < 2) return told.map(() => 1);
  const groups = new Groups(told.length);
  const first = new Map<string, number>();
  told.forEach((telling, i) => {
    for (const key of listKeys(markup, telling)) {
      const known = first.get(key);
      if (known === undefined) first.set(key, i);
      else groups.join(known, i);
    }
  });
  const causes = groups.list();
  const kinds = new Map<string, number[][]>();
  for (const members of causes) {
    const kind = members.map((i) => getKind(told[i]!.finding)).join();
    kinds.set(kind, [...(kinds.get(kind) ?? []), members]);
  }
  const numbers: number[] = [];
  [...kinds.values()].flat().forEach((members, at) => {
    for (const i of members) numbers[i] = at + 1;
  });
  return numbers;
}

/** Two findings that share one of these have the same cause. What is waived keeps to itself. */
function listKeys(markup: Markup, { check, fact, finding, intents }: Telling): string[] {
  const { offset, endOffset } = fact.where;
  const targets = listTouched(intents).map((target) => `change ${target}`);
  const keys = [...targets];
  // A whole tag may have several faults, a piece of it hardly: that is the piece to change.
  if (!isTag(markup, fact)) keys.push(`at ${offset} ${endOffset}`);
  else if (targets.length === 0 && check.tooWide) keys.push(`wide ${getCulpritKey(fact.culprit)}`);
  return counts(finding) ? keys : keys.map((key) => `waived ${key}`);
}

function isTag(markup: Markup, { where }: Fact<unknown>): boolean {
  const element = getElementFrom(markup, where.offset);
  return element !== null && getTagSpan(element).endOffset === where.endOffset;
}

/** Findings of one kind are told alike: causes that have the same are one block of the reports. */
export function getKind({ id, level, waiver }: Pick<Finding, 'id' | 'level' | 'waiver'>): string {
  return [id, level, waiver?.until ?? '', waiver?.expired ?? ''].join(' ');
}

/** The whole snippet with all cures; null where nothing does. What is waived stays as it is. */
export function mendAll(
  markup: Markup,
  groups: ReadonlyMap<number, readonly Telling[]>,
): string | null {
  const counting = [...groups.values()].filter(([one]) => counts(one!.finding));
  const cures = flatMap(counting, chooseCures).map(({ intents }) => intents);
  const { edits } = composeMends(markup, cures.sort(bySayingMore));
  return edits.length > 0 ? applyEdits(markup.text, edits) : null;
}

/** What cures each cause; null where nothing certain does. */
export function listCauses(
  markup: Markup,
  groups: ReadonlyMap<number, readonly Telling[]>,
): Cause[] {
  return [...groups].map(([number, group]) => ({ number, ...cure(markup, group) }));
}

/** The findings of each cause, in the order of their numbers. */
export function gatherCauses(
  told: readonly Telling[],
  numbers: readonly number[],
): Map<number, Telling[]> {
  const members = new Map<number, Telling[]>();
  told.forEach((telling, i) => {
    const number = numbers[i]!;
    const known = members.get(number);
    if (known) known.push(telling);
    else members.set(number, [telling]);
  });
  return new Map([...members].sort(([a], [b]) => a - b));
}

function cure(markup: Markup, group: readonly Telling[]): Omit<Cause, 'number'> {
  const ordered = chooseCures(group);
  const { edits, taken } = composeMends(
    markup,
    ordered.map(({ intents }) => intents),
  );
  const done = new Set(
    flatMap(
      ordered.filter((_, i) => taken[i]),
      (one) => listTouched(one.intents),
    ),
  );
  const made = new Set(ordered.filter((_, i) => taken[i]));
  // What sets something else at the same place does not do it, but that what fits in one way does in another.
  const isCured = (one: Telling) =>
    made.has(one) || (mayDiffer(one) && touches(one, done)) || isTakenOut(one, ordered);
  // What leaves the gravest as it is is no cure of the cause.
  if (edits.length === 0 || !isCured(group[0]!)) return { mend: null, cures: [] };
  const cures = group.filter(isCured).map(({ finding }) => finding.id);
  return { mend: edits, cures: [...new Set(cures)] };
}

/** Its cure is one of several that would do. */
function mayDiffer({ check, intents }: Telling): boolean {
  return check.tooWide !== undefined || !intents?.some((one) => one.do === 'set-style');
}

function touches({ intents }: Telling, done: ReadonlySet<string>): boolean {
  return listTouched(intents).some((target) => done.has(target));
}

/**
 * The findings of a cause whose cures make up its own. What is taken out has no other faults; of two cures
 * that set different things at one place, the one that says more does what the other would.
 */
function chooseCures(group: readonly Telling[]): Telling[] {
  const removals = group.filter(({ intents }) => intents?.some(isRemoval));
  const others = group.filter((one) => !removals.includes(one) && !isTakenOut(one, removals));
  return [...removals, ...others].sort((a, b) => bySayingMore(a.intents, b.intents));
}

function isRemoval(intent: Intent): boolean {
  return intent.do === 'remove-attribute';
}

/** Whether what a finding points at is taken out by the cure of another. */
function isTakenOut({ fact }: Telling, removals: readonly Telling[]): boolean {
  return removals.some(
    ({ fact: { where }, intents }) =>
      intents?.some(isRemoval) === true &&
      where.offset === fact.where.offset &&
      where.endOffset === fact.where.endOffset,
  );
}

/** Members of a list that belong together, directly or by way of others. */
class Groups {
  readonly #parents: number[];

  constructor(size: number) {
    this.#parents = Array.from({ length: size }, (_, i) => i);
  }

  #find(i: number): number {
    let at = i;
    while (this.#parents[at] !== at) at = this.#parents[at] = this.#parents[this.#parents[at]!]!;
    return at;
  }

  join(a: number, b: number): void {
    const [low, high] = [this.#find(a), this.#find(b)].sort((x, y) => x - y) as [number, number];
    this.#parents[high] = low;
  }

  /** Each group by the places of its members, in the order of their first. */
  list(): number[][] {
    return [...groupBy(this.#parents.keys(), (i) => this.#find(i)).values()];
  }
}
