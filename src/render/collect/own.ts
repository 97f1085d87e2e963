import type {
  Baseline,
  Box,
  ElementFact,
  HostPart,
  HostPartFact,
  Source,
} from '../../core/evidence.js';
import { flatMap } from '../../core/lists.js';
import { findRising } from '../../core/rising.js';
import { isDisplaced } from '../../core/measure/host-damage.js';
import { matchParsed } from '../../core/markup/match.js';
import type { RawElement } from '../in-page/elements.js';
import type { RawObjects } from '../reader/objects.js';
import type { Belongs, ServedPage } from '../page/served-page.js';
import type { Owner } from './requests.js';
import { Selectors } from './selectors.js';

/** What a part of the page is known by. */
interface Named {
  /** Its number in the page that was read. */
  node?: number;
  tag: string;
  id: string;
  words: string;
  /** Its place among the parts, in the order of the tree. */
  rank: number;
}

/** What was read in the page, parted into the snippets' own and the host's. */
export interface Parted {
  elements: ElementFact[];
  /** Host parts by their offset in the host's source. */
  parts: Map<number, HostPart & Named>;
  /** Selectors of what scripts made. */
  made: string[];
}

/** Who made what scripts made, as far as it was looked into: by the element's id. */
export type Makers = ReadonlyMap<number, Owner>;

/** What the elements of a page are told apart by. */
export interface Whose {
  /** Which of the render's snippets is meant. */
  of: number;
  /** The snippet, and the page without it, have code: what has none makes nothing. */
  changes: boolean;
  hostChanges: boolean;
  /** Offset of the snippet's script to name for what a script made, where it is not known which one did. */
  script: number | null;
  /** The page without the snippet; null while that itself is rendered. */
  baseline: Baseline | null;
  makers: Makers;
}

/** An element with whose it is, as far as its place in the source tells. */
interface Placed {
  element: RawElement;
  belongs: Belongs;
}

/** Holds what was read against the page's source. What is not known at all is left out. */
export function placeElements(
  page: ServedPage,
  elements: readonly RawElement[],
  { order, late, unplaced }: Pick<RawObjects, 'order' | 'late' | 'unplaced'>,
): Placed[] {
  const matched = matchParsed(page.parsed, order);
  const latecomers = new Map(
    page.late.map(({ slot, snippet, parsed }) => [
      slot,
      { snippet, matched: matchParsed(parsed, late[slot] ?? []) },
    ]),
  );
  return flatMap(elements, (element): Placed[] => {
    const from = element.late && latecomers.get(element.late.slot);
    const put = from?.matched[element.late!.at] ?? null;
    if (from && put !== null) {
      const { offset } = put;
      return [{ element, belongs: { to: 'snippet', snippet: from.snippet, from: { offset } } }];
    }
    // Beyond what is followed nothing tells a script's elements from the parser's.
    if (element.order === null && unplaced) return [];
    const parsed = element.order === null ? null : (matched[element.order] ?? null);
    if (parsed === null) return [{ element, belongs: { to: 'script' } }];
    const belongs = page.locate(parsed.offset);
    // What is opened once more around the page's own is no piece of either.
    const astray = parsed.again && (element.slot === null || belongs.to === 'host');
    return astray ? [] : [{ element, belongs }];
  });
}

/** The outermost of what scripts made: what stands in one of them was made with it. */
export function listMade(placed: readonly Placed[]): number[] {
  const made = new Set(placed.filter(isMade).map(({ element }) => element.id));
  return placed
    .filter((one) => isMade(one) && !made.has(one.element.parent ?? -1))
    .map(({ element }) => element.id);
}

function isMade({ belongs }: Placed): boolean {
  return belongs.to === 'script';
}

