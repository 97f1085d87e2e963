import type { Atrule, CssNode, Declaration, Rule, StyleSheet } from 'css-tree';
import parse from 'css-tree/parser';
import walk from 'css-tree/walker';
import { flatMap } from '../lists.js';
import { holdsAt } from './media.js';
import { matchesSelector } from './selectors.js';
import { getAttribute, type Markup, type MarkupElement } from './markup.js';
import type { Span } from '../snippet.js';

/** A declaration of the snippet's own CSS. */
export interface StyleDeclaration extends Span {
  property: string;
  value: string;
  /** The rule's selectors; null in a style attribute. */
  selector: string | null;
  important: boolean;
  /** It stands under a condition, as of `@media`. */
  inMedia: boolean;
  /** The condition, where that is one of `@media`. */
  media: string | null;
}

/**
 * The declaration of the snippet's CSS that sets one of these properties on an element: the style
 * attribute, else the last rule that matches. Null where the snippet's CSS does not set it.
 * @param width of the window, px: rules for others are left out
 */
export function findDeclaration(
  markup: Markup,
  element: MarkupElement,
  properties: readonly string[] | RegExp,
  width: number | null = null,
): StyleDeclaration | null {
  return listByWeight(markup, element, properties, width)[0] ?? null;
}

/** All declarations of these properties for an element that can count, the one that outdoes the others first. */
export function listByWeight(
  markup: Markup,
  element: MarkupElement,
  properties: readonly string[] | RegExp,
  width: number | null = null,
): StyleDeclaration[] {
  const { inline, ruled: all } = listDeclarations(markup, element, properties);
  const ruled = width === null ? all : all.filter((one) => appliesAt(one, width));
  // What is known to hold at this width counts like what stands under no condition.
  const holds = ({ inMedia, media }: StyleDeclaration) =>
    !inMedia || (width !== null && media !== null && holdsAt(media, width) === true);
  const weigh = (one: StyleDeclaration) => {
    if (one.important) return one.selector === null ? 4 : 3;
    if (one.selector === null) return 2;
    return holds(one) ? 1 : 0;
  };
  // Of two of one weight the later one counts.
  return [...ruled, ...inline].reverse().sort((a, b) => weigh(b) - weigh(a));
}

/** Whether a declaration can count in a window of a width, px. */
export function appliesAt({ media }: StyleDeclaration, width: number): boolean {
  return media === null || holdsAt(media, width) !== false;
}

/** All declarations of these properties for an element: of its style attribute, and of the rules that match. */
export function listDeclarations(
  markup: Markup,
  element: MarkupElement,
  properties: readonly string[] | RegExp,
): { inline: StyleDeclaration[]; ruled: StyleDeclaration[] } {
  const wanted = ({ property }: StyleDeclaration) =>
    properties instanceof RegExp ? properties.test(property) : properties.includes(property);
  return {
    inline: mayState(element, properties) ? readStyleAttribute(markup, element).filter(wanted) : [],
    ruled: mayRule(markup, properties)
      ? readStyles(markup).filter(
          (d) => wanted(d) && d.selector !== null && matchesSelector(element, d.selector),
        )
      : [],
  };
}

/** Whether a style element can set one of these properties: what does not even name it need not be parsed. */
function mayRule(markup: Markup, properties: readonly string[] | RegExp): boolean {
  if (properties instanceof RegExp) return true;
  const css = readAllCss(markup);
  return css.includes('\\') || properties.some((one) => css.includes(one));
}

const texts = new WeakMap<Markup, string>();

/** The text of all style elements, in lower case. */
export function readAllCss(markup: Markup): string {
  const known = texts.get(markup);
  if (known !== undefined) return known;
  const sheets = markup.elements.filter(({ name }) => name === 'style');
  const found = sheets.map((one) => getCss(markup, one).toLowerCase()).join('\n');
  texts.set(markup, found);
  return found;
}

/** Whether a style attribute can have one of these properties: what does not even name it need not be parsed. */
function mayState(element: MarkupElement, properties: readonly string[] | RegExp): boolean {
  const value = getAttribute(element, 'style')?.value.toLowerCase() ?? '';
  if (value === '' || properties instanceof RegExp) return value !== '';
  return value.includes('\\') || properties.some((one) => value.includes(one));
}

