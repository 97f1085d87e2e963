import type { Facts, FrameFact } from '../evidence.js';
import type { Markup } from '../markup/markup.js';
import { findDeclaration } from '../markup/styles.js';
import type { Span } from '../snippet.js';
import { isPlayer } from '../standards/elements.js';
import { getBlamed, locateAttribute, type Blame } from './blame.js';

/** A frame whose document was measured. */
export type Framed = FrameFact & { inner: NonNullable<FrameFact['inner']> };

/** Frames of this size and less are there for their effect, not to be read, px. */
const TINY = 20;

/** The frames with a document to be read: seen, measured, and no players, which fill what they get. */
export function listFramed({ frames }: Pick<Facts, 'frames'>): Framed[] {
  return frames.filter(
    (frame): frame is Framed =>
      frame.shown &&
      Boolean(frame.inner) &&
      frame.box.width > TINY &&
      frame.box.height > TINY &&
      !isFramedPlayer(frame),
  );
}

export function isFramedPlayer({ tag, attributes }: FrameFact): boolean {
  return isPlayer({ name: tag, get: (attribute) => attributes[attribute] ?? null });
}

/** What states a frame's height: a declaration, the attribute, else its tag. */
export function locateHeight(markup: Markup, blame: Blame): Span {
  const element = getBlamed(markup, blame);
  const declared = element && findDeclaration(markup, element, ['height']);
  const { offset, endOffset } = declared ?? locateAttribute(markup, blame, 'height');
  return { offset, endOffset };
}
