import { parse, type DefaultTreeAdapterTypes } from 'parse5';
import { flatMap } from '../lists.js';
import type { Slot, SlotRange } from '../house/house.js';
import { SLOT_ATTRIBUTE } from './slot-attribute.js';

/** The page around its slots, cut at each: `pieces` are one more than there are slots. */
export interface HostPage {
  pieces: readonly string[];
  /** The style of the neutral page, which no header of the house's is meant for; null of the house's own page. */
  css: string | null;
  /** The slots' names, in the order of the page. */
  slots: readonly string[];
}

/** A snippet in its place. */
export interface Placed {
  slot: string;
  text: string;
}

/** The slots that a house's own page marks, in source order. */
export function findSlots(page: string): string[] {
  return [...findMarked(page).keys()];
}

/**
 * The host page with these slots emptied: the house's own, or the neutral one.
 * Null where the page does not mark one of them.
 */
export function getHostPage(slots: readonly Slot[], own: string | null): HostPage | null {
  if (own === null) return makeNeutralPage(slots);
  const marked = findMarked(own);
  const found = slots.map(({ name }) => ({ name, inside: marked.get(name) }));
  found.sort((a, b) => (a.inside?.start ?? 0) - (b.inside?.start ?? 0));
  let from = 0;
  const pieces: string[] = [];
  for (const { inside } of found) {
    // A slot within another is emptied with it.
    if (!inside || inside.start < from) return null;
    pieces.push(own.slice(from, inside.start));
    from = inside.end;
  }
  return { pieces: [...pieces, own.slice(from)], css: null, slots: found.map(({ name }) => name) };
}

/** The text of each slot, in the order of the page; '' where nothing is put in. */
export function listTexts(host: Omit<HostPage, 'css'>, snippets: readonly Placed[]): string[] {
  return host.slots.map((slot) => snippets.find((one) => one.slot === slot)?.text ?? '');
}

/** The page as it is served. */
export function composePage(host: Omit<HostPage, 'css'>, snippets: readonly Placed[]): string {
  const texts = listTexts(host, snippets);
  return host.pieces.map((piece, i) => piece + (texts[i] ?? '')).join('');
}

function findMarked(page: string): Map<string, { start: number; end: number }> {
  const found = new Map<string, { start: number; end: number }>();
  const waiting: DefaultTreeAdapterTypes.ParentNode[] = [
    parse(page, { sourceCodeLocationInfo: true }),
  ];
  for (let node = waiting.pop(); node; node = waiting.pop()) {
    const location = 'tagName' in node ? node.sourceCodeLocation : null;
    const name =
      'tagName' in node && node.attrs.find((attribute) => attribute.name === SLOT_ATTRIBUTE)?.value;
    if (name && location?.startTag && !found.has(name)) {
      const start = location.startTag.endOffset;
      found.set(name, { start, end: location.endTag?.startOffset ?? start });
    }
    for (const child of [...node.childNodes].reverse())
      if ('childNodes' in child) waiting.push(child);
  }
  return found;
}

/** What stands below, as on a page of the usual length: what pushes it down makes it jump. */
const REST = [
  'Seed is kept in paper bags, dry and cool, and each bag says who grew it, where and when. Beans keep for four years, onions for one; the desk knows the rest, and has a list to take home.',
  'In the glasshouse the first trays are sown in February. Visitors may look in on any day but Monday, and on Saturdays somebody is there to show how seedlings are pricked out and potted on.',
  'There are workshops on saving seed, on building a cold frame and on mending tools. They are free for members; others pay what they can. Those who come regularly are asked to bring a cake now and then.',
  'Whoever borrows seed grows it on, keeps the best plants for seed, and brings a handful back. It need not be much: what matters is that it comes from healthy plants, and that it is labelled.',
  'The beds behind the house are for trying out old kinds. This year there are peas from four valleys, a white carrot that nobody can name, and a pumpkin that is said to keep until the next one is ripe.',
];

/** A plain article page, its column in the middle: heading, text, the slots, text. It is taller than any screen, as pages are. */
function makeNeutralPage(slots: readonly Slot[]): HostPage {
  const rules = flatMap(slots, (slot) => slot.ranges.map((range) => getSlotRule(slot, range)));
  const css = `
html { color: #1d1b18; background: #fff; font: 16px/1.5 Arimo, Arial, sans-serif; }
body { margin: 0; min-height: 160vh; }
.page-slot { display: none; }
.page-head, .page-text, .page-foot { margin: 16px auto; width: min(680px, 100% - 32px); }
.page-rest { white-space: pre-line; }
${rules.join('\n')}
`;
  const before = `<header class="page-head"><a href="/">Seed library</a> <a href="/visit">Visit</a></header>
<h1 class="page-head">From the glasshouse</h1>
<p class="page-text">Members borrow seed in spring and bring some back in autumn.</p>
`;
  const after = `<p class="page-text">The members' desk is open on weekdays.</p>
<p class="page-text page-rest">${REST.join('\n\n')}</p>
<footer class="page-foot"><a href="/contact">Write to the desk</a></footer>
`;
  const names = slots.map(({ name }) => name);
  return makePage(names, { css, before, after, attributes: 'class="page-slot" ' });
}

/** The document of a frame that a site makes for a snippet: nothing of the page reaches into it. */
export function makeFrameDocument(slots: readonly string[]): HostPage {
  return makePage(slots, { css: FRAME_CSS, before: '', after: '', attributes: '' });
}

/** A page of our own: what stands around its slots, and what these have besides their names. */
function makePage(
  slots: readonly string[],
  around: { css: string; before: string; after: string; attributes: string },
): HostPage {
  const { css, before, after, attributes } = around;
  const head = `<!doctype html>
<html lang="en">
<head>
<meta charset="utf-8">
<meta name="viewport" content="width=device-width, initial-scale=1">
<title>Seed library</title>
<style>${css}</style>
</head>
<body>
${before}`;
  const open = slots.map((name) => `<div ${attributes}${SLOT_ATTRIBUTE}="${name}">`);
  const pieces = open.map((tag, i) => (i === 0 ? head : '</div>\n') + tag);
  return { pieces: [...pieces, `</div>\n${after}</body>\n</html>\n`], css, slots };
}

/** So that what is in it is as wide as the frame. */
const FRAME_CSS = 'body { margin: 0; }';

/** Insets count from the inner edge of the scroll bar: whatever reaches as far out as they go still fits. */
function getSlotRule(slot: Slot, range: SlotRange): string {
  const to = Number.isFinite(range.to) ? ` and (max-width: ${range.to}px)` : '';
  const room = `100% - ${2 * range.inset}px`;
  const full = range.inset ? `calc(${room})` : '100%';
  const width = range.width === 'full' ? full : `min(${range.width}px, ${room})`;
  const height = range.height === null ? '' : ` height: ${range.height}px;`;
  const rule = `display: block; margin: 0 auto; width: ${width};${height} text-align: ${slot.align};`;
  return `@media (min-width: ${range.from}px)${to} { .page-slot[${SLOT_ATTRIBUTE}="${slot.name}"] { ${rule} } }`;
}
