import type { Box, ElementFact, Evidence } from '../evidence.js';
import type { Fact } from '../check.js';
import { flatMap } from '../lists.js';
import { getTagSpan, type Markup } from '../markup/markup.js';
import type { Finding } from '../run.js';
import type { Level } from '../house/house.js';
import { getPlace, getPlaceKey } from '../render.js';

/** A culprit on the shot of a render. */
export interface Mark {
  /** The number of the finding's cause. */
  number: number;
  level: Level;
  /** px of the page. */
  box: Box;
}

/** More of one finding would hide the page. */
const MOST = 8;

/**
 * The culprits in each render, in the order of the evidence. What was not seen anywhere in particular is marked everywhere.
 * @param made what the findings were made from, in their order
 */
export function getMarks(
  markup: Markup,
  evidence: readonly Evidence[],
  findings: readonly Finding[],
  made: readonly { fact: Fact<unknown> }[],
): Mark[][] {
  return evidence.map((one) => {
    const place = getPlaceKey(getPlace(one));
    const marks = flatMap(findings, (finding, i) => {
      const here =
        finding.seen.length === 0 || finding.seen.some((seen) => getPlaceKey(seen) === place);
      if (!here) return [];
      const found = one.elements.filter(getFinder(markup, made[i]!.fact)).filter(isVisible);
      return found
        .slice(0, MOST)
        .map(({ box }) => ({ number: finding.cause, level: finding.level, box }));
    });
    return dropRepeated(marks);
  });
}

/** Of several findings of one cause on one box the first, which is the heaviest, is marked. */
function dropRepeated(marks: readonly Mark[]): Mark[] {
  const known = new Set<string>();
  return marks.filter(({ number, box }) => {
    const key = JSON.stringify([number, box]);
    return !known.has(key) && known.add(key);
  });
}

/** An element, or what a script made, is known; of all else it is the tag that the fault stands in. */
function getFinder(
  markup: Markup,
  { culprit, where }: Fact<unknown>,
): (element: ElementFact) => boolean {
  if (culprit.at === 'made') return ({ selector }) => selector === culprit.selector;
  const offset = culprit.at === 'element' ? culprit.offset : findTag(markup, where.offset);
  return ({ from }) => 'offset' in from && from.offset === offset;
}

function findTag(markup: Markup, offset: number): number | null {
  const element = markup.elements.find((one) => {
    const span = getTagSpan(one);
    return offset >= span.offset && offset < span.endOffset;
  });
  return element?.offset ?? null;
}

function isVisible({ shown, box }: ElementFact): boolean {
  return shown && box.width > 0 && box.height > 0;
}
