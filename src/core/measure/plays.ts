import type { MediaFact } from '../evidence.js';

/** What is over sooner need not be stopped (WCAG 2.2, 2.2.2), seconds. */
const SHORT = 5;

/** Whether a film began by itself, is seen, and goes on for long. */
export function playsOn({ tag, started, frames, shown, loop, duration }: MediaFact): boolean {
  const long = loop || duration === null || duration > SHORT;
  return tag === 'video' && shown && started && frames > 0 && long;
}
