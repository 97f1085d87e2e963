import { getOwnText } from './ink.js';
import { squeeze } from '../../core/words/squeeze.js';

/** What a reader is told by an element, apart from what stands in it: short, to be compared. '' where it says nothing. */
export interface Said {
  /** By its own words, and those that stand for it. */
  says: string;
  /** Where it leads, or comes from. */
  leads: string;
}

/** Of what says nothing. */
export const SILENT: Said = { says: '', leads: '' };

const WORDED = ['alt', 'title', 'aria-label', 'placeholder'];
const LEADING = ['href', 'src', 'srcset', 'action', 'formaction', 'data', 'target'];
/** Its text is no reader's. */
const UNREAD = /^(script|style|noscript|template|head|title)$/;
/** What a visitor, or the browser, fills in. */
const FILLED = /^(password|file|hidden)$/;

export function readSaid(real: Element): Said {
  const node = globalThis.mivketNotebook.own(real);
  if (UNREAD.test(node.localName)) return SILENT;
  const says = [getOwnText(real), ...listAttributes(node, WORDED), getFilled(node)];
  return { says: hash(says.map(tidy)), leads: hash(listAttributes(node, LEADING)) };
}

function listAttributes(node: Element, names: readonly string[]): string[] {
  return names.map((name) => node.getAttribute(name) ?? '');
}

function getFilled(node: Element): string {
  const { type, value } = node as Partial<HTMLInputElement>;
  return /^(input|textarea|select)$/.test(node.localName) && !FILLED.test(type ?? '')
    ? String(value)
    : '';
}

function tidy(text: string): string {
  return squeeze(text);
}

/** Two of them are the same by chance once in 2^53 (multiply and xor, both halves apart). */
function hash(parts: readonly string[]): string {
  const text = parts.filter((one) => one !== '').join('\n');
  if (text === '') return '';
  let [high, low] = [0xdeadbeef, 0x41c6ce57];
  for (let i = 0; i < text.length; i++) {
    const code = text.charCodeAt(i);
    high = Math.imul(high ^ code, 2654435761);
    low = Math.imul(low ^ code, 1597334677);
  }
  return (4294967296 * (2097151 & (low ^ (low >>> 15))) + ((high ^ (high >>> 13)) >>> 0)).toString(
    36,
  );
}
