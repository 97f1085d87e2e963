import distance from 'damerau-levenshtein';

/** From so many letters on two edits are a slip. */
const LONG = 8;
/** Under so many only two neighbouring letters that changed places are. */
const SHORT = 5;

/**
 * What a name is a slip of: the nearest of the known ones, one small edit away (a swap counts), two for long
 * names, for short ones by a swap alone. Null where none is so near.
 */
export function findSlip(name: string, known: readonly string[]): string | null {
  if (name.length < SHORT) return known.find((one) => isSwap(name, one)) ?? null;
  const most = name.length >= LONG ? 2 : 1;
  const steps = known.map((one) => (isFar(name, one, most) ? Infinity : distance(name, one).steps));
  const least = Math.min(...steps);
  return least >= 1 && least <= most ? known[steps.indexOf(least)]! : null;
}

/** Told without the dear count of edits: each changes, adds or drops one letter at most. */
function isFar(a: string, b: string, most: number): boolean {
  if (Math.abs(a.length - b.length) > most) return true;
  const missing = [...a].filter((letter) => !b.includes(letter)).length;
  return missing > most;
}

/** Whether two neighbouring letters changed places. */
function isSwap(a: string, b: string): boolean {
  if (a.length !== b.length || a === b) return false;
  const at = [...a].findIndex((letter, i) => letter !== b[i]);
  return a[at] === b[at + 1] && a[at + 1] === b[at] && a.slice(at + 2) === b.slice(at + 2);
}
