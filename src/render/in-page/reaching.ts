import { flatMap, mapPresent } from '../../core/lists.js';
import type { ReachFact } from '../../facts/reaching/fact.js';
import { findHarms, isOver, SPOT, type Breakage } from './breaking.js';
import { beginColours } from './colours.js';
import { fits, splitRules, type SheetRule } from './host-rules.js';
import { findSharedName } from './shared-names.js';
import { findSlotAround } from './slots.js';
import { withRule } from './trial/scene.js';

/** What a rule of the page's does to the first of the elements that it changes. */
export type RawReach = Pick<
  ReachFact,
  'id' | 'tag' | 'rule' | 'sheet' | 'way' | 'name' | 'elements' | 'changes'
>;

const LOOKS = ['width', 'height', 'color', 'background-color', 'display'] as const;
type Look = Record<(typeof LOOKS)[number], string>;
type Change = ReachFact['changes'][number];

/** What a rule does to one element. */
interface Reached extends Pick<RawReach, 'way' | 'name' | 'changes'> {
  element: Element;
}

/** So many rules are told of, of so many elements each is looked at, of so many what is broken, and for so long, ms. */
const MOST_RULES = 80;
const MOST_ELEMENTS = 30;
const MOST_LOOKED_AT = 300;
const MOST_HARMED = 30;
const LONGEST = 1500;
const LONGEST_SELECTOR = 200;

/** Pictures that their attributes give a size, which a page may outdo. */
const SIZED = 'img[width], input[type="image"][width], svg[width], canvas[width]';

/**
 * The page's own rules that make some of these elements otherwise than they were made to be: by a name that both use,
 * by outdoing what the snippet states, or by breaking something. Each is taken away for a moment, and put back.
 */
export function findReaching(ids: readonly number[]): RawReach[] {
  const { nodes } = globalThis.mivketNotebook;
  const own = mapPresent(ids, (id) => nodes.get(id));
  const end = performance.now() + LONGEST;
  beginColours();
  return withRule(`${STILL} ${keepBar()}`, () => {
    const all = new Set(own);
    const rules = splitRules(all);
    const scene: Scene = { own: all, rules: rules.own, harmed: listHarmed(own) };
    return flatMap(rules.host, (rule): RawReach[] => {
      if (performance.now() > end) return [];
      const found = own.filter((one) => fits(one, rule.rule.selectorText)).slice(0, MOST_ELEMENTS);
      return found.length > 0 ? tell(rule, tryWithout(rule, found, scene)) : [];
    });
  }).slice(0, MOST_RULES);
}

/** The snippet: its elements, its rules, and what of it is broken as it stands. */
interface Scene {
  own: ReadonlySet<Element>;
  rules: readonly SheetRule[];
  harmed: readonly Harmed[];
}

interface Harmed {
  element: Element;
  slot: Element;
  harms: readonly Breakage[];
}

function listHarmed(own: readonly Element[]): Harmed[] {
  return mapPresent(own.slice(0, MOST_LOOKED_AT), (element) => {
    const slot = findSlotAround(element);
    if (!slot) return null;
    const harms = findHarms(element, slot);
    return harms.length > 0 ? { element, slot, harms } : null;
  }).slice(0, MOST_HARMED);
}

const STILL = '*, *::before, *::after { transition: none !important; }';

/** Without a rule the page may be as low as the window: that its scroll bar goes then is no change of the element's. */
function keepBar(): string {
  const { clientWidth } = globalThis.mivketNotebook.page.documentElement;
  return `html { overflow-y: ${clientWidth < innerWidth ? 'scroll' : 'hidden'} !important; }`;
}

function tell({ rule, sheet }: SheetRule, reached: readonly Reached[]): RawReach[] {
  const { idOf, own } = globalThis.mivketNotebook;
  const [first] = reached;
  if (!first) return [];
  const { element, way, name, changes } = first;
  const selectors = rule.selectorText.slice(0, LONGEST_SELECTOR);
  const { size: elements } = new Set(reached.map((one) => one.element));
  const what = { rule: selectors, sheet, way, name, elements, changes };
  return [{ id: idOf(element), tag: own(element).localName, ...what }];
}

