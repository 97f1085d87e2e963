import { flatMap } from '../lists.js';
import { listAround, listInside, type Markup, type MarkupElement } from '../markup/markup.js';
import { matchesSelector } from '../markup/selectors.js';
import { readStyleAttribute, readStyles } from '../markup/styles.js';
import type { Span } from '../snippet.js';

/** A declaration or attribute of the snippet's that may make something too wide. */
export interface Suspect extends Span {
  property: string;
  value: string;
  /** The tag that it stands on, by its offset; null in a sheet. */
  element: number | null;
  /** An attribute of its own, and not a declaration. */
  attribute: boolean;
  /** The rule's selectors, and when it holds; null on a tag. */
  rule: { selector: string; media: string | null } | null;
}

/** What changes no box. */
const NO_SIZE =
  /^(-\w+-)?(color|background|opacity|cursor|text-decoration|text-shadow|text-align|text-transform|outline|box-shadow|z-index|visibility|fill|stroke|filter|backdrop-filter|transition|pointer-events|user-select|accent-color|caret-color|will-change|border-radius|border(-\w+)?-color|box-sizing|overflow-wrap|word-wrap|object-fit|object-position|list-style|isolation|mix-blend-mode|scroll|--).*$/;
const SIZES =
  /^(width|height|size|cols|border|cellpadding|cellspacing|nowrap|hspace|align|dir|wrap)$/;
const MOST = 160;
const MOST_NEAR = 40;

/**
 * What may make elements too wide: on their own tags, on those around and inside, beside them, and in
 * the sheets. Nearest first.
 */
export function listSuspects(markup: Markup, near: readonly MarkupElement[]): Suspect[] {
  const around = listNear(near);
  const tags = flatMap(around, (element) => listOnTag(markup, element));
  const sheets = flatMap(readStyles(markup), (one): Suspect[] =>
    one.selector === null || NO_SIZE.test(one.property)
      ? []
      : [{ ...toSuspect(one), element: null, rule: { selector: one.selector, media: one.media } }],
  );
  const ruled = sheets.length > MOST ? putFittingFirst(sheets, around) : sheets;
  return [...tags.slice(0, MOST), ...ruled.slice(0, MOST)];
}

const GENERATED = /::?(before|after)\b/g;

/** Of very many rules those that are for what is near. */
function putFittingFirst(sheets: readonly Suspect[], near: readonly MarkupElement[]): Suspect[] {
  const some = near.slice(0, MOST_NEAR);
  const known = new Map<string, boolean>();
  const fits = ({ rule }: Suspect) => {
    const selector = rule!.selector.replace(GENERATED, '');
    const found = known.get(selector) ?? some.some((one) => matchesSelector(one, selector));
    known.set(selector, found);
    return found;
  };
  const fitting = new Set(sheets.filter(fits));
  return [...fitting, ...sheets.filter((one) => !fitting.has(one))];
}

function listNear(near: readonly MarkupElement[]): MarkupElement[] {
  const found = new Set<MarkupElement>(near);
  for (const one of near) for (const around of listAround(one)) found.add(around);
  for (const one of near) for (const inside of listInside(one)) found.add(inside);
  for (const one of near) for (const beside of one.parent?.children ?? []) found.add(beside);
  return [...found];
}

/** What stands on an element's own tag. */
export function listOnTag(markup: Markup, element: MarkupElement): Suspect[] {
  const on = { element: element.offset, rule: null };
  const declared = readStyleAttribute(markup, element).filter(
    ({ property }) => !NO_SIZE.test(property),
  );
  const sizes = element.attributes.filter(({ name }) => SIZES.test(name));
  return [
    ...declared.map((one) => ({ ...toSuspect(one), ...on })),
    ...sizes.map(({ name, value, offset, endOffset }) => ({
      property: name,
      value,
      offset,
      endOffset,
      attribute: true,
      ...on,
    })),
  ];
}

function toSuspect({
  property,
  value,
  offset,
  endOffset,
}: Span & { property: string; value: string }) {
  return { property, value, offset, endOffset, attribute: false };
}
