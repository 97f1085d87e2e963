/** The longest run of a list, gaps allowed, in which `was` never falls: patience sorting, in n log n steps. */
export function findRising<T extends { was: number }>(all: readonly T[]): T[] {
  const piles: { one: T; before: Link<T> }[] = [];
  for (const one of all) {
    const at = findPile(piles, one.was);
    piles[at] = { one, before: piles[at - 1] ?? null };
  }
  const found: T[] = [];
  for (let link: Link<T> = piles.at(-1) ?? null; link; link = link.before) found.push(link.one);
  return found.reverse();
}

type Link<T> = { one: T; before: Link<T> } | null;

/** The first pile that ends above it. */
function findPile(piles: readonly { one: { was: number } }[], was: number): number {
  let [low, high] = [0, piles.length];
  while (low < high) {
    const middle = (low + high) >> 1;
    if (piles[middle]!.one.was <= was) low = middle + 1;
    else high = middle;
  }
  return low;
}
