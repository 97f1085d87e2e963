import type { CauseFact, Facts, Target, TriedCure } from '../evidence.js';
import { flatMap } from '../lists.js';
import { TOLERANCE } from '../measure/culprits.js';
import { isFixed, listSized } from '../measure/sized.js';
import {
  getPageOverhang,
  isUnexplained,
  listPageCulprits,
  listSlotCulprits,
  listWideFrames,
  type PageView,
  type Sticking,
} from '../measure/sticking.js';

/** What of a render is tried: everything that checks put down to something. */
export type Trying = PageView & Pick<Facts, 'slot' | 'frames' | 'media'>;

/** So many things are tried for in one render. */
const MOST = 24;

/** What is too wide in a render, each once. */
export function listTargets(view: Trying): Target[] {
  const culprits = listPageCulprits(view);
  const over = getPageOverhang(view);
  const all = [
    ...culprits.map(aimAt),
    ...(over && isUnexplained(view) ? [aimAtPage(over.edge)] : []),
    ...flatMap(listSlotCulprits(view), (one) => [aimAt(one), aimAtOther(one, view.slot)]),
    ...listWideFrames(view).map((frame) => aimAtFrame(frame, view.slot)),
    ...listSized(view)
      .filter(isFixed)
      .map((one) => aimAtSized(one, view.slot)),
  ];
  const seen = new Set<string>();
  const fresh = all.filter((one) => !seen.has(getTargetKey(one)) && seen.add(getTargetKey(one)));
  return fresh.slice(0, MOST);
}

export function aimAt({ element, side, edge }: Sticking): Target {
  return { element: element.id, by: 'reach', side, edge, room: null };
}

/** The slot's other side: what cures one must not leave it out at the other. */
function aimAtOther({ element, side }: Sticking, { box }: Facts['slot']): Target {
  const other = side === 'right' ? 'left' : 'right';
  const edge = other === 'right' ? box.x + box.width : box.x;
  return { element: element.id, by: 'reach', side: other, edge, room: null };
}

/** What widens the page is not known: it is the page itself that is measured. */
export function aimAtPage(edge: number): Target {
  return { element: null, by: 'reach', side: 'right', edge, room: null };
}

export function aimAtFrame({ id }: { id: number }, { box }: Facts['slot']): Target {
  return { element: id, by: 'width', side: 'right', edge: box.width, room: null };
}

/** Something of a fixed width: where it fits as it stands it is held against less room than it takes up. */
export function aimAtSized(
  { id, box }: { id: number; box: { width: number } },
  slot: Facts['slot'],
): Target {
  if (box.width > slot.box.width + 1) return aimAtFrame({ id }, slot);
  const room = Math.round(box.width * LESS);
  return { element: id, by: 'width', side: 'right', edge: room, room };
}

const LESS = 0.75;

/** Targets of one key are the same. */
export function getTargetKey({ element, by, side, edge, room }: Target): string {
  return [element, by, side, edge, room].join(' ');
}

/** All that was tried of one element in one page: it is to fit the page and its slot. */
export function listSame<T extends Target>(targets: readonly T[], { element, room }: Target): T[] {
  return targets.filter((one) => one.element === element && one.room === room);
}

/** What was found of a target; null where it was not tried. */
export function findCause({ targets }: Facts['causes'], target: Target): CauseFact | null {
  const key = getTargetKey(target);
  return targets.find((one) => getTargetKey(one) === key) ?? null;
}

/** Whether a cure that was tried has cured a target, in the page and in its slot. */
export function hasCured(
  { targets }: Pick<Facts['causes'], 'targets'>,
  cause: CauseFact,
  tried: TriedCure,
): boolean {
  const same = listSame(targets, cause);
  return same.every((one) => tried.left[targets.indexOf(one)]! <= TOLERANCE);
}

/** The first cure that has cured a target and done no harm. */
export function findCure(causes: Facts['causes'], cause: CauseFact): TriedCure['intents'] | null {
  const found = causes.cures.find((one) => one.harm === null && hasCured(causes, cause, one));
  return found?.intents ?? null;
}
