import type { Interval, Room, WideSpan, WidthSpan } from '../../../core/evidence.js';
import { flatMap } from '../../../core/lists.js';
import { covers } from '../../../core/search/spans.js';
import type { Overflowing } from './fit.js';

/** A span of an element that is known by its number. */
export type RawSpan = Omit<WidthSpan, 'element'> & { element: number | null };

/** How the page is at one window's width. */
export interface Sample {
  width: number;
  /** The slot's content width, px; 0 where there is none. */
  room: number;
  /** What reaches beyond what; '' where nothing does. Windows of the same are taken to be alike. */
  sign: string;
  scrollWidth: number;
}

/** What is too wide from one window to another, as it was read in both; of what is in both the worse. */
export function toSpans(
  first: readonly Overflowing[],
  last: readonly Overflowing[],
  from: number,
  to: number,
) {
  const others = new Map(last.map((one) => [getTrailKey(one), one]));
  const inBoth = flatMap(first, (one): RawSpan[] => {
    const other = others.get(getTrailKey(one));
    if (!other) return [toSpan(one, from)];
    others.delete(getTrailKey(one));
    const worst = other.overhang > one.overhang ? toSpan(other, to) : toSpan(one, from);
    return [{ ...worst, from, to }];
  });
  return [...inBoth, ...[...others.values()].map((one) => toSpan(one, to))];
}

function toSpan({ for: what, element, overhang }: Overflowing, width: number): RawSpan {
  return { for: what, element, from: width, to: width, most: overhang, at: width, near: false };
}

/** Fits of one key are of the same thing. */
export function getTrailKey({ for: what, element }: Pick<Overflowing, 'for' | 'element'>): string {
  return `${what} ${element ?? ''}`;
}

/** The windows that were tried, from the narrowest to the widest, and what they come to together. */
export class Trail {
  readonly #samples: readonly Sample[];
  readonly #tried: ReadonlySet<number>;
  readonly #intervals: readonly Interval[];
  readonly #places: ReadonlyMap<number, number>;

  constructor(
    samples: readonly Sample[],
    tried: ReadonlySet<number>,
    intervals: readonly Interval[],
  ) {
    this.#samples = samples;
    this.#tried = tried;
    this.#intervals = intervals;
    this.#places = new Map(samples.map(({ width }, i) => [width, i]));
  }

  /** Joins what follows on each other, and says where an edge is not exact. */
  join(spans: readonly RawSpan[]): RawSpan[] {
    const joined: RawSpan[] = [];
    const last = new Map<string, RawSpan>();
    for (const span of [...spans].sort((a, b) => a.from - b.from)) {
      const before = last.get(getTrailKey(span));
      if (before && this.#follows(before, span)) {
        before.to = span.to;
        if (span.most > before.most) Object.assign(before, { most: span.most, at: span.at });
        continue;
      }
      const fresh = { ...span };
      last.set(getTrailKey(span), fresh);
      joined.push(fresh);
    }
    return joined.map((span) => ({ ...span, near: !this.#isExact(span) }));
  }

  /** Whether no window was tried between the two. */
  #follows({ to }: Interval, { from }: Interval): boolean {
    return from === to + 1 || this.#places.get(from) === (this.#places.get(to) ?? NaN) + 1;
  }

  /** Whether the windows on both sides were tried, or are not searched. */
  #isExact({ from, to }: RawSpan): boolean {
    const isKnown = (width: number) => this.#tried.has(width) || !this.#isSearched(width);
    return isKnown(from - 1) && isKnown(to + 1);
  }

  #isSearched(width: number): boolean {
    return this.#intervals.some((interval) => covers(interval, width));
  }

  /** The slots there were, by their widths: one that is there in several windows fits where it fits in all. */
  listRooms(spans: readonly RawSpan[]): Room[] {
    const byWidth = new Map<number, boolean>();
    for (const { width, room } of this.#samples) {
      if (room === 0) continue;
      const fits = !spans.some((span) => covers(span, width));
      byWidth.set(room, fits && (byWidth.get(room) ?? true));
    }
    const rooms: Room[] = [];
    for (const [width, fits] of [...byWidth].sort(([a], [b]) => a - b)) {
      const before = rooms.at(-1);
      if (before?.fits === fits) before.to = width;
      else rooms.push({ from: width, to: width, fits });
    }
    return rooms;
  }

  /** Where the page is wider than the window. */
  listWide(): WideSpan[] {
    const wide: WideSpan[] = [];
    let before: Sample | null = null;
    for (const sample of this.#samples) {
      const { width, scrollWidth, sign } = sample;
      const known = wide.at(-1);
      if (sign === '') before = null;
      else if (known && before?.sign === sign) known.to = width;
      else wide.push({ from: width, to: width, scrollWidth });
      if (sign !== '') before = sample;
    }
    return wide;
  }
}
