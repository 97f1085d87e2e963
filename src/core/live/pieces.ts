import { diffArrays } from 'diff';
import { MOST_SHOWN, type Box } from '../evidence.js';
import { flatMap, mapPresent } from '../lists.js';
import { readMarkup, type Markup, type MarkupElement } from '../markup/markup.js';
import { isWithin, type Span } from '../snippet.js';
import { findCopies } from './copies.js';

/** A piece of a page as it stood, as HTML. */
export interface StoodText {
  text: string;
  /** It stood in the document of a frame. */
  inFrame: boolean;
  /** Its elements in the order of the tree: their names, and where they were, px of the page; null where they were nowhere. */
  elements: readonly (readonly [name: string, box: Box | null])[];
}

/** What is looked for, by its name. */
export interface WantedSnippet {
  name: string;
  markup: Markup;
}

/** A piece of the page of which a picture is wanted. */
export interface WantedPiece {
  /** The name of what was cleared. */
  of: string;
  box: Box;
}

/** So many copies of one are shown. */
const MOST = 3;
/** Where more names are otherwise it is not known which element is which. */
const MOST_EDITS = 500;

/** Where the copies of what was cleared are on a page, as far as they take room there. */
export function findPieces(
  wanted: readonly WantedSnippet[],
  stood: readonly StoodText[],
  base: string,
): WantedPiece[] {
  const documents = mapPresent(stood, ({ text, inFrame, elements }) => {
    const page = inFrame ? null : readMarkup(text);
    return page && { page, boxes: placeElements(page, elements) };
  });
  return flatMap(wanted, ({ name, markup }) => {
    const boxes = flatMap(documents, ({ page, boxes }) =>
      mapPresent(findCopies(markup, page, { base, asSent: false }), ({ span }) =>
        getBox(page, span, boxes),
      ),
    );
    return boxes.slice(0, MOST).map((box) => ({ of: name, box }));
  });
}

/** Where each element of the markup is: it is known by its name among the others', which may be read otherwise than they stand. */
function placeElements(
  { elements }: Markup,
  stood: StoodText['elements'],
): Map<MarkupElement, Box> {
  const names = [elements.map(({ name }) => name), stood.map(([name]) => name)] as const;
  const placed = new Map<MarkupElement, Box>();
  let [i, j] = [0, 0];
  for (const { added, removed, count } of diffArrays(...names, { maxEditLength: MOST_EDITS }) ??
    []) {
    if (!added && !removed)
      for (let n = 0; n < count; n++) {
        const box = stood[j + n]![1];
        if (box) placed.set(elements[i + n]!, box);
      }
    if (!added) i += count;
    if (!removed) j += count;
  }
  return placed;
}

/** The room that a copy takes: of what is outermost in it, or of all where that takes none. */
function getBox(
  { elements }: Markup,
  span: Span,
  boxes: ReadonlyMap<MarkupElement, Box>,
): Box | null {
  const own = new Set(elements.filter((one) => isWithin(one, span)));
  if (own.size === 0)
    return joinBoxes(
      elements.filter(({ tagEnd }) => tagEnd === span.offset),
      boxes,
    );
  const outer = [...own].filter(({ parent }) => parent === null || !own.has(parent));
  return joinBoxes(outer, boxes) ?? joinBoxes([...own], boxes);
}

function joinBoxes(
  elements: readonly MarkupElement[],
  boxes: ReadonlyMap<MarkupElement, Box>,
): Box | null {
  const found = mapPresent(elements, (one) => boxes.get(one) ?? null).filter(
    ({ width, height }) => width > 0 && height > 0,
  );
  const x = Math.max(0, Math.round(Math.min(...found.map((one) => one.x))));
  const y = Math.max(0, Math.round(Math.min(...found.map((one) => one.y))));
  const right = Math.round(Math.max(...found.map((one) => one.x + one.width)));
  const bottom = Math.round(Math.max(...found.map((one) => one.y + one.height)));
  const isThere = found.length > 0 && right > x && bottom > y;
  if (!isThere) return null;
  const { width, height } = MOST_SHOWN;
  return { x, y, width: Math.min(right - x, width), height: Math.min(bottom - y, height) };
}
