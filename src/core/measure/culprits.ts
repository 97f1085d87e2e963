import type { ElementFact } from '../evidence.js';
import { REPLACED } from '../standards/elements.js';

/** By how many px an element may stick out without being told. */
export const TOLERANCE = 1;
const MOST = 5;

/** An element to blame, and how far it reaches beyond the edge, px. */
export interface Overhanging {
  element: ElementFact;
  overhang: number;
  /** What sticks out: the box itself, or only what it paints (long words, generated boxes). */
  by: 'box' | 'ink';
}

export interface CulpritWish {
  /** The edge that must not be crossed, page px. */
  left: number;
  right: number;
  direction: 'ltr' | 'rtl';
  /** Only where a visitor sees something stick out: a painted box, or text with the room it has. */
  shownOnly: boolean;
}

/**
 * The elements that make something too wide: not those that merely hold them, nor those that only
 * fill a too wide parent. Farthest first.
 */
export function findCulprits(elements: readonly ElementFact[], wish: CulpritWish): Overhanging[] {
  const family = new Family(elements);
  const reach = (element: ElementFact) => getReach(element, wish);
  const seen = wish.shownOnly
    ? family.listAround(elements.filter((one) => isSeen(one, wish)))
    : null;
  let sticking = elements.filter(
    (element) =>
      !element.clipped &&
      (seen === null || (element.shown && seen.has(element.id))) &&
      element.box.width + element.box.height > 0 &&
      reach(element) > TOLERANCE &&
      !family.isFixed(element),
  );
  const culprits: Overhanging[] = [];
  while (sticking.length > 0 && culprits.length < MOST) {
    const most = Math.max(...sticking.map(reach));
    const farthest = sticking.filter((one) => reach(one) >= most - TOLERANCE);
    const found = descend(family.getOutermost(farthest), sticking, family);
    const line = listLine(found, sticking);
    // Several pieces of one line stick out because the line does: its block is to blame.
    const element = line.length > 1 ? (family.getParent(found) ?? found) : found;
    const byBox = getBoxReach(element, wish) > TOLERANCE;
    culprits.push({
      element,
      overhang: Math.max(reach(element), reach(found)),
      by: byBox ? 'box' : 'ink',
    });
    sticking = sticking.filter(
      (one) =>
        !line.includes(one) &&
        !family.isWithin(one, element) &&
        !family.isWithin(element, one) &&
        !isInRow(one, element, family, wish),
    );
  }
  return culprits.filter((one) => !isPushed(one, culprits, family, wish));
}

/** Whether it stands in one row with another, and would fit alone: it is the row that is too wide. */
function isInRow(
  one: ElementFact,
  beside: ElementFact,
  family: Family,
  { left, right }: CulpritWish,
): boolean {
  const parent = family.getParent(beside);
  const row = one.parent === beside.parent && parent !== null && /flex/.test(parent.style.display);
  return row && one.box.width <= right - left;
}

/** Pushed out by what stands beside it, and is too wide by itself. */
function isPushed(
  { element }: Overhanging,
  culprits: readonly Overhanging[],
  family: Family,
  { left, right }: CulpritWish,
): boolean {
  const parent = family.getParent(element);
  const isTooWide = ({ box }: ElementFact) => box.width > right - left;
  if (!parent || !/(flex|grid)/.test(parent.style.display) || isTooWide(element)) return false;
  return culprits.some((one) => one.element.parent === parent.id && isTooWide(one.element));
}

/** An inline element and those beside it that stick out too; replaced elements stand for themselves. */
function listLine(element: ElementFact, sticking: readonly ElementFact[]): ElementFact[] {
  const isPiece = ({ style, tag }: ElementFact) => style.display === 'inline' && !REPLACED.has(tag);
  if (!isPiece(element)) return [];
  return sticking.filter((one) => one.parent === element.parent && isPiece(one));
}

/** How much of an element's width one inside must take up to be the cause of it. */
const MOST_OF_IT = 0.9;

