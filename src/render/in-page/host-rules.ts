import { flatMap } from '../../core/lists.js';
import { SLOT_ATTRIBUTE } from '../../core/host/slot-attribute.js';
import { squeeze } from '../../core/words/squeeze.js';

/** A rule of a style sheet that holds in this window. */
export interface SheetRule {
  rule: CSSStyleRule;
  /** By what its sheet is known. */
  sheet: string;
}

/** As much of a sheet's text tells it from others. */
const LONGEST = 120;

/** The rules of sheets that stand in a slot, and those of all others; none that the browser keeps to itself. */
export function splitRules(own: ReadonlySet<Element>): { own: SheetRule[]; host: SheetRule[] } {
  const { page } = globalThis.mivketNotebook;
  const slots = [...page.querySelectorAll(`[${SLOT_ATTRIBUTE}]`)];
  const isOwn = ({ ownerNode }: CSSStyleSheet) =>
    ownerNode instanceof Element &&
    (own.has(ownerNode) || slots.some((slot) => slot.contains(ownerNode)));
  const list = (sheets: readonly CSSStyleSheet[]) =>
    flatMap(sheets, (sheet) => {
      const name = nameSheet(sheet);
      return listRules(sheet).map((rule) => ({ rule, sheet: name }));
    });
  const all = [...page.styleSheets];
  return {
    own: list(all.filter(isOwn)),
    host: list(all.filter((sheet) => !isOwn(sheet))),
  };
}

/** By what each sheet of the page is known: where nothing stands in the slots, all of them are the page's own. */
export function listSheets(): string[] {
  return [...globalThis.mivketNotebook.page.styleSheets].map(nameSheet);
}

function nameSheet({ href, ownerNode }: CSSStyleSheet): string {
  const text = ownerNode?.textContent ?? '';
  return href ?? `${text.length} ${squeeze(text).slice(0, LONGEST)}`;
}

function listRules(sheet: Pick<CSSStyleSheet, 'cssRules'>): CSSStyleRule[] {
  try {
    return flatMap([...sheet.cssRules], (rule): CSSStyleRule[] => {
      if (rule instanceof CSSStyleRule) return [rule];
      if (rule instanceof CSSImportRule) return rule.styleSheet ? listRules(rule.styleSheet) : [];
      if (rule instanceof CSSMediaRule && !matchMedia(rule.media.mediaText).matches) return [];
      return rule instanceof CSSGroupingRule ? listRules(rule) : [];
    });
  } catch {
    // Sheets of other origins do not show their rules.
    return [];
  }
}

/** Whether a selector fits an element of the page; what no selector of this browser's is fits nothing. */
export function fits(element: Element, selector: string): boolean {
  try {
    return element.getRootNode() === document && element.matches(selector);
  } catch {
    return false;
  }
}
