import distance from 'damerau-levenshtein';

/** The candidate a misspelt word most probably means, or null where none is near. */
export function getNearest(word: string, candidates: Iterable<string>): string | null {
  let best: string | null = null;
  let steps = Math.max(1, Math.floor(word.length / 3)) + 1;
  for (const candidate of candidates) {
    const { steps: found } = distance(word.toLowerCase(), candidate.toLowerCase());
    if (found < steps) [best, steps] = [candidate, found];
  }
  return best;
}

/** A complaint's tail: `Did you mean …?` where something is near, and what is allowed. */
export function suggest(word: string, allowed: readonly string[]): string {
  const nearest = getNearest(word, allowed);
  return `${nearest ? `Did you mean "${nearest}"? ` : ''}Allowed: ${allowed.join(', ')}.`;
}
