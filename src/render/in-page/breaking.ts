import { getContrast } from '../../core/measure/contrast.js';
import type { ReachFact } from '../../facts/reaching/fact.js';
import { readPaint } from './colours.js';
import { listOwnTexts } from './ink.js';

/** In what way something of a snippet is broken. */
export type Breakage = Exclude<ReachFact['way'], 'name' | 'stated'>;

/** What is under the one can hardly be read, and what has the other can (WCAG 2.2, 1.4.3), of 21. */
const FAINT = 3;
const CLEAR = 4.5;
/** What is cut off or sticks out by less is a rounding, or a line's own room, px. */
const LEAST = { x: 1, y: 4 };
/** What clicks are for. */
const CONTROLS = 'a[href], button, input, select, textarea, summary, label, iframe, video, audio';
/** What is no larger is not there to be seen, but for those who listen, px. */
export const SPOT = 2;

/** What is broken of an element as it stands; @param slot around it. */
export function findHarms(element: Element, slot: Element): Breakage[] {
  const node = globalThis.mivketNotebook.own(element);
  const style = getComputedStyle(element);
  if (node.hasAttribute('hidden')) return [];
  if (style.display === 'none' || style.visibility !== 'visible' || style.opacity === '0')
    return ['hidden'];
  return [
    ...(sticksOut(node, style, slot) ? ['wide' as const] : []),
    ...(isCut(node, style) ? ['cut' as const] : []),
    ...(getTextContrast(element, slot) < FAINT ? ['faint' as const] : []),
    ...(style.pointerEvents === 'none' && node.matches(CONTROLS) ? ['dead' as const] : []),
  ];
}

/** Whether a harm is over, and not by a hair. */
export function isOver(element: Element, harm: Breakage, slot: Element): boolean {
  if (harm === 'faint' && getTextContrast(element, slot) < CLEAR) return false;
  return !findHarms(element, slot).includes(harm) && element.getClientRects().length > 0;
}

function sticksOut(node: Element, { overflowX }: CSSStyleDeclaration, slot: Element): boolean {
  const [box, room] = [node.getBoundingClientRect(), slot.getBoundingClientRect()];
  if (box.width <= SPOT) return false;
  const leaves = box.left < room.left - LEAST.x || box.right > room.right + LEAST.x;
  const spills = node.clientWidth > SPOT && node.scrollWidth > node.clientWidth + LEAST.x;
  return leaves || (spills && overflowX === 'visible');
}

function isCut(node: Element, { overflowX, overflowY }: CSSStyleDeclaration): boolean {
  const { clientWidth, clientHeight, scrollWidth, scrollHeight } = node;
  if (clientWidth <= SPOT || clientHeight <= SPOT) return false;
  const cuts = (overflow: string) => overflow === 'hidden' || overflow === 'clip';
  return (
    (cuts(overflowX) && scrollWidth > clientWidth + LEAST.x) ||
    (cuts(overflowY) && scrollHeight > clientHeight + LEAST.y)
  );
}

/** 21, the most, for what has no text of its own, or none on plain colour. */
function getTextContrast(element: Element, slot: Element): number {
  if (listOwnTexts(element).length === 0) return 21;
  const { colour, ground } = readPaint(element, slot);
  return colour && ground ? getContrast(colour, ground) : 21;
}
