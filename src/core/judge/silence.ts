import type { Check, Fact, Seen } from '../check.js';
import type { Level } from '../house/house.js';
import type { Finding } from '../run.js';
import { compareLevels, counts } from '../verdict.js';

/** A fact with the check it comes from, and how it counts in the house. */
export interface JudgedFact {
  check: Check;
  fact: Fact<unknown>;
  level: Level;
  waiver: Finding['waiver'];
}

interface Rule {
  cause: string;
  silences: string[];
  /** Only where both were seen at the same slot and width; else altogether. */
  wherePlacesMeet: boolean;
  /** Of the cause's sightings only these explain anything. */
  when?: (seen: Seen) => boolean;
  /** Also what is heavier than itself. */
  heavier?: boolean;
}

/** So many dialogs in one load have no end. */
const ENDLESS = 10;

/** Whether a border alone makes a frame too wide there. */
export function makesTooWide({ measured }: Seen): boolean {
  return Number(measured.overhang) > 0;
}

/** One cause, one finding: which findings are told by which other of the same culprit. */
const RULES: Rule[] = [
  {
    cause: 'page-scrolls-sideways',
    silences: ['slot-overflow', 'frame-wider-than-slot'],
    wherePlacesMeet: true,
  },
  { cause: 'frame-wider-than-slot', silences: ['slot-overflow'], wherePlacesMeet: true },
  // Without the border it would fit: nothing is wrong with its width.
  {
    cause: 'frame-border-left-on',
    silences: ['slot-overflow', 'frame-wider-than-slot'],
    wherePlacesMeet: true,
    when: makesTooWide,
    heavier: true,
  },
  // Dialogs without end keep the page busy too.
  {
    cause: 'page-taken-over',
    silences: ['page-hangs'],
    wherePlacesMeet: true,
    when: ({ measured }) => Number(measured.dialogs) >= ENDLESS,
  },
  // Of a frame whose page is not shown nothing measured tells about the code.
  { cause: 'frame-refused', silences: ['frame-wider-than-slot'], wherePlacesMeet: true },
  // The value is the mistake; that the browser then refuses to play is what comes of it.
  {
    cause: 'autoplay-value-ignored',
    silences: ['autoplay-with-sound', 'autoplay-without-inline', 'audio-autoplays'],
    wherePlacesMeet: false,
  },
];

/** Takes out what another finding explains. */
export function silenceExplained(facts: readonly JudgedFact[]): JudgedFact[] {
  return facts.flatMap((judged) => {
    const causes = RULES.filter((rule) => rule.silences.includes(judged.check.id)).flatMap((rule) =>
      facts
        .filter((other) => other.check.id === rule.cause && explains(other, judged, rule))
        .map((other) => ({ rule, seen: other.fact.seen.filter(rule.when ?? (() => true)) })),
    );
    if (causes.some(({ rule }) => !rule.wherePlacesMeet)) return [];
    const explained = new Set(causes.flatMap(({ seen }) => seen.map(getPlaceKey)));
    const seen = judged.fact.seen.filter((place) => !explained.has(getPlaceKey(place)));
    if (explained.size > 0 && seen.length === 0) return [];
    return [{ ...judged, fact: { ...judged.fact, seen } }];
  });
}

/** No cause stands for what is heavier than itself, nor for anything while it is waived. */
function explains(cause: JudgedFact, other: JudgedFact, rule: Rule): boolean {
  const heavier = compareLevels(cause.level, other.level) > 0;
  return (
    counts(cause) && (rule.heavier === true || !heavier) && isSameCulprit(cause.fact, other.fact)
  );
}

function isSameCulprit(a: Fact<unknown>, b: Fact<unknown>): boolean {
  const samePlace =
    a.where.offset === b.where.offset &&
    a.where.endOffset === b.where.endOffset &&
    a.made === b.made;
  return a.subject === b.subject || samePlace;
}

/** One render, as a key. */
export function getPlaceKey(seen: Seen): string {
  return [seen.slot, seen.insert, seen.viewport, seen.engine, seen.variant].join(' ');
}
