import type { Span } from '../snippet.js';

/** A fault in how an address is put together. */
export interface AddressFault extends Span {
  what: 'second-question' | 'no-question' | 'quote' | 'space' | 'twice';
  /** The piece as it reads. */
  piece: string;
  /** What belongs in its place, as source. */
  put: string;
}

/** A character of an attribute's value, with where it stands in the source. */
interface Letter extends Span {
  text: string;
}

/** What stands for somebody else's value is no address yet. */
const TEMPLATE = /\{\{|\$\{|<%|\[\[/;
const AMPERSAND = /^&(amp;|#38;|#x26;)?/i;
const PARAMETER = /^[\w.[\]-]+=/;
const NAME = /^[\w.[\]-]+(=|&|$)/;

/**
 * Finds what is wrong with how an address is written (URL Standard, 4.3 URL writing), by what programs that
 * take addresses apart make of it.
 * @param raw as it stands in the source, between the quotes
 * @param offset where that begins
 * @param player of a player no parameter has two values; elsewhere several may be meant
 */
export function findAddressFaults(raw: string, offset: number, player: boolean): AddressFault[] {
  // Asked first: a whole document may stand in an address (`data:`).
  if (!isAddress(raw.trimStart()) || TEMPLATE.test(raw)) return [];
  const letters = trim(spell(raw, offset));
  const whole = letters.map(({ text }) => text).join('');
  const at = (from: number, to: number, what: AddressFault['what'], put: string) => ({
    ...{ what, put, piece: whole.slice(from, to) },
    offset: letters[from]!.offset,
    endOffset: letters[to - 1]!.endOffset,
  });
  const end = whole.indexOf('#') < 0 ? whole.length : whole.indexOf('#');
  const faults = [...findStray(whole, at), ...findQuestions(whole.slice(0, end), at)];
  // What is otherwise wrong decides first which parameters there are.
  if (player && faults.length === 0) faults.push(...findTwice(whole.slice(0, end), at));
  return faults.sort((a, b) => a.offset - b.offset);
}

function isAddress(text: string): boolean {
  return /^(https?:)?\/\/|^[./\w]/i.test(text) && !/^(?!https?:)[a-z]+:/i.test(text);
}

type At = (from: number, to: number, what: AddressFault['what'], put: string) => AddressFault;

function spell(raw: string, offset: number): Letter[] {
  const letters: Letter[] = [];
  for (let i = 0; i < raw.length;) {
    const length = AMPERSAND.exec(raw.slice(i, i + 6))?.[0].length ?? 1;
    letters.push({ text: raw[i]!, offset: offset + i, endOffset: offset + i + length });
    i += length;
  }
  return letters;
}

/** White space around an address is left out by browsers (HTML, 2.4.1). */
function trim(letters: readonly Letter[]): Letter[] {
  const isBlank = ({ text }: Letter) => /\s/.test(text);
  const first = letters.findIndex((one) => !isBlank(one));
  const last = letters.findLastIndex((one) => !isBlank(one));
  return first < 0 ? [] : letters.slice(first, last + 1);
}

/** Quotes and spaces that are not part of any value. */
function findStray(whole: string, at: At): AddressFault[] {
  const faults: AddressFault[] = [];
  for (const { 0: piece, index } of whole.matchAll(/\s+/g)) {
    const end = index + piece.length;
    const isEdge = /[?&=/#]/.test(whole[index - 1]! + whole[end]!);
    faults.push(at(index, end, 'space', isEdge ? '' : '%20'));
  }
  for (const { 0: piece, index } of whole.matchAll(/["“”„″]|['’′]|%2[27]/g)) {
    const end = index + piece.length;
    if (/["“”„″]/.test(piece) || isAtEdge(whole, piece, index))
      faults.push(at(index, end, 'quote', ''));
  }
  return faults;
}

/** Alone of its kind, and where a value begins or ends: words have such marks inside, and quoted words two. */
function isAtEdge(whole: string, piece: string, index: number): boolean {
  const end = index + piece.length;
  const ends = end === whole.length || /[?&#]/.test(whole[end]!);
  return whole.split(piece).length === 2 && (ends || /[=/]/.test(whole[index - 1] ?? '='));
}

function findQuestions(address: string, at: At): AddressFault[] {
  const question = address.indexOf('?');
  const path = question < 0 ? address : address.slice(0, question);
  const amp = path.indexOf('&', path.lastIndexOf('/') + 1);
  const misplaced = amp >= 0 && PARAMETER.test(address.slice(amp + 1));
  const faults = misplaced ? [at(amp, amp + 1, 'no-question', '?')] : [];
  if (question < 0) return faults;
  for (let i = misplaced ? question : address.indexOf('?', question + 1); i >= 0;) {
    const before = address.slice(0, i).split(/[?&]/).at(-1)!;
    // An address may be a parameter of another one.
    const isInner = /[/:]|%2f|%3a/i.test(before) && !misplaced;
    if (!isInner && NAME.test(address.slice(i + 1)))
      faults.push(at(i, i + 1, 'second-question', /^\??$/.test(before) ? '' : '&amp;'));
    i = address.indexOf('?', i + 1);
  }
  return faults;
}

/** Of several values the first is what a program gets that asks for one (URL Standard, 6.2 `get`). */
function findTwice(address: string, at: At): AddressFault[] {
  const question = address.indexOf('?');
  if (question < 0) return [];
  const faults: AddressFault[] = [];
  const known = new Map<string, string>();
  let from = question + 1;
  for (const piece of address.slice(from).split('&')) {
    const [name, ...rest] = piece.split('=');
    const value = rest.join('=');
    const before = known.get(name!);
    const isList = /(\[\w*\]|%5B\w*%5D)$/i.test(name!);
    if (before === undefined) known.set(name!, value);
    else if (before !== value && !isList && name)
      faults.push(at(from - 1, from + piece.length, 'twice', ''));
    from += piece.length + 1;
  }
  return faults;
}
