import type { Box, ElementStyle, PageWidth, SlotFact } from '../../core/evidence.js';
import type { Inserted } from '../../core/markup/match.js';

/** An element as read in the page, before it is known whose it is. */
export interface RawElement {
  id: number;
  parent: number | null;
  tag: string;
  /** Its place in the order of insertion; null for what came in with a larger piece. */
  order: number | null;
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
}

export interface RawPage {
  width: PageWidth;
  direction: 'ltr' | 'rtl';
  slot: SlotFact | null;
  /** All elements put into the document, in order. */
  order: Inserted[];
  /** There were more than the order holds: of some it is not known whose they are. */
  unplaced: boolean;
  elements: RawElement[];
  total: number;
  /** Something stands in the slot that can be seen. */
  shows: boolean;
  /** The box of something in the slot leaves it, to either side. */
  strays: boolean;
}

/**
 * Reads width, slot and all elements. Runs in the isolated world; reads only.
 * @param wish `detail`: also what text and generated boxes paint beyond an element's box.
 */
export function readPage(wish: {
  slot: string;
  slotAttribute: string;
  cap: number;
  /** Elements that never show anything themselves. */
  unseen: readonly string[];
  detail: boolean;
}): RawPage {
  const book = globalThis.mivketNotebook;
  book.takeRecords();
  const { page } = book;
  const root = page.documentElement;
  const scroller = page.scrollingElement ?? root;
  const round = (n: number) => Math.round(n * 100) / 100;
  const boxOf = (r: DOMRect): Box => ({
    x: round(r.left + window.scrollX),
    y: round(r.top + window.scrollY),
    width: round(r.width),
    height: round(r.height),
  });
  const positions = new Map<Node, number>(book.order.map((entry, i) => [entry.node, i]));
  const elements: RawElement[] = [];
  let total = 0;

  const slotNode = page.querySelector(`[${wish.slotAttribute}="${CSS.escape(wish.slot)}"]`);
  const edgeOf = (style: CSSStyleDeclaration, side: string) =>
    parseFloat(style.getPropertyValue(`padding-${side}`)) +
    parseFloat(style.getPropertyValue(`border-${side}-width`));
  const readSlot = (real: Element): SlotFact => {
    const style = getComputedStyle(real);
    const node = book.own(real);
    const border = boxOf(node.getBoundingClientRect());
    const edge = (side: string) => edgeOf(style, side);
    return {
      name: wish.slot,
      overhang: Math.max(0, node.scrollWidth - node.clientWidth),
      text: Array.from(node.childNodes).some((child) => {
        if (child.nodeType !== Node.TEXT_NODE || !child.nodeValue?.trim()) return false;
        const range = page.createRange();
        range.selectNodeContents(child);
        return range.getBoundingClientRect().width > 0;
      }),
      box: {
        x: round(border.x + edge('left')),
        y: round(border.y + edge('top')),
        width: round(border.width - edge('left') - edge('right')),
        height: round(border.height - edge('top') - edge('bottom')),
      },
    };
  };
  const slot = slotNode ? readSlot(slotNode) : null;
  let shows = slot?.text ?? false;
  let strays = false;

  const FILLED =
    /^(img|iframe|video|audio|embed|object|canvas|svg|input|textarea|select|button|hr|meter|progress)$/;
  const isClear = (colour: string) => /^transparent$|, 0\)$|\/ 0\)$/.test(colour);
  const paints = (node: Element, style: CSSStyleDeclaration) =>
    FILLED.test(book.own(node).localName) ||
    !isClear(style.backgroundColor) ||
    style.backgroundImage !== 'none' ||
    style.boxShadow !== 'none' ||
    style.outlineStyle !== 'none' ||
    ['top', 'right', 'bottom', 'left'].some(
      (side) =>
        parseFloat(style.getPropertyValue(`border-${side}-width`)) > 0 &&
        !isClear(style.getPropertyValue(`border-${side}-color`)),
    );
  // From where to where something shows: what is painted, and the room of its text. Asked for only
  // where content is known to stick out: each text's boxes are dear.
  const inkOf = (node: Element, r: DOMRect, style: CSSStyleDeclaration) => {
    const whole = !wish.detail || paints(node, style);
    let [left, right] = whole ? [r.left, r.right] : [r.right, r.left];
    if (wish.detail && r.width + r.height > 0) {
      const range = page.createRange();
      for (const child of book.own(node).childNodes) {
        if (child.nodeType !== Node.TEXT_NODE || !child.nodeValue?.trim()) continue;
        if (style.display !== 'inline') {
          left = Math.min(left, r.left + edgeOf(style, 'left'));
          right = Math.max(right, r.right - edgeOf(style, 'right'));
        }
        range.selectNodeContents(child);
        for (const piece of range.getClientRects()) {
          left = Math.min(left, piece.left);
          right = Math.max(right, piece.right);
        }
      }
    }
    return { inkLeft: round(left + window.scrollX), inkRight: round(right + window.scrollX) };
  };
  const valueOf = (map: StylePropertyMapReadOnly, name: string) => map.get(name)?.toString() ?? '';
  const cuts = (value: string) => value !== 'visible';

  /** What holds for all that stands in an element. */
  interface Inside {
    clipped: boolean;
    /** No box at all. */
    gone: boolean;
    /** Not painted: wholly transparent, or in a part that is closed. */
    unseen: boolean;
    inSlot: boolean;
  }
  const look = (tag: string, box: Box, shown: boolean) => {
    if (!slot || !shown || wish.unseen.includes(tag) || box.width + box.height === 0) return;
    shows ||= box.width > 0 && box.height > 0;
    strays ||= box.x < slot.box.x - 1 || box.x + box.width > slot.box.x + slot.box.width + 1;
  };
  const readOne = (node: Element, parent: Element | null, around: Inside): Inside => {
    const style = getComputedStyle(node);
    const own = book.own(node);
    const rect = own.getBoundingClientRect();
    const map = own.computedStyleMap();
    const { display, visibility } = style;
    // What is fixed to the window escapes its ancestors' clipping.
    const isClipped = around.clipped && style.position !== 'fixed';
    const gone = around.gone || display === 'none';
    const closed =
      style.contentVisibility === 'hidden' || (display !== 'contents' && !own.checkVisibility());
    const unseen = around.unseen || Number(style.opacity) === 0 || (!gone && closed);
    const shown = !gone && !unseen && visibility === 'visible';
    const box = boxOf(rect);
    if (around.inSlot) look(own.localName, box, shown);
    elements.push({
      id: book.idOf(node),
      parent: parent ? book.idOf(parent) : null,
      tag: own.localName,
      order: positions.get(node) ?? null,
      name: own.id,
      box,
      ...inkOf(node, rect, style),
      shown,
      exposed: !gone && visibility === 'visible',
      clipped: isClipped,
      style: {
        display,
        position: style.position,
        float: style.cssFloat,
        width: valueOf(map, 'width'),
        minWidth: valueOf(map, 'min-width'),
        maxWidth: valueOf(map, 'max-width'),
        overflowX: style.overflowX,
      },
      look: [
        style.color,
        style.backgroundColor,
        style.fontFamily,
        style.fontSize,
        style.fontWeight,
      ].join(';'),
    });
    const contains =
      display !== 'inline' &&
      (/paint|strict|content/.test(style.contain) || style.contentVisibility === 'auto');
    const cut = node !== root && node !== page.body && (cuts(style.overflowX) || contains);
    const inSlot = around.inSlot || node === slotNode;
    return { clipped: isClipped || cut, gone, unseen, inSlot };
  };
  // A stack of our own: a page may be deeper than calls can go.
  const nowhere = { clipped: false, gone: false, unseen: false, inSlot: false };
  const waiting: { node: Element; parent: Element | null; around: Inside }[] = [
    { node: root, parent: null, around: nowhere },
  ];
  for (let next = waiting.pop(); next; next = waiting.pop()) {
    total++;
    if (elements.length >= wish.cap) continue;
    const { node } = next;
    const around = readOne(node, next.parent, next.around);
    for (const child of book.childrenOf(node).reverse())
      waiting.push({ node: child, parent: node, around });
  }
  const stops = (node: Element | null) =>
    node !== null && /^(hidden|clip)$/.test(getComputedStyle(node).overflowX);
  // The body's overflow is the window's where the root's own is visible (CSS Overflow 3, 3.3).
  const rootCuts = cuts(getComputedStyle(root).overflowX);
  return {
    width: {
      scrollWidth: scroller.scrollWidth,
      clientWidth: root.clientWidth,
      scrollable: !(stops(root) || (!rootCuts && stops(page.body))),
    },
    direction: getComputedStyle(page.body ?? root).direction === 'rtl' ? 'rtl' : 'ltr',
    slot,
    order: book.order.map(({ signature, parent }) => ({
      signature,
      parent: positions.get(parent) ?? -1,
    })),
    unplaced: book.full,
    elements,
    total,
    shows,
    strays,
  };
}
