import type { Fact, Seen } from '../check.js';

/** A fact with the check it comes from. */
export interface JudgedFact {
  id: string;
  fact: Fact<unknown>;
}

interface Rule {
  cause: string;
  silences: string[];
  /** Only where both were seen at the same slot and width; else altogether. */
  wherePlacesMeet: boolean;
}

/** One cause, one finding: which findings are told by which other of the same culprit. */
const RULES: Rule[] = [
  {
    cause: 'page-scrolls-sideways',
    silences: ['slot-overflow', 'frame-wider-than-slot'],
    wherePlacesMeet: true,
  },
  { cause: 'frame-wider-than-slot', silences: ['slot-overflow'], wherePlacesMeet: true },
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
    const causes = RULES.filter((rule) => rule.silences.includes(judged.id)).flatMap((rule) =>
      facts
        .filter((other) => other.id === rule.cause && isSameCulprit(other.fact, judged.fact))
        .map((other) => ({ rule, seen: other.fact.seen })),
    );
    if (causes.some(({ rule }) => !rule.wherePlacesMeet)) return [];
    const explained = new Set(causes.flatMap(({ seen }) => seen.map(getPlaceKey)));
    const seen = judged.fact.seen.filter((place) => !explained.has(getPlaceKey(place)));
    if (explained.size > 0 && seen.length === 0) return [];
    return [{ id: judged.id, fact: { ...judged.fact, seen } }];
  });
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
