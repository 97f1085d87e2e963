import { findSlip } from '../../core/words/slip.js';

/** A declaration, without its place. */
export interface Declared {
  property: string;
  value: string;
}

/** What the browser makes of a declaration: null where it takes it; else what it would take in its place. */
export type Refused = { instead: string | null } | null;

/** Asks of each declaration whether the browser takes it. */
export function checkDeclarations(list: readonly Declared[]): Refused[] {
  let known: string[] | null = null;
  return list.map(({ property, value }) => {
    if (CSS.supports(property, value)) return null;
    if (CSS.supports(property, 'initial')) return { instead: withUnits(property, value) };
    known ??= listProperties();
    const meant = findSlip(property, known);
    return { instead: meant && CSS.supports(meant, value) ? `${meant}: ${value}` : null };
  });
}

/** Numbers that lack their unit get it, where that is what is missing. */
function withUnits(property: string, value: string): string | null {
  const mended = value.replace(
    /(^|[\s,(])(-?\d*\.?\d+)(?=$|[\s,)])/g,
    (all, before: string, n: string) => (Number(n) === 0 ? all : `${before}${n}px`),
  );
  return mended !== value && CSS.supports(property, mended) ? `${property}: ${mended}` : null;
}

/** The properties that the browser knows, without those of one engine. */
function listProperties(): string[] {
  const found = new Set<string>();
  for (const name in document.documentElement.style) {
    const property = name.replace(/[A-Z]/g, (letter) => `-${letter.toLowerCase()}`);
    if (!/^-?webkit/.test(property) && CSS.supports(property, 'initial')) found.add(property);
  }
  return [...found];
}
