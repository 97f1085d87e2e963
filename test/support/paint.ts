import type { Paint } from '../../src/formats/paint.js';

const plain = (text: string) => text;

/** No colours. */
export const paint: Paint = {
  blocker: plain,
  concern: plain,
  advice: plain,
  sound: plain,
  strong: plain,
  faint: plain,
};
