import type { Atrule, CssNode, Rule, StyleSheet } from 'css-tree';
import { parseSheet } from './styles.js';
import type { Span } from '../snippet.js';
import type { Markup, MarkupElement } from './markup.js';

/** A rule of a sheet, outside of all others. */
export interface TopRule extends Span {
  /** The name of an at-rule, in lower case; null for a style rule. */
  at: string | null;
  /** Whether it has a block, as `@layer x { … }` and not `@layer x;`. */
  block: boolean;
}

/** A style rule with its selectors, wherever it stands. */
export interface StyleRule {
  /** It sets custom properties and nothing else (CSS Custom Properties 1). */
  custom: boolean;
  /** It holds only inside of something of the snippet’s own (CSS Cascading 6, @scope). */
  scoped: boolean;
  /** Each selector of its list, as a tree and as written. */
  selectors: { node: CssNode; text: string; span: Span }[];
}

/** A style element as its rules. */
export interface Sheet {
  element: MarkupElement;
  top: TopRule[];
  rules: StyleRule[];
}

const cache = new WeakMap<Markup, Sheet[]>();

/** The style elements of a snippet. */
export function readSheets(markup: Markup): Sheet[] {
  let found = cache.get(markup);
  if (!found) {
    const sheets = markup.elements.filter(({ name }) => name === 'style');
    cache.set(markup, (found = sheets.map((one) => readSheet(markup, one))));
  }
  return found;
}

function readSheet(markup: Markup, element: MarkupElement): Sheet {
  const { css, tree } = parseSheet(markup, element);
  const toSpan = ({ loc }: CssNode): Span => ({
    offset: element.tagEnd + (loc?.start.offset ?? 0),
    endOffset: element.tagEnd + (loc?.end.offset ?? 0),
  });
  const sheet: Sheet = { element, top: [], rules: [] };
  tree.children.forEach((node) => {
    if (node.type !== 'Rule' && node.type !== 'Atrule') return;
    const at = node.type === 'Atrule' ? node.name.toLowerCase() : null;
    sheet.top.push({ ...toSpan(node), at, block: node.block !== null });
  });
  visit(tree, sheet, css, toSpan, false);
  return sheet;
}

/** Rules of the steps of an animation have no elements. */
const WITHOUT_ELEMENTS = /^(-\w+-)?keyframes$/i;

function visit(
  node: StyleSheet | Rule | Atrule,
  sheet: Sheet,
  css: string,
  toSpan: (node: CssNode) => Span,
  scoped: boolean,
): void {
  const inside = node.type === 'StyleSheet' ? node.children : node.block?.children;
  inside?.forEach((child) => {
    if (child.type === 'Atrule' && !WITHOUT_ELEMENTS.test(child.name))
      visit(child, sheet, css, toSpan, scoped || isOwnScope(child, css));
    // What is nested in a rule has that rule's elements around it.
    if (child.type !== 'Rule' || child.prelude.type !== 'SelectorList') return;
    const selectors = child.prelude.children.toArray().map((one) => ({
      node: one,
      span: toSpan(one),
      text: css.slice(one.loc?.start.offset ?? 0, one.loc?.end.offset ?? 0),
    }));
    sheet.rules.push({ selectors, custom: setsCustomOnly(child), scoped });
  });
}

/** Without a root it is what the sheet stands in; a root that has a name or an attribute is taken for the snippet’s. */
function isOwnScope({ name, prelude }: Atrule, css: string): boolean {
  if (name.toLowerCase() !== 'scope') return false;
  const root = prelude?.loc && css.slice(prelude.loc.start.offset, prelude.loc.end.offset);
  return !root || /^\s*\([^)]*[.#[]/.test(root);
}

function setsCustomOnly({ block }: Rule): boolean {
  const inside = block.children.toArray();
  return (
    inside.length > 0 &&
    inside.every((one) => one.type === 'Declaration' && one.property.startsWith('--'))
  );
}
