import type { HostPartFact } from '../evidence.js';
import { countWords, joinWords } from '../words/list.js';

const NAMES: Record<string, string> = {
  html: 'the whole page',
  body: 'the whole page',
  nav: 'the menu',
  footer: 'the footer',
  header: 'the page’s head',
  aside: 'the side column',
  main: 'the main part',
  form: 'a form',
  img: 'a picture',
  table: 'a table',
};

/** What is known by its words is named by them. */
const BY_WORDS: Record<string, string> = { a: 'link', button: 'button', summary: 'heading' };

/** A part of the page around as a person would name it. */
export function nameHostPart({ tag, words }: Pick<HostPartFact, 'tag' | 'words'>): string {
  const kind = /^h[1-6]$/.test(tag) ? 'heading' : BY_WORDS[tag];
  if (kind !== undefined) return words === '' ? `a ${kind}` : `the ${kind} “${words}”`;
  return NAMES[tag] ?? `a <${tag}>`;
}

/** The parts that people know first, each name once. */
export function sortNames(names: readonly string[]): string[] {
  const known = Object.values(NAMES);
  const unknown = (name: string) => known.length + (name.endsWith('”') ? 0 : 1);
  const rank = (name: string) => (known.includes(name) ? known.indexOf(name) : unknown(name));
  return [...new Set(names)].sort((a, b) => rank(a) - rank(b));
}

const MOST_NAMED = 3;

/** Some of many: `the footer, the menu, a picture and 2 more parts`. */
export function listNames(parts: readonly string[]): string {
  const more = parts.length - MOST_NAMED;
  const named = parts.slice(0, MOST_NAMED);
  return joinWords(more > 0 ? [...named, countWords(more, 'more part')] : named);
}