/** Tells a snippet's elements from the host's, and from those of other snippets. */
export function partElements(
  placed: readonly Placed[],
  elements: readonly RawElement[],
  whose: Whose,
): Parted {
  const parted: Parted = { elements: [], parts: new Map(), made: [] };
  const selectors = new Selectors(elements);
  const makers = new Map(whose.makers);
  const madeByHost = new Set(whose.baseline?.made ?? []);
  for (const { element, belongs } of placed) {
    if (belongs.to === 'host') parted.parts.set(belongs.offset, toPart(element, parted.parts.size));
    if (belongs.to === 'snippet' && belongs.snippet === whose.of)
      parted.elements.push(toFact(element, belongs.from, null));
    if (belongs.to !== 'script') continue;
    const selector = selectors.get(element);
    parted.made.push(selector);
    const maker = makers.get(element.id) ?? makers.get(element.parent ?? -1);
    if (maker) makers.set(element.id, maker);
    if (!isOwn(element, selector, maker, madeByHost, whose)) continue;
    const from = maker?.to === 'snippet' ? maker.from : { script: whose.script, line: null };
    parted.elements.push(toFact(element, from, selector));
  }
  return parted;
}

/** What a script made is the snippet's where it did make it, or else where the page alone has no such thing. */
function isOwn(
  { slot }: RawElement,
  selector: string,
  maker: Owner | undefined,
  madeByHost: ReadonlySet<string>,
  { of, changes, hostChanges, baseline }: Whose,
): boolean {
  if (baseline === null || (hostChanges && !changes)) return false;
  if (maker) return maker.to === 'snippet' && maker.snippet === of;
  // What stands in another snippet's slot is that one's.
  return !madeByHost.has(selector) && (slot === null || slot === of);
}

function toFact(element: RawElement, from: Source, selector: string | null): ElementFact {
  const { order: _order, late: _late, name: _name, look: _look, slot: _slot, ...rest } = element;
  const { words: _words, clickable: _clickable, said: _said, ...fact } = rest;
  return { ...fact, from, selector };
}

function toPart(element: RawElement, rank: number): HostPart & Named {
  return {
    rank,
    node: element.id,
    tag: element.tag,
    id: element.name,
    words: element.words,
    clickable: element.clickable,
    box: element.box,
    shown: element.shown,
    style: element.look,
    ...element.said,
  };
}

/** The host parts that are not as they are without the snippet; unsteady ones are left out. */
/** @param slot where the snippet stands */
export function compareParts(
  parts: Parted['parts'],
  baseline: Baseline | null,
  slot: Box,
): HostPartFact[] {
  if (!baseline) return [];
  const found: HostPartFact[] = [];
  const reordered = listReordered(parts, baseline);
  for (const [key, before] of Object.entries(baseline.parts)) {
    const offset = Number(key);
    const now = parts.get(offset) ?? null;
    const isPushed = before.stands && now !== null && isDisplaced(before.box, now.box, slot);
    const displaced = isPushed || reordered.has(offset);
    if (!before.steady || (now && !displaced && isSame(before, now))) continue;
    const { tag, words } = before;
    found.push({
      offset,
      tag,
      words,
      fits: [],
      displaced,
      without: pickPart(before),
      with: now && pickPart(now),
    });
  }
  return found;
}

/** The parts that stand before or behind others that they did not: as few as explain it. */
function listReordered(parts: Parted['parts'], { parts: before }: Baseline): ReadonlySet<number> {
  const all = flatMap([...parts], ([offset, { rank }]) => {
    const was = before[offset]?.rank ?? null;
    return was === null ? [] : [{ offset, was, rank }];
  });
  const kept = new Set(findRising(all.sort((a, b) => a.rank - b.rank)));
  return new Set(flatMap(all, (one) => (kept.has(one) ? [] : [one.offset])));
}

/** A part, without what it is known by. */
export function pickPart(part: HostPart): HostPart {
  const { box, shown, style, clickable, says, leads } = part;
  return { box, shown, style, clickable, says, leads };
}

/** Whether two readings of a part agree. A shift down is no change: content above has a height. */
export function isSame(a: HostPart, b: HostPart): boolean {
  const near = (x: number, y: number) => Math.abs(x - y) <= 1;
  return (
    near(a.box.x, b.box.x) &&
    near(a.box.width, b.box.width) &&
    a.shown === b.shown &&
    a.clickable === b.clickable &&
    a.style === b.style &&
    a.says === b.says &&
    a.leads === b.leads
  );
}
