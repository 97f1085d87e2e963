import { diffArrays } from 'diff';
import MagicString from 'magic-string';
import { parseFragment } from 'parse5';
import { flatMap, mapPresent } from '../lists.js';
import { listShownCode } from './extract.js';

/** A character as a document writes it, and what that says. */
interface Letter {
  /** Offsets in the document. */
  from: number;
  to: number;
  says: string;
}

/** How a kind of document writes what is put into it. */
type Spelling = (text: string) => string;

/**
 * Puts other code in the place of some that an HTML document shows: what stays is written as it was, tags among it
 * too. Null where the code is not found in its line, or not known character by character.
 * @param line in which the code begins, from 1
 */
export function respellHtml(
  whole: string,
  line: number,
  before: string,
  after: string,
): string | null {
  const found = listShownCode(whole).find(({ piece }) => piece.line === line);
  if (!found || found.piece.text !== before) return null;
  const { isRaw, texts } = found;
  if (isRaw && /<\/xmp/i.test(after)) return null;
  const letters = flatMap(texts, ({ from, to }) => spellHtml(whole, from, to, isRaw));
  return rewrite(
    whole,
    takeLast(letters, before.length),
    before,
    after,
    isRaw ? (text) => text : escapeHtml,
  );
}

/** A character of HTML's text: written out, by its name or number, or a line break of two (HTML, 13.2.5.72 and 13.2.3.5). */
const HTML_LETTER = /&(?:#\d+|#x[\da-f]+|[a-z][a-z\d]*);?|\r\n|[\s\S]/giu;

function spellHtml(whole: string, from: number, to: number, isRaw: boolean): Letter[] {
  const read = (written: string) =>
    written.length > 1 && written.startsWith('&') && !isRaw ? readText(written) : written;
  return spell(whole, { from, to, letter: HTML_LETTER, read });
}

/** What is left out stands before it: empty lines, also one that the parser itself leaves out. */
function takeLast(letters: readonly Letter[], length: number): readonly Letter[] {
  let left = length;
  const first = letters.findLastIndex(({ says }) => (left -= says.length) <= 0);
  return letters.slice(Math.max(0, first));
}

function readText(written: string): string {
  const [node] = parseFragment(written).childNodes;
  return node && 'value' in node ? node.value : '';
}

function escapeHtml(text: string): string {
  return text.replaceAll('&', '&amp;').replaceAll('<', '&lt;').replaceAll('>', '&gt;');
}

const JSON_STRING = /"(?:[^"\\]|\\.)*"/g;
/** A character of a JSON string (RFC 8259, 7); one beyond the basic plane takes two. */
const JSON_LETTER = /\\ud[89ab][\da-f]{2}\\ud[c-f][\da-f]{2}|\\u[\da-f]{4}|\\.|[\s\S]/giu;

/** The same for a string of a JSON text, whatever of it is escaped; null also where several say the same. */
export function respellJson(whole: string, before: string, after: string): string | null {
  const found = mapPresent(whole.matchAll(JSON_STRING), ({ 0: written, index }) => {
    const [from, to] = [index + 1, index + written.length - 1];
    return readJson(written) === before ? { from, to } : null;
  });
  const [only] = found;
  if (!only || found.length > 1) return null;
  const read = (written: string) => readJson(`"${written}"`) ?? '';
  const letters = spell(whole, { ...only, letter: JSON_LETTER, read });
  const write = (text: string) => JSON.stringify(text).slice(1, -1);
  return rewrite(whole, letters, before, after, write);
}

function readJson(written: string): string | null {
  try {
    return JSON.parse(written) as string;
  } catch {
    return null;
  }
}

function spell(
  whole: string,
  piece: { from: number; to: number; letter: RegExp; read: (written: string) => string },
): Letter[] {
  const { from, to, letter, read } = piece;
  return mapPresent(whole.slice(from, to).matchAll(letter), ({ 0: written, index }) => ({
    from: from + index,
    to: from + index + written.length,
    says: written === '\r\n' ? '\n' : read(written),
  }));
}

function rewrite(
  whole: string,
  letters: readonly Letter[],
  before: string,
  after: string,
  write: Spelling,
): string | null {
  const [first] = letters;
  const said = letters.map(({ says }) => says);
  if (!first || said.join('') !== before) return null;
  const source = new MagicString(whole);
  let [at, end] = [0, first.from];
  for (const { added, removed, value } of diffArrays(said, [...after])) {
    if (added) {
      source.appendLeft(end, write(value.join('')));
      continue;
    }
    const own = letters.slice(at, (at += value.length));
    if (removed) for (const { from, to } of own) source.remove(from, to);
    end = own.at(-1)!.to;
  }
  return source.toString();
}
