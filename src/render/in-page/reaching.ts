import { flatMap, mapPresent } from '../../core/lists.js';
import { SLOT_ATTRIBUTE } from '../../core/host/slot-attribute.js';
import { withRule } from './trial/scene.js';

/** What a rule of the page's makes of the first of the elements that it changes. */
export interface RawReach {
  id: number;
  tag: string;
  rule: string;
  elements: number;
  changes: { what: (typeof LOOKS)[number]; with: string; without: string }[];
}

const LOOKS = ['width', 'height', 'color', 'background-color', 'display'] as const;
type Look = Record<(typeof LOOKS)[number], string>;

/** So many rules are taken away, of so many elements each is looked at, and for so long, ms. */
const MOST_RULES = 80;
const MOST_ELEMENTS = 30;
const LONGEST = 1500;
const LONGEST_SELECTOR = 200;

/** The page's own rules that are for some of these elements and change them; each is put back. */
export function findReaching(ids: readonly number[]): RawReach[] {
  const { nodes } = globalThis.mivketNotebook;
  const own = mapPresent(ids, (id) => nodes.get(id));
  const end = performance.now() + LONGEST;
  return withRule(`${STILL} ${keepBar()}`, () =>
    flatMap(listHostRules(new Set(own)), (rule): RawReach[] => {
      if (performance.now() > end) return [];
      const found = own.filter((one) => matches(one, rule.selectorText)).slice(0, MOST_ELEMENTS);
      return found.length > 0 ? tryWithout(rule, found) : [];
    }),
  ).slice(0, MOST_RULES);
}

const STILL = '*, *::before, *::after { transition: none !important; }';

/** Without a rule the page may be as low as the window: that its scroll bar goes then is no change of the element's. */
function keepBar(): string {
  const { clientWidth } = globalThis.mivketNotebook.page.documentElement;
  return `html { overflow-y: ${clientWidth < innerWidth ? 'scroll' : 'hidden'} !important; }`;
}

function matches(element: Element, selector: string): boolean {
  try {
    return element.getRootNode() === document && element.matches(selector);
  } catch {
    return false;
  }
}

function tryWithout(rule: CSSStyleRule, elements: readonly Element[]): RawReach[] {
  const { idOf, own } = globalThis.mivketNotebook;
  const before = elements.map(look);
  const { cssText } = rule.style;
  rule.style.cssText = '';
  const after = elements.map(look);
  // The whole of it: one property at a time loses shorthands and their order.
  rule.style.cssText = cssText;
  const changed = flatMap(elements, (element, i) => {
    const changes = LOOKS.filter((what) => before[i]![what] !== after[i]![what]);
    const told = changes.map((what) => ({
      what,
      with: before[i]![what],
      without: after[i]![what],
    }));
    return told.length > 0 ? [{ element, told }] : [];
  });
  const [first] = changed;
  if (!first) return [];
  return [
    {
      id: idOf(first.element),
      tag: own(first.element).localName,
      rule: rule.selectorText.slice(0, LONGEST_SELECTOR),
      elements: changed.length,
      changes: first.told,
    },
  ];
}

function look(element: Element): Look {
  const { width, height } = globalThis.mivketNotebook.own(element).getBoundingClientRect();
  const { color, backgroundColor, display } = getComputedStyle(element);
  const px = (size: number) => `${Math.round(size)} px`;
  return {
    width: px(width),
    height: px(height),
    color,
    'background-color': backgroundColor,
    display,
  };
}

/** Those of sheets that neither the snippet brought along nor the browser keeps to itself. */
function listHostRules(own: ReadonlySet<Element>): CSSStyleRule[] {
  const { page } = globalThis.mivketNotebook;
  const slots = [...page.querySelectorAll(`[${SLOT_ATTRIBUTE}]`)];
  const sheets = [...page.styleSheets].filter(({ ownerNode }) => {
    const node = ownerNode instanceof Element ? ownerNode : null;
    return node === null || !(own.has(node) || slots.some((slot) => slot.contains(node)));
  });
  return flatMap(sheets, (sheet) => listRules(sheet));
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
