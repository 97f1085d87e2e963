import type { z } from 'zod';
import { asks } from './asks/fact.js';
import { causes } from './causes/fact.js';
import { code } from './code/fact.js';
import { controls } from './controls/fact.js';
import { cuts } from './cuts/fact.js';
import { drawings } from './drawings/fact.js';
import { elements } from './elements/fact.js';
import { flashing } from './flashing/fact.js';
import { frames } from './frames/fact.js';
import { handling } from './handling/fact.js';
import { host } from './host/fact.js';
import type { Kind } from './kind.js';
import { layers } from './layers/fact.js';
import { media } from './media/fact.js';
import { motions } from './motions/fact.js';
import { page } from './page/fact.js';
import { paint } from './paint/fact.js';
import { pictures } from './pictures/fact.js';
import { policy } from './policy/fact.js';
import { reaching } from './reaching/fact.js';
import { scripts } from './scripts/fact.js';
import { shifts } from './shifts/fact.js';
import { slot } from './slot/fact.js';
import { stored } from './stored/fact.js';
import { styles } from './styles/fact.js';
import { texts } from './texts/fact.js';
import { times } from './times/fact.js';
import { traffic } from './traffic/fact.js';
import { unrest } from './unrest/fact.js';
import { visit } from './visit/fact.js';
import { widths } from './widths/fact.js';

/** All kinds of facts, in the order in which they are told. */
export const KINDS = {
  page,
  slot,
  elements,
  frames,
  media,
  pictures,
  drawings,
  motions,
  flashing,
  controls,
  texts,
  cuts,
  layers,
  shifts,
  policy,
  asks,
  handling,
  visit,
  paint,
  traffic,
  scripts,
  code,
  unrest,
  times,
  stored,
  host,
  causes,
  styles,
  widths,
  reaching,
};

export type FactKind = keyof typeof KINDS;

/** What a render measures, by kind. A check names the kinds it reads. */
export type Facts = { [K in FactKind]: z.output<(typeof KINDS)[K]['schema']> };

export const FACT_KINDS = Object.keys(KINDS) as readonly FactKind[];

/** Those without which something is unseen. */
export const SEEN_KINDS: readonly FactKind[] = FACT_KINDS.filter(
  (kind) => !(KINDS[kind] as Kind).extra,
);

/** Those that what comes late, or not at all, could have changed. */
export const CHANGING_KINDS: readonly FactKind[] = SEEN_KINDS.filter(
  (kind) => !(KINDS[kind] as Kind).still,
);

/** Those of which it is so. */
export function listKinds(is: (kind: Kind) => boolean | undefined): readonly FactKind[] {
  return SEEN_KINDS.filter((kind) => is(KINDS[kind]));
}

/** Those that tell whether anything is too wide. */
export const FITTING_KINDS: readonly FactKind[] = ['page', 'slot', 'elements', 'frames'];

/** One thing of every kind: what `make` gives for it. */
export function forKinds<T>(make: (kind: FactKind) => T): Record<FactKind, T> {
  return Object.fromEntries(FACT_KINDS.map((kind) => [kind, make(kind)])) as Record<FactKind, T>;
}

/** The facts of a render that gave none. */
export function getEmptyFacts(): Facts {
  return structuredClone(forKinds((kind) => KINDS[kind].empty)) as Facts;
}
