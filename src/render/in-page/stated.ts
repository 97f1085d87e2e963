import { flatMap } from '../../core/lists.js';

/**
 * The width as the cascade left it; '' where an engine does not tell of that. To ask for it takes some pages down:
 * those are looked at with care, and then it is the width that is written for an element.
 */
export function getStatedWidth(node: Element): string {
  return globalThis.mivketNotebook.careful ? findWritten(node) : getStatedLength(node, 'width');
}

/** The same of any length, of pages that it does not take down; '' where it cannot be asked. */
export function getStatedLength(node: Element, property: string): string {
  if (globalThis.mivketNotebook.careful) return '';
  const { computedStyleMap } = node as Partial<Pick<Element, 'computedStyleMap'>>;
  return computedStyleMap?.call(node).get(property)?.toString() ?? '';
}

/** From now on nothing is asked of the page that a browser is known to break down on. */
export function takeCare(): void {
  globalThis.mivketNotebook.careful = true;
}

interface Written {
  selector: string;
  width: string;
}

/** In a window of this width, px. */
let written: { width: number; all: Written[] } | null = null;

function findWritten(node: Element): string {
  const own = getWidth((node as Partial<ElementCSSInlineStyle>).style);
  if (own) return own;
  if (written?.width !== innerWidth) written = { width: innerWidth, all: listWritten() };
  const rule = written.all.findLast(({ selector }) => node.matches(selector));
  if (rule) return rule.width;
  const attribute = /^\d+(\.\d+)?%?$/.exec(node.getAttribute('width') ?? '')?.[0];
  if (attribute === undefined) return 'auto';
  return attribute.endsWith('%') ? attribute : `${attribute}px`;
}

/** The rules that hold in this window and state a width, as far as they can be read. */
function listWritten(): Written[] {
  return flatMap(document.styleSheets, (sheet) => {
    try {
      return listOf(sheet.cssRules);
    } catch {
      return []; // Another site's.
    }
  });
}

function listOf(rules: CSSRuleList): Written[] {
  return flatMap(rules, (rule): Written[] => {
    if (rule instanceof CSSMediaRule && !matchMedia(rule.conditionText).matches) return [];
    if (rule instanceof CSSGroupingRule) return listOf(rule.cssRules);
    if (!(rule instanceof CSSStyleRule)) return [];
    const width = getWidth(rule.style);
    return width ? [{ selector: rule.selectorText, width }] : [];
  });
}

function getWidth(style: CSSStyleDeclaration | undefined): string {
  return style?.getPropertyValue('width') || style?.getPropertyValue('inline-size') || '';
}