/** From an element that is as wide as its content, down to the one whose own size it is. */
function descend(from: ElementFact, sticking: readonly ElementFact[], family: Family): ElementFact {
  const ids = new Set(sticking.map(({ id }) => id));
  const getInner = (of: ElementFact) =>
    sticking.find(
      (one) => family.getNearest(one, ids) === of.id && one.box.width >= of.box.width * MOST_OF_IT,
    );
  let element = from;
  for (
    let next = getInner(element);
    next && !sizesItself(element, family);
    next = getInner(element)
  )
    element = next;
  // Rows are as wide as their table.
  while (/^table-(row|header|footer)/.test(element.style.display)) {
    const parent = family.getParent(element);
    if (!parent) break;
    element = parent;
  }
  return element;
}

/** Whether an element's width is its own doing: stated, or the room of its parent, not that of its content. */
function sizesItself(element: ElementFact, family: Family): boolean {
  const { width, minWidth, display, position, float } = element.style;
  if (!/^(auto|(min|max|fit)-content|)$/.test(width)) return true;
  const least = parseFloat(minWidth);
  if (least > 0 && (minWidth.endsWith('%') || Math.abs(element.box.width - least) <= TOLERANCE))
    return true;
  const byContent =
    /^(inline|table|contents|ruby)/.test(display) ||
    float !== 'none' ||
    /^(absolute|fixed)$/.test(position);
  const parent = family.getParent(element);
  const item = parent !== null && /(flex|grid)/.test(parent.style.display);
  return !byContent && !item;
}

/** Whether something of its own that can be seen sticks out: not the mere box of what holds others. */
function isSeen(element: ElementFact, wish: CulpritWish): boolean {
  return element.shown && !element.clipped && getInkReach(element, wish) > TOLERANCE;
}

function getInkReach({ inkLeft, inkRight }: ElementFact, wish: CulpritWish): number {
  return wish.direction === 'rtl' ? wish.left - inkLeft : inkRight - wish.right;
}

function getReach(element: ElementFact, wish: CulpritWish): number {
  const reach = Math.max(getInkReach(element, wish), getBoxReach(element, wish));
  return Math.round(reach * 100) / 100;
}

function getBoxReach({ box }: ElementFact, wish: CulpritWish): number {
  return wish.direction === 'rtl' ? wish.left - box.x : box.x + box.width - wish.right;
}

/** Who stands in whom. */
class Family {
  #byId: Map<number, ElementFact>;

  constructor(elements: readonly ElementFact[]) {
    this.#byId = new Map(elements.map((element) => [element.id, element]));
  }

  getParent(element: ElementFact): ElementFact | null {
    return element.parent === null ? null : (this.#byId.get(element.parent) ?? null);
  }

  *#ancestors(element: ElementFact): Generator<ElementFact> {
    for (let at = this.getParent(element); at; at = this.getParent(at)) yield at;
  }

  /** The nearest ancestor among `ids`. */
  getNearest(element: ElementFact, ids: ReadonlySet<number>): number | null {
    for (const ancestor of this.#ancestors(element)) if (ids.has(ancestor.id)) return ancestor.id;
    return null;
  }

  /** These, and all that they stand in, by id. */
  listAround(elements: readonly ElementFact[]): Set<number> {
    const ids = new Set<number>();
    for (const element of elements) {
      ids.add(element.id);
      for (const around of this.#ancestors(element)) ids.add(around.id);
    }
    return ids;
  }

  /** The first of these that stands in none of the others. */
  getOutermost(elements: readonly ElementFact[]): ElementFact {
    const ids = new Set(elements.map(({ id }) => id));
    return elements.find((one) => this.getNearest(one, ids) === null) ?? elements[0]!;
  }

  isWithin(element: ElementFact, outer: ElementFact): boolean {
    return element === outer || this.getNearest(element, new Set([outer.id])) !== null;
  }

  /** What is fixed to the window neither widens the page nor stands in its slot. */
  isFixed(element: ElementFact): boolean {
    if (element.style.position === 'fixed') return true;
    for (const ancestor of this.#ancestors(element))
      if (ancestor.style.position === 'fixed') return true;
    return false;
  }
}
