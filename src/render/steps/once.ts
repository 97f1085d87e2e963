import type { Hands, Job } from '../life/job.js';
import type { ReadScene } from './step.js';

/** Whether it is asked how code runs: with hands, in one window of a kind. */
export function asksRunning({ hands, wants }: Pick<Job, 'hands' | 'wants'>): boolean {
  return isUsed(hands) && (wants.has('code') || wants.has('times'));
}

/** Whether it is one of the windows, one of a kind, in which what is dear is tried: those with hands, and not of a published page. */
export function isOneOfKind({ job: { hands }, setting }: ReadScene): boolean {
  return !setting.around.published && isUsed(hands);
}

function isUsed({ keys, swipes }: Hands): boolean {
  return keys || swipes;
}

/** Whether the page is as it is, with a snippet or alone. */
export function isAsIs({ job: { render } }: ReadScene): boolean {
  return render.variant === 'as-is' || render.variant === 'empty';
}

/** Whether a snippet could do something that takes code, or a style in which a pattern is found. The page alone is asked only where that is wanted. */
export function couldDo({ own, job: { subject } }: ReadScene, styles: RegExp): boolean {
  const { texts } = subject;
  return own.changes || texts.length === 0 || texts.some((text) => styles.test(text));
}
