import type { Check } from './check.js';
import { FACT_KINDS, FITTING_KINDS, type FactKind } from './evidence.js';
import { flatMap } from './lists.js';
import { forVariants, type Variant } from './render.js';

/** The kinds of facts that somebody reads of a render, by its variant: what nobody reads need not be found out. */
export type Wants = Record<Variant, FactKind[]>;

/** What a report tells of each render, whatever is found. */
const REPORTED: readonly FactKind[] = [...FITTING_KINDS, 'media', 'scripts'];

/** What the checks, and reports, read. */
export function getWants(checks: readonly Check[]): Wants {
  return forVariants((variant) => {
    // Of the page as it is everybody reads: there it is decided what other variants are called for.
    const reading = checks.filter(
      ({ needs }) => variant === 'as-is' || needs.variants.includes(variant),
    );
    // What it asks of windows is known at rest.
    const planning: FactKind[] = variant === 'as-is' ? ['asks'] : [];
    const kinds = new Set([
      ...REPORTED,
      ...planning,
      ...flatMap(reading, ({ needs }) => needs.kinds),
    ]);
    return FACT_KINDS.filter((kind) => kinds.has(kind));
  });
}

/** All there is to know. */
export const ALL_WANTED: Wants = forVariants(() => [...FACT_KINDS]);
