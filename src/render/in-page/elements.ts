import type { Box, ElementStyle } from '../../core/evidence.js';
import { flatMap } from '../../core/lists.js';
import { getInk } from './ink.js';
import type { Notebook } from './observe.js';
import { readSaid, SILENT, type Said } from './says.js';
import { toPageBox } from './shared.js';
import { getStatedWidth } from './stated.js';
import { clips } from './styles.js';
import { squeeze } from '../../core/words/squeeze.js';

/** An element as read in the page, before it is known whose it is. */
export interface RawElement {
  id: number;
  parent: number | null;
  tag: string;
  /** Its place in the order of insertion; null for what came in with a larger piece. */
  order: number | null;
  /** Its place among what was put in late, and the slot that it was put into; null for all else. */
  late: { slot: string; at: number } | null;
  /** Its id attribute; '' where it has none. */
  name: string;
  box: Box;
  inkLeft: number;
  inkRight: number;
  shown: boolean;
  exposed: boolean;
  clipped: boolean;
  style: ElementStyle;
  look: string;
  early: { left: number; right: number; animated: boolean } | null;
  /** Neither a style nor `inert` keeps clicks from it. */
  clickable: boolean;
  /** The first words of what people know by them, outside of slots; '' for all else. */
  words: string;
  /** What it says and where it leads, outside of slots. */
  said: Said;
  /** Which of the slots it stands in, by its place in the wish; null for none. */
  slot: number | null;
}

/** How elements are read. */
export interface ElementWish {
  /** So many are read at most. */
  cap: number;
  /** Also what text and generated boxes paint beyond an element's box. */
  detail: boolean;
  /** Only these are read, and no element whose parent is not; left out: all. */
  only?: ReadonlySet<Element>;
  /** The elements that are slots. */
  slots: readonly (Element | null)[];
}

/** What holds for all that stands in an element. */
interface Inside {
  parent: number | null;
  clipped: boolean;
  /** No box at all. */
  gone: boolean;
  /** Not painted: wholly transparent, or in a part that is closed. */
  unseen: boolean;
  inert: boolean;
  slot: number | null;
}

const NOWHERE: Inside = {
  parent: null,
  clipped: false,
  gone: false,
  unseen: false,
  inert: false,
  slot: null,
};

/** Reads all elements of the page, those of shadow roots too. */
export function readElements(wish: ElementWish): { elements: RawElement[]; total: number } {
  const book = globalThis.mivketNotebook;
  const positions = new Map<Node, number>(book.order.map((entry, i) => [entry.node, i]));
  const latecomers = listLate(book);
  const elements: RawElement[] = [];
  let total = 0;
  // A stack of our own: a page may be deeper than calls can go.
  const waiting: { node: Element; around: Inside }[] = [
    { node: book.page.documentElement, around: NOWHERE },
  ];
  for (let next = waiting.pop(); next; next = waiting.pop()) {
    total++;
    if (elements.length >= wish.cap) continue;
    const { node } = next;
    const style = getComputedStyle(node);
    const opened = wish.slots.indexOf(node);
    const element = readOne(node, style, next.around, wish, opened >= 0);
    const [order, late] = [positions.get(node) ?? null, latecomers.get(node) ?? null];
    elements.push({ ...element.fact, order, late });
    const slot = opened < 0 ? next.around.slot : opened;
    const around = { ...element.inside, slot };
    for (const child of book.childrenOf(node).reverse())
      if (wish.only?.has(child) ?? true) waiting.push({ node: child, around });
  }
  return { elements, total };
}

function listLate({ late }: Notebook): Map<Node, RawElement['late']> {
  const entries = flatMap(late, ([slot, noted]) =>
    noted.map(({ node }, at): [Node, RawElement['late']] => [node, { slot, at }]),
  );
  return new Map(entries);
}

function readOne(
  node: Element,
  style: CSSStyleDeclaration,
  around: Inside,
  { detail, only }: ElementWish,
  isSlot: boolean,
) {
  const { own, idOf, page } = globalThis.mivketNotebook;
  const bare = own(node);
  const rect = bare.getBoundingClientRect();
  const { display, visibility } = style;
  // What is fixed to the window escapes its ancestors' clipping.
  const clipped = around.clipped && style.position !== 'fixed';
  const gone = around.gone || display === 'none';
  const closed =
    style.contentVisibility === 'hidden' || (display !== 'contents' && !bare.checkVisibility());
  const unseen = around.unseen || Number(style.opacity) === 0 || (!gone && closed);
  const visible = !gone && visibility === 'visible';
  const inert = around.inert || bare.hasAttribute('inert');
  const id = idOf(node);
  const fact: Omit<RawElement, 'order' | 'late'> = {
    id,
    parent: around.parent,
    tag: bare.localName,
    name: bare.id,
    box: toPageBox(rect),
    ...getInk(node, rect, style, detail),
    shown: visible && !unseen,
    exposed: visible,
    clipped,
    style: readStyle(bare, style),
    look: around.slot === null ? getLook(style) : '',
    early: around.slot === null ? null : getEarly(id),
    clickable: !inert && style.pointerEvents !== 'none',
    words: around.slot === null && KNOWN_BY_WORDS.test(bare.localName) ? getWords(bare) : '',
    said: around.slot === null && !isSlot && !only ? readSaid(node) : SILENT,
    slot: around.slot,
  };
  const cut = node !== page.documentElement && node !== page.body && clips(style);
  const inside: Inside = { ...around, parent: id, clipped: clipped || cut, gone, unseen, inert };
  return { fact, inside };
}

function getEarly(id: number): RawElement['early'] {
  const { early } = globalThis.mivketNotebook;
  const ends = early?.ends.get(id);
  return early && ends ? { ...ends, animated: early.animated } : null;
}

const KNOWN_BY_WORDS = /^(h[1-6]|a|button|summary)$/;
const MOST_WORDS = 40;

function getWords({ textContent }: Element): string {
  const words = squeeze(textContent ?? '');
  return words.length > MOST_WORDS ? `${words.slice(0, MOST_WORDS - 1).trimEnd()}…` : words;
}

function readStyle(node: Element, style: CSSStyleDeclaration): ElementStyle {
  return {
    display: style.display,
    position: style.position,
    float: style.cssFloat,
    width: getStatedWidth(node),
    minWidth: style.minWidth,
    maxWidth: style.maxWidth,
    overflowX: style.overflowX,
  };
}

/** What changes how a box is painted with all that is in it, with what stands for "not at all". */
const PAINTING = [
  ['opacity', '1'],
  ['filter', 'none'],
  ['transform', 'none'],
  ['rotate', 'none'],
  ['scale', 'none'],
  ['translate', 'none'],
  ['clipPath', 'none'],
  ['maskImage', 'none'],
  ['mixBlendMode', 'normal'],
  ['zoom', '1'],
] as const;

/** How it looks, as far as host parts are compared by it. */
function getLook(style: CSSStyleDeclaration): string {
  const { color, backgroundColor, fontFamily, fontSize, fontWeight } = style;
  const plain = [color, backgroundColor, fontFamily, fontSize, fontWeight];
  const painted = PAINTING.filter(([name, usual]) => style[name] !== usual).map(
    ([name]) => `${name} ${style[name]}`,
  );
  return [...plain, ...painted].join(';');
}
