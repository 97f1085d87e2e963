import type { Fact, MarkupFact, Measures, Seen } from './check.js';
import type { Blame } from './measure/blame.js';

/** What a fact can have besides where it is, what is known of it and where it was seen. */
type More<M> = Partial<Omit<Fact<unknown, M>, 'where' | 'culprit' | 'data' | 'seen'>>;

/** Facts as checks tell them. */
export const tell = {
  /** What the markup shows by itself. */
  markup<D>(blame: Blame, data: D, more: More<never> = {}): MarkupFact<D> {
    return make(blame, data, [], more);
  },

  /** What was seen in one place, or in several. */
  seen<D, M extends Measures>(
    blame: Blame,
    data: D,
    seen: Seen<M> | readonly Seen<M>[],
    more: More<M> = {},
  ): Fact<D, M> {
    const all: readonly Seen<M>[] = 'measured' in seen ? [seen] : seen;
    return make(blame, data, [...all], more);
  },
};

function make<D, M>(
  { where, culprit }: Blame,
  data: D,
  seen: Seen<M>[],
  more: More<M>,
): Fact<D, M> {
  const { offset, endOffset } = where;
  return { where: { offset, endOffset }, culprit, ...more, data, seen };
}
