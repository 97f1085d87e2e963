import { flatMap, mapPresent } from '../../core/lists.js';
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
 * they go on, but are read where they are seen, and what turns is read upright: the corners of a wheel are not seen.
 */
export function readInCourse<T>(read: () => T): T {
  const endless = listEndless().slice(0, MOST);
  if (endless.length === 0) return read();
  const { widest, clearest } = lookThrough(endless);
  if (widest !== null) {
    goTo(endless, widest);
    for (const { animation } of endless) animation.pause();
    return read();
  }
  const turning = endless.filter(turns);
  const putBack = keepTimes(endless);
  if (clearest !== null) goTo(endless, clearest);
  goTo(turning, 0);
  const found = read();
  putBack();
  return found;
}

/** Places of a course: null where none is better than where they are. */
interface Course {
  /** Where the page is widest. */
  widest: number | null;
  /** Where the fewest have faded away, and what is seen is least faint. */
  clearest: number | null;
}

/** Where they are when they are looked at says nothing: it may be the one instant at which nothing is to be seen. */
function lookThrough(endless: readonly Endless[]): Course {
  const putBack = keepTimes(endless);
  const now = { widths: readWidths(), ...readFading(endless) };
  const seen = PLACES.map((place) => {
    goTo(endless, place);
    return { place, widths: readWidths(), ...readFading(endless) };
  });
  putBack();
  const clearest = seen.reduce((best, one) => (isClearer(one, best) ? one : best));
  const least = Math.min(now.unseen, clearest.unseen);
  const isFaded = now.unseen > least;
  let widest: number | null = null;
  let most = isFaded ? clearest.widths : now.widths;
  // Where it fades away nobody sees where it is.
  for (const { place, widths, unseen } of seen) {
    if (unseen > least || !isWider(widths, most)) continue;
    widest = place;
    most = widths;
  }
  return { widest, clearest: isClearer(clearest, now) ? clearest.place : null };
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

/** What turns in a copy of the page, where nothing runs, is stood upright: so it is read in the page. */
export function standUpright(copy: Document): void {
  goTo(listEndless(copy, 'paused').filter(turns), 0);
}

function listEndless(
  page: Document = globalThis.mivketNotebook.page,
  state: AnimationPlayState = 'running',
): Endless[] {
  return flatMap(page.getAnimations(), (animation): Endless[] => {
    const timing = animation.effect?.getComputedTiming();
    const { currentTime, playState, timeline } = animation;
    const round = Number(timing?.duration);
    if (playState !== state || timeline !== page.timeline) return [];
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

/** How much of what moves is not seen at one place of its course. */
interface Fading {
  /** So many have faded away. */
  unseen: number;
  /** By how much all of them are fainter than they could be. */
  faint: number;
}

function readFading(endless: readonly Endless[]): Fading {
  const opacities = mapPresent(endless, ({ animation }) => {
    const { target } = (animation.effect as KeyframeEffect | null) ?? {};
    return target ? Number(getComputedStyle(target).opacity) : null;
  });
  return {
    unseen: opacities.filter((opacity) => opacity === 0).length,
    faint: opacities.reduce((sum, opacity) => sum + 1 - opacity, 0),
  };
}

function isClearer(a: Fading, b: Fading): boolean {
  return a.unseen === b.unseen ? a.faint < b.faint : a.unseen < b.unseen;
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