const cache = new WeakMap<Markup, StyleDeclaration[]>();

/** All declarations of the snippet's style elements, in source order. */
export function readStyles(markup: Markup): StyleDeclaration[] {
  let found = cache.get(markup);
  if (!found) {
    const sheets = markup.elements.filter((element) => element.name === 'style');
    cache.set(markup, (found = flatMap(sheets, (sheet) => readSheet(markup, sheet))));
  }
  return found;
}

/** The text of a style element, without its tags. */
export function getCss({ text }: Pick<Markup, 'text'>, sheet: MarkupElement): string {
  const end = text.toLowerCase().lastIndexOf('</style', sheet.endOffset);
  return text.slice(sheet.tagEnd, end >= sheet.tagEnd ? end : sheet.endOffset);
}

const trees = new WeakMap<MarkupElement, { css: string; tree: StyleSheet }>();

/** A style element as its text and as the tree of that. */
export function parseSheet(
  markup: Markup,
  sheet: MarkupElement,
): { css: string; tree: StyleSheet } {
  const known = trees.get(sheet);
  if (known) return known;
  const css = getCss(markup, sheet);
  const found = { css, tree: parseCss(css, 'stylesheet') as StyleSheet };
  trees.set(sheet, found);
  return found;
}

function readSheet(markup: Markup, sheet: MarkupElement): StyleDeclaration[] {
  const { css, tree } = parseSheet(markup, sheet);
  const found: StyleDeclaration[] = [];
  walk(tree, function (this: { rule: Rule | null; atrule: Atrule | null }, node: CssNode) {
    if (node.type !== 'Declaration' || !this.rule || !node.loc) return;
    const prelude = this.rule.prelude.loc;
    const selector = prelude ? css.slice(prelude.start.offset, prelude.end.offset) : '';
    found.push({
      ...toDeclaration(node, css, sheet.tagEnd),
      selector,
      inMedia: this.atrule !== null,
      media: getMedia(this.atrule, css),
    });
  });
  return found;
}

function getMedia(atrule: Atrule | null, css: string): string | null {
  const at = atrule?.name.toLowerCase() === 'media' ? atrule.prelude?.loc : null;
  return at ? css.slice(at.start.offset, at.end.offset) : null;
}

const attributes = new WeakMap<MarkupElement, StyleDeclaration[]>();

/** The declarations of an element's style attribute, in order. */
export function readStyleAttribute(markup: Markup, element: MarkupElement): StyleDeclaration[] {
  const found = attributes.get(element) ?? readAttribute(markup, element);
  attributes.set(element, found);
  return found;
}

function readAttribute(markup: Markup, element: MarkupElement): StyleDeclaration[] {
  const attribute = getAttribute(element, 'style');
  if (!attribute) return [];
  const written = markup.text.slice(attribute.offset, attribute.endOffset);
  const start = written.indexOf(attribute.value);
  // With character references in it the offsets no longer agree: point at the whole attribute.
  const exact = attribute.value !== '' && start >= 0;
  const found: StyleDeclaration[] = [];
  walk(parseCss(attribute.value, 'declarationList'), (node: CssNode) => {
    if (node.type !== 'Declaration' || !node.loc) return;
    const declaration = toDeclaration(node, attribute.value, attribute.offset + start);
    found.push({
      ...declaration,
      ...(!exact && { offset: attribute.offset, endOffset: attribute.endOffset }),
    });
  });
  return found;
}

function toDeclaration(node: Declaration, css: string, base: number): StyleDeclaration {
  const { start, end } = node.loc!;
  const value = node.value.loc;
  return {
    property: node.property.toLowerCase(),
    value: value ? css.slice(value.start.offset, value.end.offset).trim() : '',
    important: Boolean(node.important),
    selector: null,
    inMedia: false,
    media: null,
    offset: base + start.offset,
    endOffset: base + start.offset + css.slice(start.offset, end.offset).trimEnd().length,
  };
}

function parseCss(css: string, context: 'stylesheet' | 'declarationList'): CssNode {
  return parse(css, { context, positions: true, parseValue: false, onParseError: () => undefined });
}
