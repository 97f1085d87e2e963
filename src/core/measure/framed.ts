import type { Culprit } from '../check.js';
import type { Facts, FrameFact } from '../evidence.js';
import { flatMap } from '../lists.js';
import type { Markup } from '../markup/markup.js';
import { findDeclaration } from '../markup/styles.js';
import type { Intent } from '../mend/intent.js';
import { getElementKey } from '../search/spans.js';
import { asksToPlay, isPlayer } from '../standards/elements.js';
import { atAttribute, getBlamed, getSpan, type Blame } from './blame.js';

/** A frame whose document was measured. */
export type Framed = FrameFact & { inner: NonNullable<FrameFact['inner']> };

/** Frames of this size and less are there for their effect, not to be read, px. */
export const TINY = 20;

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

/** What plays film: there is one in its document, or it asks for what players need; by its address where nothing was read. */
export function isFramedPlayer({ tag, attributes, inner }: FrameFact): boolean {
  const element = { name: tag, get: (attribute: string) => attributes[attribute] ?? null };
  if (inner?.media?.some((one) => one.tag === 'video')) return true;
  return inner ? asksToPlay(element) : isPlayer(element);
}

/** A frame at what states its height: a declaration, the attribute, else its tag. */
export function atHeight(markup: Markup, blame: Blame): Blame {
  const element = getBlamed(markup, blame);
  const declared = element && findDeclaration(markup, element, ['height']);
  return declared ? { ...blame, where: getSpan(declared) } : atAttribute(markup, blame, 'height');
}

/** The height that a frame's document needs: its own where that is known, else down to where something reaches, px. */
export function getNeeded({
  natural,
  contentHeight,
  scrollHeight,
  height,
}: Framed['inner']): number {
  if (typeof natural === 'number') return natural;
  return scrollHeight > height ? scrollHeight : (contentHeight ?? scrollHeight);
}

/** What fills less than this part of its frame leaves it mostly empty. */
export const LEAST_FILLED = 2 / 3;
/** Less room than this below the content nobody minds, px. */
const LITTLE = 100;

/** Whether too much of a frame stays empty below a document of a height, px. */
export function isMostlyEmpty(height: number, needed: number): boolean {
  return needed < height * LEAST_FILLED && height - needed >= LITTLE;
}

/** The height by which a frame fits its document in all renders, px; null where none does, or where it is not known. */
export function findOneHeight(
  renders: readonly Pick<Facts, 'frames'>[],
  { from, selector }: Pick<FrameFact, 'from' | 'selector'>,
): number | null {
  const key = getElementKey({ from, selector });
  const all = flatMap(renders, (render) =>
    listFramed(render).filter((one) => getElementKey(one) === key),
  );
  if (all.length === 0 || all.some(({ inner }) => typeof inner.natural !== 'number')) return null;
  const needed = all.map(({ inner }) => Math.ceil(getNeeded(inner)));
  const most = Math.max(...needed);
  return most * LEAST_FILLED <= Math.min(...needed) ? most : null;
}

/** Sets a frame's height; null where it is not the markup's own, or no height is known. */
export function setHeight(
  markup: Markup,
  culprit: Culprit,
  height: number | null,
): Intent[] | null {
  const element = height === null ? null : getBlamed(markup, { culprit });
  if (!element) return null;
  return [{ do: 'set-style', element: element.offset, declarations: { height: `${height}px` } }];
}
