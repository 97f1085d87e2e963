import distance from 'damerau-levenshtein';

/**
 * The candidate a misspelt word most probably means, or null where none is near: by the fewest edits,
 * or else what has most of its parts (`autoplay-sound`: `autoplay-with-sound`).
 */
export function getNearest(word: string, candidates: Iterable<string>): string | null {
  const all = [...candidates];
  let best: string | null = null;
  let steps = Math.max(1, Math.floor(word.length / 3)) + 1;
  for (const candidate of all) {
    const { steps: found } = distance(word.toLowerCase(), candidate.toLowerCase());
    if (found < steps) [best, steps] = [candidate, found];
  }
  // Few edits of a short word, or of one of several parts, hit another word as easily.
  return steps <= 2 ? best : (getByParts(word, all) ?? best);
}

const PARTS = /[^a-z0-9]+/;

/** What shares the most parts, weighed by their length; null where it is not half of the word. */
function getByParts(word: string, candidates: readonly string[]): string | null {
  const parts = word.toLowerCase().split(PARTS).filter(Boolean);
  const score = (candidate: string) => {
    const own = candidate.toLowerCase().split(PARTS);
    const shared = parts.filter((part) =>
      own.some((one) => distance(part, one).steps <= (part.length > 4 ? 1 : 0)),
    );
    return shared.join('').length - own.length / 100;
  };
  const best = [...candidates].sort((a, b) => score(b) - score(a))[0];
  return best !== undefined && score(best) * 2 >= parts.join('').length ? best : null;
}

/**
 * A complaint's tail: `Did you mean …?` where something is near, and what is allowed.
 * @param listed where a list too long for a sentence stands
 */
export function suggest(word: string, allowed: readonly string[], listed?: string): string {
  const nearest = getNearest(word, allowed);
  const meant = nearest ? `Did you mean "${nearest}"? ` : '';
  return meant + (listed ?? `Allowed: ${allowed.join(', ')}.`);
}

/** The same for the name of a finding. */
export function suggestFinding(id: string, known: readonly string[]): string {
  return suggest(id, known, '`mivket explain` lists them all.');
}
