import type { Markup, MarkupElement } from '../markup/markup.js';
import { findDeclaration } from '../markup/styles.js';
import type { Intent } from './intent.js';
import { outdoesTag, writeOnTag } from './width.js';

/** What else may decide how high something is: there its height alone is no cure. */
const OTHERS = /^(min|max)-(height|block-size)$|^(inset|position|flex|align-self|block-size)/;

/** Another height for an element, written on its tag; null where something else decides how high it is. */
export function mendHeight(
  markup: Markup,
  element: MarkupElement,
  declarations: Readonly<Record<string, string>>,
): Intent[] | null {
  if (findDeclaration(markup, element, OTHERS)) return null;
  if (outdoesTag(findDeclaration(markup, element, ['height', 'aspect-ratio']))) return null;
  return writeOnTag(element, declarations);
}

/** The proportions that films usually have. */
const USUAL: readonly [number, number][] = [
  [16, 9],
  [4, 3],
  [1, 1],
  [9, 16],
  [21, 9],
];
/** One that differs by less than this part is the same. */
const SAME = 0.02;

/**
 * The proportion that a player is to keep, as CSS has it: its film's, else the one that its attributes state, else that
 * of most films.
 * @param film width by height; null where it is not known
 */
export function findProportion(
  attributes: Readonly<Record<string, string>>,
  film: number | null,
): string {
  const [width, height] = [Number(attributes.width), Number(attributes.height)];
  const stated: [number, number] | null = width > 0 && height > 0 ? [width, height] : null;
  if (film === null) return formatProportion(stated ?? USUAL[0]!);
  const near = [...(stated ? [stated] : []), ...USUAL].find(
    ([wide, high]) => Math.abs(wide / high / film - 1) < SAME,
  );
  return near ? formatProportion(near) : String(Math.round(film * 1000) / 1000);
}

function formatProportion([width, height]: readonly [number, number]): string {
  return `${width} / ${height}`;
}
