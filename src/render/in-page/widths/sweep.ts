import type { Interval, Room, WideSpan } from '../../../core/evidence.js';
import { flatMap } from '../../../core/lists.js';
import { findSlot } from '../slots.js';
import { TOLERANCE } from '../../../core/measure/culprits.js';
import { getEdge } from '../styles.js';
import { listEdges } from './edges.js';
import type { PageCopy } from './copy.js';
import { readFit, type Overflowing, type FitWish } from './fit.js';
import { getTrailKey, toSpans, Trail, type RawSpan, type Sample } from './trail.js';
import { getWide } from '../../../core/search/spans.js';

/** What is searched for, and where. */
export interface SweepWish extends Omit<FitWish, 'only'> {
  intervals: readonly Interval[];
}

/** What came of it. */
export interface Swept {
  tried: number;
  spans: RawSpan[];
  rooms: Room[];
  wide: WideSpan[];
}

/**
 * So far apart two windows may be that are tried, px: where the slot is wider in one, where besides a
 * condition of its own may hold between them, where it is as wide in both, and where what sticks out differs.
 */
const FAR = 64;
const NEAR = 16;
const FARTHEST = 512;
const CLOSE = 4;
/** What fits in two windows and yet not between them: its parts are dealt out anew at every width. */
const RESTLESS = /column|calc\(|min\(|max\(|clamp\(|auto-fi|\d(vw|vi|vmin|vmax|cqw|cqi)\b/;
/** No page is searched for longer, ms. */
const LONGEST = 3000;

/**
 * Tries windows on a copy of the page: one in so many, and those at the edges that its styles name. Where two
 * differ those between them are tried, until the edge is found.
 */
export class Sweep {
  readonly #copy: PageCopy;
  readonly #wish: SweepWish;
  readonly #slot: Element | null;
  readonly #own: { id: number; node: Element }[];
  readonly #fits = new Map<number, Overflowing[]>();
  readonly #far: number;
  readonly #only: ReadonlySet<Element>;
  readonly #end = performance.now() + LONGEST;

  constructor(copy: PageCopy, wish: SweepWish) {
    this.#copy = copy;
    this.#wish = wish;
    this.#slot = findSlot(copy.page, wish.slot);
    this.#far = getFar(this.#slot);
    this.#own = flatMap(wish.ids, (id) => {
      const node = copy.get(id);
      return node ? [{ id, node }] : [];
    });
    const nodes = this.#own.map(({ node }) => node);
    this.#only = withAncestors(this.#slot ? [this.#slot, ...nodes] : nodes);
  }

  run(): Swept {
    const samples = flatMap(this.#wish.intervals, (interval) => this.#try(interval));
    const spans = flatMap(listRuns(samples), (run) => this.#readRun(run));
    const tried = new Set([...samples.map(({ width }) => width), ...this.#fits.keys()]);
    const trail = new Trail(samples, tried, this.#wish.intervals);
    const joined = trail.join(spans);
    return {
      tried: tried.size,
      spans: joined,
      rooms: trail.listRooms(joined),
      wide: this.#own.length === 0 ? trail.listWide() : [],
    };
  }

  get #isOver(): boolean {
    return performance.now() > this.#end;
  }

  /** Tries an interval's windows, coarsely, then all of those where anything is too wide. */
  #try({ from, to }: Interval): Sample[] {
    const edges = flatMap(listEdges(this.#copy.page), (edge) => [edge - 1, edge, edge + 1]);
    const first = new Set([from, to, ...edges]);
    for (let width = from; width < to; width += FARTHEST) first.add(width);
    const widths = [...first].filter((one) => one >= from && one <= to).sort((a, b) => a - b);
    const samples = widths.map((width) => this.#test(width));
    const coarse = flatMap(samples, (one, i) => [one, ...this.#tryBetween(one, samples[i + 1])]);
    return flatMap(coarse, (one, i) => {
      const next = coarse[i + 1];
      const isOut = one.sign !== '' || next?.sign !== '';
      const isTried = next === undefined || !isOut || this.#isSettled(one, next);
      return isTried ? [one] : [one, ...this.#tryAll(one.width + 1, next.width)];
    });
  }

  /** Whether what reaches out in both does so between them too, as what fits in both fits between them. */
  #isSettled(a: Sample, b: Sample): boolean {
    return isAlike(a, b) || (a.sign === b.sign && this.#far > 1);
  }

  /** Halves what lies between two, as long as they are too far apart. */
  #tryBetween(a: Sample, b: Sample | undefined): Sample[] {
    if (!b || this.#isOver || b.width - a.width <= this.#getReach(a, b)) return [];
    const half = this.#test(Math.floor((a.width + b.width) / 2));
    return [...this.#tryBetween(a, half), half, ...this.#tryBetween(half, b)];
  }

  #getReach(a: Sample, b: Sample): number {
    if (isAlike(a, b)) return FARTHEST;
    return a.sign === b.sign ? this.#far : Math.min(this.#far, CLOSE);
  }

  #tryAll(from: number, end: number): Sample[] {
    const samples: Sample[] = [];
    for (let width = from; width < end && !this.#isOver; width++) samples.push(this.#test(width));
    return samples;
  }

  #test(width: number): Sample {
    this.#copy.setWidth(width);
    const root = this.#copy.page.documentElement;
    const edge = Math.max(root.clientWidth, getWide(this.#wish.wide, width));
    const { scrollWidth } = root;
    const { room, sign } = this.#look(edge);
    const isWide = scrollWidth > edge + TOLERANCE;
    // Without a snippet it is the page's own width that is asked for.
    const how = isWide ? `page${this.#own.length === 0 ? scrollWidth : ''}` : '';
    return { width, room, scrollWidth, sign: how + sign };
  }

  /** What of the snippet reaches beyond the slot or the window. */
  #look(edge: number): { room: number; sign: string } {
    if (!this.#slot) return { room: 0, sign: '' };
    const box = this.#slot.getBoundingClientRect();
    const style = getComputedStyle(this.#slot);
    const left = box.left + getEdge(style, 'left');
    const right = box.right - getEdge(style, 'right');
    let sign = this.#slot.scrollWidth > this.#slot.clientWidth ? ' slot' : '';
    const ends: { id: number; end: number }[] = [];
    for (const { id, node } of this.#own) {
      const { left: x, right: end, width, height } = node.getBoundingClientRect();
      if (width + height === 0) continue;
      const out = `${x < left - TOLERANCE ? '<' : ''}${end > right + TOLERANCE ? '>' : ''}`;
      const far = `${x < -TOLERANCE ? '<' : ''}${end > edge + TOLERANCE ? '>' : ''}`;
      if (out || far) sign += ` ${id}${out}${far}`;
      if (out) ends.push({ id, end });
    }
    // Who reaches farthest is to blame.
    const most = Math.max(...ends.map(({ end }) => end));
    if (ends.length > 1)
      sign += ` ${flatMap(ends, ({ id, end }) => (end >= most - TOLERANCE ? [id] : []))}`;
    const room = Math.round(Math.max(0, right - left) * 100) / 100;
    return { room, sign: room > 0 || sign ? sign : '' };
  }

  /** What is to blame from one window to another: read in both, and between them only where they differ. */
  #readRun({ from, to }: Interval): RawSpan[] {
    if (this.#own.length === 0) return [];
    const [first, last] = [this.#read(from), this.#read(to)];
    if (getKeys(first) === getKeys(last) || this.#isOver) return toSpans(first, last, from, to);
    const half = Math.floor((from + to) / 2);
    return flatMap(
      [
        { from, to: half },
        { from: half + 1, to },
      ],
      (part) => this.#readRun(part),
    );
  }

  #read(width: number): Overflowing[] {
    const known = this.#fits.get(width);
    if (known) return known;
    this.#copy.setWidth(width);
    const read = this.#copy.asPage(() => readFit({ ...this.#wish, only: this.#only }, width));
    this.#fits.set(width, read);
    return read;
  }
}

function withAncestors(nodes: readonly Element[]): Set<Element> {
  const found = new Set<Element>();
  for (const node of nodes)
    for (let one: Element | null = node; one && !found.has(one); one = one.parentElement)
      found.add(one);
  return found;
}

/** Windows one after the other in which the same reaches beyond the same. */
function listRuns(samples: readonly Sample[]): Interval[] {
  const runs: (Interval & { sign: string })[] = [];
  for (const { width, sign } of samples) {
    const run = runs.at(-1);
    if (run?.sign === sign) run.to = width;
    else runs.push({ from: width, to: width, sign });
  }
  return runs.filter(({ sign }) => sign !== '');
}

/** How far apart windows may be: styles in a slot may deal out room by the window, or in columns; of linked ones that is not known. */
function getFar(slot: Element | null): number {
  const sheets = slot?.querySelectorAll('style') ?? [];
  const styled = slot?.querySelectorAll('[style]') ?? [];
  const css = [
    ...Array.from(sheets, (one) => one.textContent ?? ''),
    ...Array.from(styled, (one) => one.getAttribute('style') ?? ''),
  ];
  if (css.some((text) => RESTLESS.test(text)) || slot?.querySelector('link')) return 1;
  return css.some((text) => text.includes('@container')) ? NEAR : FAR;
}

/** Whether the slot is as wide, and the same reaches beyond the same. */
function isAlike(a: Sample, b: Sample): boolean {
  return a.sign === b.sign && Math.abs(a.room - b.room) < 0.5;
}

function getKeys(fits: readonly Overflowing[]): string {
  return fits.map(getTrailKey).sort().join(' ');
}
