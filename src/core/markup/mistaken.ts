import { flatMap } from '../lists.js';
import { PROPERTIES } from '../standards/properties.js';
import { findSlip } from '../words/slip.js';
import { listJudgeable } from './judgeable.js';
import type { Markup } from './markup.js';

/** A declaration that no browser takes, and what must have been meant. */
export interface Mistaken {
  offset: number;
  endOffset: number;
  instead: string;
}

const KNOWN = new Set(PROPERTIES);
/** Take lengths, and no number but 0 (CSS Values 4, 6). */
const LENGTHS =
  /^((min|max)-)?(width|height)$|^(padding|margin)(-(top|right|bottom|left))?$|^(top|right|bottom|left|inset|font-size|(row-|column-)?gap|(letter|word)-spacing|text-indent|border-radius)$/;
/** A number without a unit, other than 0. */
const BARE = /(^|\s)[-+]?[\d.]*[1-9][\d.]*(\s|$)/;
const NUMBERS = /^[-+]?(\d*\.)?\d+([a-z]+|%)?(\s+[-+]?(\d*\.)?\d+([a-z]+|%)?)*$/i;

/** No property has a longer name, and no lengths are longer. */
const LONGEST = 60;
const VALUE = /^[^;!"'}]*/;

/** What can be told without a browser: a property misspelt, and lengths without their unit. */
export function listMistaken(markup: Markup): Mistaken[] {
  // To read all styles costs much more than to see that nothing is wrong in them.
  if (!mayBeMistaken(markup.text)) return [];
  return flatMap(listJudgeable(markup), (one) => {
    const instead = mend(one.property, one.value);
    if (instead === null) return [];
    const { offset, endOffset, important } = one;
    return [{ offset, endOffset, instead: important ? `${instead} !important` : instead }];
  });
}

/** Whether anything before a colon, wherever it stands, would be wrong as a declaration. */
function mayBeMistaken(text: string): boolean {
  for (let at = text.indexOf(':'); at >= 0; at = text.indexOf(':', at + 1)) {
    let end = at;
    while (text[end - 1] === ' ') end--;
    let start = end;
    while (start > 0 && isOfName(text.charCodeAt(start - 1))) start--;
    const name = text.slice(start, end).toLowerCase();
    if (KNOWN.has(name) && !LENGTHS.test(name)) continue;
    if (mend(name, VALUE.exec(text.slice(at + 1, at + LONGEST))![0]) !== null) return true;
  }
  return false;
}

/** A letter or a hyphen: the names of properties have nothing else. */
function isOfName(code: number): boolean {
  return (code > 96 && code < 123) || code === 45 || (code > 64 && code < 91);
}

/** null where nothing is wrong, or nobody knows what. */
function mend(property: string, value: string): string | null {
  if (KNOWN.has(property)) return withUnits(property, value);
  const meant = findMeant(property);
  return meant && `${meant}: ${value}`;
}

const slips = new Map<string, string | null>();
/** So many are remembered: most pastes have the same few words before a colon. */
const MOST = 2000;

function findMeant(property: string): string | null {
  const known = slips.get(property);
  if (known !== undefined) return known;
  const found = findSlip(property, PROPERTIES);
  if (slips.size >= MOST) slips.clear();
  slips.set(property, found);
  return found;
}

function withUnits(property: string, value: string): string | null {
  if (!BARE.test(value) || !LENGTHS.test(property) || !NUMBERS.test(value.trim())) return null;
  const mended = value.replace(/(?<![\w.])([-+]?(\d*\.)?\d+)(?=\s|$)/g, (number) =>
    Number(number) === 0 ? number : `${number}px`,
  );
  return mended === value ? null : `${property}: ${mended}`;
}
