import type { Case, RenderOf } from '../check.js';
import type { MotionFact } from '../evidence.js';
import { flatMap } from '../lists.js';
import type { Markup } from '../markup/markup.js';
import { WHERE_DONE } from '../markup/opening.js';
import { hasHandler, isScript } from '../markup/traits.js';

/** What is no larger is a spinner, px. */
const SMALL = 48;
const TINY = 2;
/** What stops animations. */
const PAUSES = /animation-play-state\s*:\s*paused|animation\s*:\s*none|animation-name\s*:\s*none/i;

/** Something that moves on and on, where it was seen. */
export interface Moving {
  render: RenderOf<'motions'>;
  motion: MotionFact;
}

/**
 * What moves by itself for over 5 s and is large enough to be in the way. None where the snippet may have a way to
 * stop it: code with something to press, or styles that stop animations when something is done.
 */
export function listMoving({ markup, renders }: Case<'motions'>): Moving[] {
  if (canStop(markup)) return [];
  return flatMap(renders, (render) =>
    render.motions.filter((one) => one.shown && isLarge(one)).map((motion) => ({ render, motion })),
  );
}

/** Of what is animated a wheel that turns while something loads is sound. */
function isLarge({ box: { width, height }, how, pictured }: MotionFact): boolean {
  const least = Math.min(width, height);
  if (how !== 'animated') return least > TINY;
  return pictured ? least > SMALL : width > SMALL && height > TINY;
}

function canStop({ elements }: Markup): boolean {
  const styles = elements.filter(({ name }) => name === 'style');
  if (styles.some(({ text }) => PAUSES.test(text) && WHERE_DONE.test(text))) return true;
  const hasCode = elements.some((one) => isScript(one) || hasHandler(one));
  return hasCode && elements.some(({ name }) => /^(button|input|summary|a)$/.test(name));
}
