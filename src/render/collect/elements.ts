import type { Box, ElementStyle, PageWidth, SlotFact } from '../../core/evidence.js';

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
  clipped: boolean;
  style: ElementStyle;
  look: string;
}

export interface RawPage {
  width: PageWidth;
  direction: 'ltr' | 'rtl';
  slot: SlotFact | null;
  /** Signatures of all elements put into the document, in order. */
  order: string[];
  elements: RawElement[];
  total: number;
}

/**
 * Reads width, slot and all elements. Runs in the isolated world; reads only.
 * @param wish `detail`: also what text and generated boxes paint beyond an element's box.
 */
export function readPage(wish: {
  slot: string;
  slotAttribute: string;
  cap: number;
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
  const positions = new Map(book.order.map((entry, i) => [entry.node, i]));
  const elements: RawElement[] = [];
  let total = 0;

  // Only where content is known to stick out: asking for each text's boxes is dear.
  const inkOf = (node: Element, r: DOMRect): { inkLeft: number; inkRight: number } => {
    let left = r.left;
    let right = r.right;
    if (wish.detail && r.width + r.height > 0) {
      const range = page.createRange();
      for (const child of book.own(node).childNodes) {
        if (child.nodeType !== Node.TEXT_NODE || !child.nodeValue?.trim()) continue;
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

  const readOne = (node: Element, parent: Element | null, clipped: boolean, hidden: boolean) => {
    const style = getComputedStyle(node);
    const own = book.own(node);
    const rect = own.getBoundingClientRect();
    const map = own.computedStyleMap();
    // What is fixed to the window escapes its ancestors' clipping.
    const isClipped = clipped && style.position !== 'fixed';
    const gone = hidden || style.display === 'none';
    const faint = style.visibility !== 'visible' || Number(style.opacity) === 0;
    elements.push({
      id: book.idOf(node),
      parent: parent ? book.idOf(parent) : null,
      tag: own.localName,
      order: positions.get(node) ?? null,
      name: own.id,
      box: boxOf(rect),
      ...inkOf(node, rect),
      shown: !gone && !faint,
      clipped: isClipped,
      style: {
        display: style.display,
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
    const scrolls = node !== root && node !== page.body && cuts(style.overflowX);
    return { clipped: isClipped || scrolls, hidden: gone };
  };
  // A stack of our own: a page may be deeper than calls can go.
  const waiting: { node: Element; parent: Element | null; clipped: boolean; hidden: boolean }[] = [
    { node: root, parent: null, clipped: false, hidden: false },
  ];
  for (let next = waiting.pop(); next; next = waiting.pop()) {
    total++;
    if (elements.length >= wish.cap) continue;
    const { node } = next;
    const inside = readOne(node, next.parent, next.clipped, next.hidden);
    for (const child of book.childrenOf(node).reverse())
      waiting.push({ node: child, parent: node, ...inside });
  }

  const slotNode = page.querySelector(`[${wish.slotAttribute}="${CSS.escape(wish.slot)}"]`);
  const readSlot = (real: Element): SlotFact => {
    const style = getComputedStyle(real);
    const node = book.own(real);
    const border = boxOf(node.getBoundingClientRect());
    const edge = (side: string) =>
      parseFloat(style.getPropertyValue(`padding-${side}`)) +
      parseFloat(style.getPropertyValue(`border-${side}-width`));
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
    slot: slotNode ? readSlot(slotNode) : null,
    order: book.order.map((entry) => entry.signature),
    elements,
    total,
  };
}
