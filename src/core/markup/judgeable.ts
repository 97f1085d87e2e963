import { flatMap } from '../lists.js';
import type { Markup } from './markup.js';
import { readStyleAttribute, readStyles, type StyleDeclaration } from './styles.js';

/** For one engine, or a known way to speak to an old one. */
const FOR_ONE = /^[-*_]/;
const OLD = /expression\(|progid:|\\\d|^alpha\(/i;
/** In use in other engines than the one that is asked. */
const ELSEWHERE =
  /^(hanging-punctuation|text-decoration-skip|font-smooth|margin-trim|speak.*|ruby-overhang|box-flex-group|text-size-adjust|overflow-scrolling|zoom|filter)$/;
const ELSEWHERE_VALUE = /\b(masonry|grid-lanes|footnote|-moz-|-webkit-|-ms-|-o-|stretch|subgrid)/i;

/** So many declarations are asked about. */
const MOST = 500;

/**
 * The declarations of which it may be asked whether a browser takes them: not those for one engine, nor those
 * beside which another one says the same in other words, as is done for old browsers.
 */
export function listJudgeable(markup: Markup): StyleDeclaration[] {
  const ruled = readStyles(markup);
  const inline = flatMap(markup.elements, (element) => [readStyleAttribute(markup, element)]);
  const blocks = [...groupBySelector(ruled), ...inline];
  // With character references in it the place of a declaration in its attribute is not known.
  const isPlaced = ({ property, offset }: StyleDeclaration) =>
    markup.text.slice(offset, offset + property.length).toLowerCase() === property;
  const found = flatMap(blocks, (block) => block.filter((one) => isJudgeable(one, block)));
  return found.filter(isPlaced).slice(0, MOST);
}

function groupBySelector(all: readonly StyleDeclaration[]): StyleDeclaration[][] {
  const groups: StyleDeclaration[][] = [];
  let last: StyleDeclaration | null = null;
  for (const one of all) {
    const same = last && last.selector === one.selector && last.media === one.media;
    if (same) groups.at(-1)!.push(one);
    else groups.push([one]);
    last = one;
  }
  return groups;
}

function isJudgeable(
  { property, value, offset }: StyleDeclaration,
  block: readonly StyleDeclaration[],
): boolean {
  if (FOR_ONE.test(property) || OLD.test(value) || ELSEWHERE.test(property)) return false;
  if (ELSEWHERE_VALUE.test(value) || value === '') return false;
  return !block.some((one) => one.offset !== offset && one.property === property);
}