/** What is otherwise without a rule: of a name that both use first, then what it outdoes, then what it breaks. */
function tryWithout({ rule }: SheetRule, found: readonly Element[], scene: Scene): Reached[] {
  // How wide a box is reckoned is nobody's look.
  if ([...rule.style].every((property) => property === 'box-sizing')) return [];
  const shared = mapPresent(found, (element) => {
    const name = findSharedName(element, rule.selectorText, scene.own);
    return name === null ? null : { element, name };
  });
  const named = shared.map(({ element }) => look(element));
  const bare = without(rule, () => ({
    named: shared.map(({ element }) => look(element)),
    harms: scene.harmed.map((one) => one.harms.find((harm) => isOver(one.element, harm, one.slot))),
  }));
  const byName = flatMap(shared, ({ element, name }, i): Reached[] => {
    const changes = compare(named[i]!, bare.named[i]!);
    // A page's way to say something to those who listen alone is used on purpose.
    const spoken = parseFloat(named[i]!.width) <= SPOT && parseFloat(named[i]!.height) <= SPOT;
    return changes.length > 0 && !spoken ? [{ element, way: 'name', name, changes }] : [];
  });
  if (byName.length > 0) return byName;
  const outdone = flatMap(found, (element): Reached[] => {
    const changes = flatMap(listStated(element, rule, scene), (one) => tryProperty(element, one));
    return changes.length > 0 ? [{ element, way: 'stated', name: '', changes }] : [];
  });
  if (outdone.length > 0) return outdone;
  return flatMap(scene.harmed, ({ element }, i): Reached[] => {
    const way = bare.harms[i];
    return way ? [{ element, way, name: '', changes: [] }] : [];
  });
}

/** The rule's whole text is put back: one property at a time loses shorthands and their order. */
function without<T>({ style }: CSSStyleRule, act: () => T, property?: string): T {
  const { cssText } = style;
  if (property === undefined) style.cssText = '';
  else style.removeProperty(property);
  try {
    return act();
  } finally {
    style.cssText = cssText;
  }
}

/** A property that a rule of the page's and the snippet both state for an element. */
interface Stated {
  rule: CSSStyleRule;
  property: string;
}

function listStated(element: Element, rule: CSSStyleRule, { rules }: Scene): Stated[] {
  const own = mapPresent(rules, (one) =>
    fits(element, one.rule.selectorText) ? one.rule.style : null,
  );
  const { style } = element as Element & Partial<ElementCSSInlineStyle>;
  const stating = style ? [style, ...own] : own;
  const isStated = (property: string) =>
    property !== 'box-sizing' &&
    !property.startsWith('--') &&
    (stating.some((one) => one.getPropertyValue(property) !== '') ||
      (property === 'width' && element.matches(SIZED)));
  return [...rule.style].filter(isStated).map((property) => ({ rule, property }));
}

/** What the page makes of what the snippet states: nothing where the snippet has its way. */
function tryProperty(element: Element, { rule, property }: Stated): Change[] {
  const read = () => ({
    value: getComputedStyle(element).getPropertyValue(property),
    wide: element.getBoundingClientRect().width,
  });
  const now = read();
  const then = without(rule, read, property);
  if (now.value === then.value || isNear(now.value, then.value)) return [];
  // A picture is larger in its file's pixels than a page may let it be: only what is blown up is outdone.
  const byAttribute = property === 'width' && element.matches(SIZED);
  if (byAttribute && now.wide <= then.wide + 1) return [];
  return [{ what: property, with: now.value, without: then.value }];
}

function compare(now: Look, then: Look): Change[] {
  const changed = LOOKS.filter(
    (what) => now[what] !== then[what] && !isNear(now[what], then[what]),
  );
  return changed.map((what) => ({ what, with: now[what], without: then[what] }));
}

/** Two lengths that differ by a rounding. */
function isNear(a: string, b: string): boolean {
  const lengths = [a, b].every((one) => /^-?[\d.]+ ?px$/.test(one));
  return lengths && Math.abs(parseFloat(a) - parseFloat(b)) <= 1;
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
