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

/**
 * Tells the snippet's elements from the host's. What a script made is put down to the snippet, unless
 * the same stands in the page without it.
 * @param script offset of the snippet's script to name for what a script made; null where there is none
 */
export function partElements(
  page: ServedPage,
  raw: RawPage,
  objects: RawObjects,
  script: number | null,
  baseline: Baseline | null,
): Parted {
  const madeByHost = new Set(baseline?.made ?? []);
  const offsets = matchParsed(page.parsed, raw.order);
  const parted: Parted = {
    elements: [],
    frames: [],
    media: [],
    pictures: [],
    parts: new Map(),
    made: [],
  };
  const selectors = new Selectors(raw.elements);
  for (const element of raw.elements) {
    const belongs = getBelongs(page, element, offsets);
    if (belongs.to === 'host') parted.parts.set(belongs.offset, toPart(element));
    if (belongs.to === 'host') continue;
    if (belongs.to === 'snippet') {
      parted.elements.push(toFact(element, belongs.from, null));
      continue;
    }
    const selector = selectors.get(element);
    parted.made.push(selector);
    if (!madeByHost.has(selector))
      parted.elements.push(toFact(element, { script, line: null }, selector));
  }
  const own = new Map(parted.elements.map((element) => [element.id, element]));
  parted.frames = withElement(objects.frames, own);
  parted.media = withElement(objects.media, own);
  parted.pictures = withElement(objects.pictures, own);
  return parted;
}

function withElement<T extends { id: number }>(
  raws: readonly T[],
  own: ReadonlyMap<number, ElementFact>,
) {
  return raws.flatMap((raw) => {
    const element = own.get(raw.id);
    if (!element) return [];
    const { from, selector, box, shown, style } = element;
    return [{ ...raw, from, selector, box, shown, style }];
  });
}

function getBelongs(
  page: ServedPage,
  element: RawElement,
  offsets: readonly (number | null)[],
): Belongs {
  const offset = element.order === null ? null : (offsets[element.order] ?? null);
  return offset === null ? { to: 'script' } : page.locate(offset);
}

function toFact(element: RawElement, from: Source, selector: string | null): ElementFact {
  const { id, parent, tag, box, inkLeft, inkRight, shown, clipped, style } = element;
  return { id, parent, tag, from, selector, box, inkLeft, inkRight, shown, clipped, style };
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
