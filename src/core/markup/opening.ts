import type { MarkupElement } from './markup.js';

/** Styles that hold where something is pressed, checked or led to. */
export const WHERE_DONE = /:(checked|target|hover|focus|open|active|has)\b/i;

/** Whether it is something that visitors open. */
export function opens({ name, attributes }: MarkupElement): boolean {
  return (
    name === 'details' || name === 'dialog' || attributes.some((one) => one.name === 'popover')
  );
}
