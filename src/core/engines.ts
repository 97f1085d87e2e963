import { CHANGING_KINDS, listMissing, type Evidence, type FactKind, type Gap } from './evidence.js';
import type { About, Check } from './check.js';
import { listKinds } from '../facts/kinds.js';
import { flatMap } from './lists.js';
import { getTraits, type Traits } from './markup/traits.js';
import type { EngineName } from './render.js';
import { getWants } from './wants.js';

/** A snippet and its house, as far as they decide what an engine has to be able to do. */
export interface Wishes {
  own: Traits;
  /** The page around is the house's own. */
  ownPage: boolean;
}

/** @see Wishes */
function getWishes({ markup, house }: About): Wishes {
  return { own: getTraits(markup), ownPage: house.page !== undefined };
}

/** Something that an engine has to be able to tell, finer than a whole kind of facts. */
export interface Capability {
  /** What it tells. */
  words: string;
  /** The kinds of facts of which not all is known without it. */
  bears: readonly FactKind[];
  /** Whether anything depends on it; left out: always. */
  matters?(wishes: Wishes): boolean;
}

const IN_PAGE = listKinds(({ inPage, still }) => inPage && !still);

/** Whether code made something of which the page's own could be the maker too. */
const isMixed = ({ own, ownPage }: Wishes) => own.changes && ownPage;
const hasCode = ({ own }: Wishes) => own.changes;

/** What engines differ in. */
export const CAPABILITIES = {
  makers: { words: 'who made an element', bears: IN_PAGE, matters: isMixed },
  askers: { words: 'who asked for a file', bears: ['traffic', 'scripts', 'policy'] },
  'closed-roots': { words: 'what stands in closed shadow roots', bears: IN_PAGE, matters: hasCode },
  'stated-sizes': { words: 'which width an element states', bears: ['elements'] },
  'frame-documents': { words: 'what documents in frames are like', bears: ['frames'] },
  'missing-frames': { words: 'which frames were refused', bears: ['frames', 'traffic'] },
  sounds: { words: 'whether a file has a sound track', bears: ['media'] },
  listeners: { words: 'what code listens for', bears: ['handling'] },
  keys: { words: 'what keys do', bears: ['handling'] },
  fingers: { words: 'what a finger does', bears: ['handling'] },
  errors: { words: 'where code breaks down', bears: ['scripts'] },
  globals: {
    words: 'what code does to what all code shares',
    bears: ['scripts'],
    matters: hasCode,
  },
  pleas: { words: 'what visitors are asked for', bears: ['scripts'], matters: hasCode },
  work: { words: 'what code is at work', bears: ['unrest', 'times'], matters: hasCode },
  coverage: { words: 'which code has run', bears: ['code'], matters: hasCode },
  showing: {
    words: 'what is shown from frame to frame',
    bears: ['flashing'],
    matters: ({ own }) => own.moves || own.plays,
  },
  painting: { words: 'what is painted', bears: ['texts', 'paint'] },
  'layout-shifts': { words: 'how far the layout jumps', bears: ['shifts'] },
  'own-time': {
    words: 'what comes within the first minute',
    bears: CHANGING_KINDS,
    matters: ({ own }) => own.moves,
  },
  'policy-refusals': { words: 'what the page’s policy refused', bears: ['policy'] },
} satisfies Record<string, Capability>;

export type CapabilityName = keyof typeof CAPABILITIES;

/** What an engine is called, and what it cannot tell: capabilities, and kinds of facts as a whole. */
export interface Engine {
  title: string;
  lacks: readonly (CapabilityName | FactKind)[];
}

/** The engines that pages are rendered in. */
export type Engines = Readonly<Record<EngineName, Engine>>;
export const ENGINES: Engines = { chromium: { title: 'Chromium', lacks: [] } };

/** What of a render is not known since its engine cannot tell, where anything depends on that. */
export function listBounds({ title, lacks }: Engine, wishes: Wishes): Gap[] {
  return flatMap(lacks, (lack): Gap[] => {
    if (!isCapability(lack)) return listMissing([lack], `${title} does not tell of it`);
    const { words, bears, matters = () => true }: Capability = CAPABILITIES[lack];
    const why = `${title} does not tell ${words}`;
    return matters(wishes) ? bears.map((kind) => ({ kind, why, seen: null, kept: 1 })) : [];
  });
}

function isCapability(name: CapabilityName | FactKind): name is CapabilityName {
  return name in CAPABILITIES;
}

export const NOT_SOUGHT = 'it was not looked for in this run';

/**
 * Evidence with all that nobody could have seen in it among its gaps: what its engine cannot tell, and what was not
 * looked for though somebody reads it now.
 */
export function markBounds(
  evidence: readonly Evidence[],
  about: About,
  { checks, engines = ENGINES }: { checks: readonly Check[]; engines?: Engines },
): readonly Evidence[] {
  const isWhole = (one: Evidence) => !one.sought && engines[one.render.engine].lacks.length === 0;
  if (evidence.every(isWhole)) return evidence;
  const wants = getWants(checks);
  const wishes = getWishes(about);
  return evidence.map((one) => {
    const { sought, render, gaps } = one;
    const missing = sought ? wants[render.variant].filter((kind) => !sought.includes(kind)) : [];
    const bounds = listBounds(engines[render.engine], wishes);
    return { ...one, gaps: [...gaps, ...bounds, ...listMissing(missing, NOT_SOUGHT)] };
  });
}
