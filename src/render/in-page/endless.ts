import { flatMap } from '../../core/lists.js';
import { SLOT_ATTRIBUTE } from '../../core/host/slot-attribute.js';

/** What ends later than this is not waited for, ms. */
export const LONGEST_ANIMATION = 10_000;
/** Where in its course an animation is looked at: from its beginning to just before its end. */
const PLACES = [0, 0.125, 0.25, 0.375, 0.5, 0.625, 0.75, 0.875, 0.999];
const MOST = 200;
const TOLERANCE = 1;

/** An animation without an end, by the time at which its present round began, ms. */
interface Endless {
  animation: Animation;
  begun: number;
  round: number;
}

/**
 * Has a page read in which it would be chance what is seen of animations that never end. They are stopped where
 * they make the page, or what stands in a slot, widest. Where no place of their course makes it wider than it is
 * they go on, and what turns is read upright: the corners of a wheel are not seen.
 */
export function readInCourse<T>(read: () => T): T {
  const endless = listEndless().slice(0, MOST);
  if (endless.length === 0 || stopWhereWidest(endless)) return read();
  const turning = endless.filter(turns);
  const putBack = keepTimes(turning);
  goTo(turning, 0);
  const found = read();
  putBack();
  return found;
}

/** Whether there is a place of their course where the page is wider. */
function stopWhereWidest(endless: readonly Endless[]): boolean {
  const putBack = keepTimes(endless);
  let widest: number | null = null;
  let most = readWidths();
  const unseen = countUnseen(endless);
  for (const place of PLACES) {
    goTo(endless, place);
    const widths = readWidths();
    // Where it fades away nobody sees where it is.
    if (!isWider(widths, most) || countUnseen(endless) > unseen) continue;
    widest = place;
    most = widths;
  }
  if (widest === null) {
    putBack();
    return false;
  }
  goTo(endless, widest);
  for (const { animation } of endless) animation.pause();
  return true;
}

const OF_KEYFRAMES = /^(offset|computedOffset|easing|composite)$/;
const TURN = /^(none|(rotate(Z|3d)?\([^)]*\)\s*)+|-?[\d.]+(deg|turn|rad|grad))$/;

/** Whether it does nothing but turn something. */
function turns({ animation }: Endless): boolean {
  const keyframes = (animation.effect as KeyframeEffect | null)?.getKeyframes() ?? [];
  const changes = flatMap(keyframes, (one) =>
    Object.entries(one).filter(([name]) => !OF_KEYFRAMES.test(name)),
  );
  return changes.every(
    ([name, value]) => /^(transform|rotate)$/.test(name) && TURN.test(String(value)),
  );
}

function listEndless(): Endless[] {
  const { page } = globalThis.mivketNotebook;
  return flatMap(page.getAnimations(), (animation): Endless[] => {
    const timing = animation.effect?.getComputedTiming();
    const { currentTime, playState, timeline } = animation;
    const round = Number(timing?.duration);
    if (playState !== 'running' || timeline !== page.timeline) return [];
    if (typeof currentTime !== 'number' || !(round > 0)) return [];
    const end = Number(timing?.endTime);
    if (end < LONGEST_ANIMATION) return [];
    // In the same round: what listens for the next must not hear of one.
    const before = Math.max(0, currentTime - (timing?.delay ?? 0));
    return [{ animation, begun: currentTime - (before % round), round }];
  });
}

function goTo(endless: readonly Endless[], place: number): void {
  for (const { animation, begun, round } of endless) animation.currentTime = begun + place * round;
}

/** Notes where they are, to be put back there. */
function keepTimes(endless: readonly Endless[]): () => void {
  const now = endless.map(({ animation }) => animation.currentTime);
  return () => {
    for (const [i, { animation }] of endless.entries()) animation.currentTime = now[i]!;
  };
}

function countUnseen(endless: readonly Endless[]): number {
  return endless.filter(({ animation }) => {
    const { target } = (animation.effect as KeyframeEffect | null) ?? {};
    return target && Number(getComputedStyle(target).opacity) === 0;
  }).length;
}

/** Of the page, and of what stands in each slot, px. */
function readWidths(): number[] {
  const { page } = globalThis.mivketNotebook;
  const slots = page.querySelectorAll(`[${SLOT_ATTRIBUTE}]`);
  return [page.documentElement, ...slots].map((one) => one.scrollWidth);
}

/** The page’s own width decides; where that is the same, a slot’s. */
function isWider(a: readonly number[], b: readonly number[]): boolean {
  const at = a.findIndex((width, i) => Math.abs(width - b[i]!) > TOLERANCE);
  return at >= 0 && a[at]! > b[at]!;
}
