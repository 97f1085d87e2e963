import type { OfElement } from '../common.js';
import { flatMap } from '../../core/lists.js';
import type { MotionFact } from './fact.js';

export type RawMotion = Omit<MotionFact, OfElement>;

/** What is over by then need not be stopped (WCAG 2.2, 2.2.2), ms. */
const SHORT = 5000;
/** What can be seen of it. */
const SEEN =
  /^(transform|translate|rotate|scale|left|right|top|bottom|inset.*|margin.*|width|height|opacity|visibility|color|background.*|filter|clipPath|offset.*|strokeDash.*|fill|stroke|fontSize|letterSpacing)$/;
const SMIL = 'animate, animateTransform, animateMotion';
/** It begins only when somebody does something. */
const ASKED = /click|mouse|focus|key|indefinite|touch|pointer/i;

/** All that moves by itself for longer than that, each element once. */
export function readMotions(): RawMotion[] {
  const found = [...listAnimated(), ...listMarquees(), ...listDrawings()];
  return [...new Map(found.map((one) => [one.id, one])).values()];
}

function listAnimated(): RawMotion[] {
  const { page, idOf } = globalThis.mivketNotebook;
  return flatMap(page.getAnimations(), (animation): RawMotion[] => {
    const effect = animation.effect as KeyframeEffect | null;
    const isOn = animation.playState === 'running' && animation.timeline === page.timeline;
    if (!isOn || !effect?.target) return [];
    const { activeDuration } = effect.getComputedTiming();
    const lasts = Number(activeDuration);
    const changes = listChanges(effect);
    if (!(lasts > SHORT) || changes.length === 0) return [];
    const seconds = Number.isFinite(lasts) ? Math.round(lasts / 100) / 10 : null;
    const { target } = effect;
    const pictured = target instanceof SVGElement || target instanceof HTMLImageElement;
    return [{ id: idOf(target), how: 'animated', pictured, seconds, changes }];
  });
}

/** The properties that are not the same throughout. */
function listChanges(effect: KeyframeEffect): string[] {
  const keyframes = effect.getKeyframes();
  const names = new Set(flatMap(keyframes, (one) => Object.keys(one)));
  return [...names].filter((name) => {
    const values = keyframes.map((one) => one[name]);
    return SEEN.test(name) && values.some((value) => value !== values[0]);
  });
}

function listMarquees(): RawMotion[] {
  const { page, idOf } = globalThis.mivketNotebook;
  const all = Array.from(page.querySelectorAll('marquee'));
  const endless = all.filter((one) => !(Number(one.getAttribute('loop') ?? -1) > 0));
  return endless.map((one) => ({
    ...{ id: idOf(one), how: 'marquee', pictured: false, seconds: null, changes: [] },
  }));
}

function listDrawings(): RawMotion[] {
  const { page, idOf } = globalThis.mivketNotebook;
  const all = Array.from(page.querySelectorAll<SVGAnimationElement>(SMIL));
  return flatMap(all, (one): RawMotion[] => {
    const svg = getOutermost(one);
    const lasts = getLength(one);
    const isAsked = ASKED.test(one.getAttribute('begin') ?? '');
    if (!svg || isAsked || svg.animationsPaused() || lasts <= SHORT) return [];
    const seconds = Number.isFinite(lasts) ? lasts / 1000 : null;
    return [{ id: idOf(svg), how: 'drawing', pictured: true, seconds, changes: [] }];
  });
}

function getOutermost(node: SVGElement): SVGSVGElement | null {
  const { ownerSVGElement: around } = node;
  return around?.ownerSVGElement ? getOutermost(around) : around;
}

/** For how long it goes on, ms. */
function getLength(one: SVGAnimationElement): number {
  const count = one.getAttribute('repeatCount') ?? '1';
  const isEndless = [count, one.getAttribute('repeatDur')].includes('indefinite');
  try {
    return isEndless ? Infinity : one.getSimpleDuration() * 1000 * (Number(count) || 1);
  } catch {
    return 0;
  }
}
