import type { ElementFact, Facts } from '../evidence.js';
import { flatMap, mapPresent } from '../lists.js';
import { REPLACED, UNSEEN } from '../standards/elements.js';
import { listSized } from './sized.js';

/** A block that stands to one side, with what is free before it and behind it, px. */
export interface OffCentre {
  block: ElementFact;
  /** Automatic margins put it elsewhere for sure. */
  movable: boolean;
  before: number;
  after: number;
}

type View = Pick<Facts, 'slot' | 'elements' | 'frames' | 'media' | 'page'>;
type Align = 'start' | 'center' | 'end';

/** So many blocks are looked at: where there are more, none is what the slot is for. */
const MOST = 200;
const HALF = 0.5;
const QUARTER = 0.25;
/** What is free beyond a block of less is not to be seen, px. */
const LEAST_FREE = 24;
/** Windows in which so little is free hold what is as wide as they let it be. */
const LEAST_WIDTH = 2;

/** What stands elsewhere than the slot's alignment has it; in a slot aligned to its start, large frames and players only. */
export function listOffCentre(view: View, align: Align): OffCentre[] {
  const { x, width } = view.slot.box;
  if (width <= 0) return [];
  const all = align === 'start' ? listLarge(view) : listOutermost(view);
  const blocks = all.slice(0, MOST).filter(({ box }) => isAlone(view, box));
  const rtl = view.page.direction === 'rtl';
  return flatMap(blocks, (block): OffCentre[] => {
    const [left, right] = [block.box.x - x, x + width - (block.box.x + block.box.width)];
    const [before, after] = rtl ? [right, left] : [left, right];
    const free = before + after;
    // What sticks out is another fault.
    if (free < LEAST_FREE || before < -1 || after < -1) return [];
    const off = align === 'end' ? after : Math.abs(before - after);
    return off > QUARTER * free ? [{ block, movable: isMovable(block), before, after }] : [];
  });
}

/** The frames and players that are wider than half of the slot; of one in a narrow block, that block. */
function listLarge(view: View): ElementFact[] {
  const { width } = view.slot.box;
  const byId = new Map(view.elements.map((one) => [one.id, one]));
  const getBlock = (inside: ElementFact) => {
    let block = inside;
    for (let at = byId.get(block.parent ?? -1); at; at = byId.get(at.parent ?? -1))
      if (at.box.width < width - LEAST_WIDTH) block = at;
    return block;
  };
  const large = mapPresent(
    listSized(view).filter(({ box }) => box.width > width * HALF),
    ({ id }) => byId.get(id),
  );
  return [...new Set(large.map(getBlock))];
}

/** Nothing of the snippet's own stands beside it. */
function isAlone({ elements }: View, box: ElementFact['box']): boolean {
  return !elements.some(
    (other) =>
      isSeen(other) &&
      other.box.y < box.y + box.height &&
      other.box.y + other.box.height > box.y &&
      (other.box.x + other.box.width <= box.x + 1 || other.box.x >= box.x + box.width - 1),
  );
}

/** Blocks with nothing of the snippet's around them that is as narrow. */
function listOutermost({ elements, slot }: View): ElementFact[] {
  const byId = new Map(elements.map((one) => [one.id, one]));
  const isWhole = ({ box }: ElementFact) => box.width >= slot.box.width - LEAST_WIDTH;
  const isOutermost = (one: ElementFact) => {
    for (let at = byId.get(one.parent ?? -1); at; at = byId.get(at.parent ?? -1))
      if (!isWhole(at)) return false;
    return true;
  };
  return elements.filter(
    (one) => isSeen(one) && isBlock(one) && !isWhole(one) && isOutermost(one) && !one.clipped,
  );
}

/** A block, or a frame or picture that becomes one as wide as it is; nothing that floats or is put somewhere. */
function isMovable({ style, tag }: ElementFact): boolean {
  const inFlow = style.float === 'none' && /^(static|relative)$/.test(style.position);
  return inFlow && (REPLACED.has(tag) || /^(block|table|flow-root|flex|grid)$/.test(style.display));
}

function isSeen({ shown, box, tag }: ElementFact): boolean {
  return shown && box.width > LEAST_WIDTH && box.height > LEAST_WIDTH && !UNSEEN.has(tag);
}

/** Not what is a piece of a line of text, nor what stands where it is put, out of the flow. */
function isBlock({ style, tag }: ElementFact): boolean {
  const placed = style.position === 'absolute' || style.position === 'fixed';
  return !placed && (style.display !== 'inline' || REPLACED.has(tag));
}
