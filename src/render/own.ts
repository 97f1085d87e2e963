import type {
  Baseline,
  ElementFact,
  FrameFact,
  HostPart,
  HostPartFact,
  MediaFact,
  PictureFact,
  Source,
} from '../core/evidence.js';
import { matchParsed } from '../core/markup/match.js';
import type { Belongs, ServedPage } from './sources.js';
import type { RawElement, RawPage } from './collect/elements.js';
import type { RawObjects } from './collect/objects.js';
import type { Owner } from './requests.js';
import { Selectors } from './selectors.js';

/** What was read in the page, parted into the snippet's own and the host's. */
export interface Parted {
  elements: ElementFact[];
  frames: FrameFact[];
  media: MediaFact[];
  pictures: PictureFact[];
  /** Host parts by their offset in the host's source. */
  parts: Map<number, HostPart & { tag: string }>;
  /** Selectors of what scripts made. */
  made: string[];
}

/** Who made what scripts made, as far as it was looked into: by the element's id. */
export type Makers = ReadonlyMap<number, Owner>;

/** What the elements of a page are told apart by. */
export interface Whose {
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
export function placeElements(page: ServedPage, raw: RawPage): Placed[] {
  const offsets = matchParsed(page.parsed, raw.order);
  return raw.elements.flatMap((element): Placed[] => {
    // Beyond what is followed nothing tells a script's elements from the parser's.
    if (element.order === null && raw.unplaced) return [];
    const offset = element.order === null ? null : (offsets[element.order] ?? null);
    return [{ element, belongs: offset === null ? { to: 'script' } : page.locate(offset) }];
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

/** Tells the snippet's elements from the host's. */
export function partElements(
  placed: readonly Placed[],
  raw: RawPage,
  objects: RawObjects,
  whose: Whose,
): Parted {
  const parted: Parted = {
    elements: [],
    frames: [],
    media: [],
    pictures: [],
    parts: new Map(),
    made: [],
  };
  const selectors = new Selectors(raw.elements);
  const makers = new Map(whose.makers);
  const madeByHost = new Set(whose.baseline?.made ?? []);
  for (const { element, belongs } of placed) {
    if (belongs.to === 'host') parted.parts.set(belongs.offset, toPart(element));
    if (belongs.to === 'snippet') parted.elements.push(toFact(element, belongs.from, null));
    if (belongs.to !== 'script') continue;
    const selector = selectors.get(element);
    parted.made.push(selector);
    const maker = makers.get(element.id) ?? makers.get(element.parent ?? -1);
    if (maker) makers.set(element.id, maker);
    if (!isOwn(selector, maker, madeByHost, whose)) continue;
    const from = maker?.to === 'snippet' ? maker.from : { script: whose.script, line: null };
    parted.elements.push(toFact(element, from, selector));
  }
  const own = new Map(parted.elements.map((element) => [element.id, element]));
  parted.frames = withElement(objects.frames, own);
  parted.media = withElement(objects.media, own);
  parted.pictures = withElement(objects.pictures, own);
  return parted;
}

/** What a script made is the snippet's where it did make it, or else where the page alone has no such thing. */
function isOwn(
  selector: string,
  maker: Owner | undefined,
  madeByHost: ReadonlySet<string>,
  { changes, hostChanges, baseline }: Whose,
): boolean {
  if (baseline === null || (hostChanges && !changes)) return false;
  if (maker) return maker.to === 'snippet';
  return !madeByHost.has(selector);
}

function withElement<T extends { id: number }>(
  raws: readonly T[],
  own: ReadonlyMap<number, ElementFact>,
) {
  return raws.flatMap((raw) => {
    const element = own.get(raw.id);
    if (!element) return [];
    const { from, selector, box, shown, exposed, style } = element;
    return [{ ...raw, from, selector, box, shown, exposed, style }];
  });
}

function toFact(element: RawElement, from: Source, selector: string | null): ElementFact {
  const { order: _order, name: _name, look: _look, ...fact } = element;
  return { ...fact, from, selector };
}

function toPart(element: RawElement): HostPart & { tag: string } {
  return { tag: element.tag, box: element.box, shown: element.shown, style: element.look };
}

/** The host parts that are not as they are without the snippet; unsteady ones are left out. */
export function compareParts(parts: Parted['parts'], baseline: Baseline | null): HostPartFact[] {
  if (!baseline) return [];
  const found: HostPartFact[] = [];
  for (const [key, before] of Object.entries(baseline.parts)) {
    const offset = Number(key);
    const now = parts.get(offset) ?? null;
    if (!before.steady || (now && isSame(before, now))) continue;
    const { tag, steady: _steady, ...without } = before;
    found.push({
      offset,
      tag,
      without,
      with: now && { box: now.box, shown: now.shown, style: now.style },
    });
  }
  return found;
}

/** Whether two readings of a part agree. A shift down is no change: content above has a height. */
export function isSame(a: HostPart, b: HostPart): boolean {
  const near = (x: number, y: number) => Math.abs(x - y) <= 1;
  return (
    near(a.box.x, b.box.x) &&
    near(a.box.width, b.box.width) &&
    a.shown === b.shown &&
    a.style === b.style
  );
}
