import { getCulpritKey, type Fact, type Measures } from '../check.js';
import type { CauseFact, Facts, TriedCure } from '../evidence.js';
import { flatMap, groupBy } from '../lists.js';
import type { Markup } from '../markup/markup.js';
import type { WidthBlame } from '../measure/blame-width.js';
import type { Intent } from '../mend/intent.js';
import { describeChange } from './describe.js';
import { hasCured } from './targets.js';

/** A fact as it was seen in one render, with what was tried there. */
export interface Sighted<D extends { blame: WidthBlame }, M = Measures> {
  fact: Fact<D, M>;
  causes: Facts['causes'];
  cause: CauseFact | null;
}

/**
 * Gives facts the cure that was seen to cure in every render they were seen in, and to do no harm in any.
 * @param all what was tried in each render, also where nothing was seen
 */
export function settleCures<D extends { blame: WidthBlame }, M>(
  markup: Markup,
  sighted: readonly Sighted<D, M>[],
  all: readonly Facts['causes'][],
): Fact<D, M>[] {
  const groups = groupBy(sighted, ({ fact: { where, culprit } }) =>
    [where.offset, where.endOffset, getCulpritKey(culprit)].join(' '),
  );
  return flatMap(groups.values(), (group) => {
    const cure = findCommon(group, all);
    const change = cure && describeChange(markup, cure);
    return group.map(({ fact }) => ({
      ...fact,
      data: { ...fact.data, blame: { ...fact.data.blame, cure, change } },
    }));
  });
}

function findCommon(
  group: readonly Pick<Sighted<never>, 'causes' | 'cause'>[],
  all: readonly Facts['causes'][],
): Intent[] | null {
  const [first] = group;
  const found = first?.causes.cures.find(({ intents }) => {
    const key = JSON.stringify(intents);
    return group.every((one) => cures(one, key)) && all.every((one) => isHarmless(one, key));
  });
  return found?.intents ?? null;
}

function find({ cures }: Facts['causes'], key: string): TriedCure | undefined {
  return cures.find(({ intents }) => JSON.stringify(intents) === key);
}

function cures({ causes, cause }: Pick<Sighted<never>, 'causes' | 'cause'>, key: string): boolean {
  const tried = find(causes, key);
  return cause !== null && tried !== undefined && hasCured(causes, cause, tried);
}

function isHarmless(causes: Facts['causes'], key: string): boolean {
  return (find(causes, key)?.harm ?? null) === null;
}
