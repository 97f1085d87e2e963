import { parse, type DefaultTreeAdapterTypes } from 'parse5';
import type { Slot, SlotRange } from '../house/house.js';

/** Marks the places in a host page where snippets go. */
export const SLOT_ATTRIBUTE = 'data-mivket-slot';

/** The page around the slot, cut at the slot: a snippet goes between the two. */
export interface HostPage {
  before: string;
  after: string;
}

/** The slots that a house's own page marks, in source order. */
export function findSlots(page: string): string[] {
  return [...findMarked(page).keys()];
}

/**
 * The host page for one slot: the house's own with that slot emptied, or the neutral one.
 * Null where the page does not mark the slot.
 */
export function getHostPage(slot: Slot, own: string | null): HostPage | null {
  if (own === null) return makeNeutralPage(slot);
  const inside = findMarked(own).get(slot.name);
  return inside ? { before: own.slice(0, inside.start), after: own.slice(inside.end) } : null;
}

/** The page as it is served. */
export function composePage(host: HostPage, snippet: string): string {
  return host.before + snippet + host.after;
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

/** A plain article page: heading, text, the slot, text. It is taller than any screen, as pages are. */
function makeNeutralPage(slot: Slot): HostPage {
  const before = `<!doctype html>
<html lang="en">
<head>
<meta charset="utf-8">
<meta name="viewport" content="width=device-width, initial-scale=1">
<title>Seed library</title>
<style>
html { color: #1d1b18; background: #fff; font: 16px/1.5 Arimo, Arial, sans-serif; }
body { margin: 0; min-height: 160vh; }
.page-slot { display: none; }
.page-head, .page-text, .page-foot { margin: 16px; max-width: 680px; }
${slot.ranges.map((range) => getSlotRule(slot, range)).join('\n')}
</style>
</head>
<body>
<header class="page-head"><a href="/">Seed library</a> <a href="/visit">Visit</a></header>
<h1 class="page-head">From the glasshouse</h1>
<p class="page-text">Members borrow seed in spring and bring some back in autumn.</p>
<div class="page-slot" ${SLOT_ATTRIBUTE}="${slot.name}">`;
  const after = `</div>
<p class="page-text">The members' desk is open on weekdays.</p>
<footer class="page-foot"><a href="/contact">Write to the desk</a></footer>
</body>
</html>
`;
  return { before, after };
}

/** 100vw counts the scroll bar, as a house states its widths; 100% keeps the slot off the bar. */
function getSlotRule(slot: Slot, range: SlotRange): string {
  const to = Number.isFinite(range.to) ? ` and (max-width: ${range.to}px)` : '';
  const room = `100vw - ${2 * range.inset}px, 100% - ${range.inset}px`;
  const full = range.inset ? `min(${room})` : '100%';
  const width = range.width === 'full' ? full : `min(${range.width}px, ${room})`;
  const height = range.height === null ? '' : ` height: ${range.height}px;`;
  const rule = `display: block; margin-left: ${range.inset}px; width: ${width};${height} text-align: ${slot.align};`;
  return `@media (min-width: ${range.from}px)${to} { .page-slot { ${rule} } }`;
}
