import * as z from 'zod';
import { intervalSchema } from '../facts/widths/fact.js';

/** How a page is looked at. Sizes in CSS px. */
export const viewportSchema = z.object({
  name: z.string(),
  width: z.number(),
  height: z.number(),
  density: z.number(),
  touch: z.boolean(),
  scrollBars: z.enum(['classic', 'overlay']),
  scheme: z.enum(['light', 'dark']),
  /** What the browser is to say of itself; null for what it says at such a viewport. */
  userAgent: z.string().nullable(),
  /** What the browser says of the visitor's wishes besides (Media Queries 5), by media feature. */
  media: z.record(z.string(), z.string()).default({}),
  /** Which visit it is: at the second there is what the first has stored. */
  visit: z.int().min(1).max(2).default(1),
  /** What is unusual about it, in words; '' for a window of the house's. */
  condition: z.string().default(''),
});
export type Viewport = z.output<typeof viewportSchema>;
const VIEWPORT_KEYS = viewportSchema.keyof().options;

const KIND_KEYS = ['touch', 'scrollBars', 'scheme', 'userAgent', 'visit'] as const;

/** Viewports of one kind differ in nothing but size and density: a window of one can be made the other's. */
export function isOneKind(a: Viewport, b: Viewport): boolean {
  const isSame = KIND_KEYS.every((key) => a[key] === b[key]);
  return isSame && JSON.stringify(a.media) === JSON.stringify(b.media);
}

/**
 * How a snippet comes into the page: in its source, put in by a script when it has loaded, in a frame of its
 * own, or in a shadow root.
 */
export const INSERTS = ['inline', 'late', 'frame', 'shadow'] as const;
export type Insert = (typeof INSERTS)[number];

/** What makes a variant: how it differs from the page as it is, and what it is held against. */
export interface Condition {
  /** What the browser says of the visitor's wishes (Media Queries 5), by media feature. */
  media: Readonly<Record<string, string>>;
  /** What stands in the slot: the snippet as it was given, as the site keeps it, or nothing. */
  source: 'given' | 'filtered' | 'none';
  /** The variant with nothing in its slots and all else the same: itself where nothing stands in it. */
  against: Variant;
  /** It is looked at when some of the first minute is over, by the page's own time. */
  later?: true;
  /** Its code is timed in several loads. */
  timed?: true;
  /** One host does not answer: rendered only where somebody asks for that. */
  drilled?: true;
}

/** What is said of the visitor where a condition says nothing else. */
export const USUAL_MEDIA = {
  'prefers-reduced-motion': 'no-preference',
  'prefers-contrast': 'no-preference',
  'forced-colors': 'none',
} as const;
const CALM = { 'prefers-reduced-motion': 'reduce' };

/**
 * In what state a page is looked at: as it is, for a visitor who wants less motion, with the code as the site
 * keeps it, or some time after it was loaded; and with nothing in its slots, where that may look otherwise.
 */
export const VARIANTS = [
  'as-is',
  'empty',
  'reduced-motion',
  'empty-reduced-motion',
  'filtered',
  'timed',
  'outage',
  'minute',
  'empty-minute',
] as const;
export type Variant = (typeof VARIANTS)[number];

/** The page as visitors have it, at rest and later. */
export const AS_VISITED: readonly Variant[] = ['as-is', 'minute'];

export const CONDITIONS: Readonly<Record<Variant, Condition>> = {
  'as-is': { media: {}, source: 'given', against: 'empty' },
  empty: { media: {}, source: 'none', against: 'empty' },
  'reduced-motion': { media: CALM, source: 'given', against: 'empty-reduced-motion' },
  'empty-reduced-motion': { media: CALM, source: 'none', against: 'empty-reduced-motion' },
  filtered: { media: {}, source: 'filtered', against: 'empty' },
  timed: { media: {}, source: 'given', against: 'empty', timed: true },
  outage: { media: {}, source: 'given', against: 'empty', drilled: true },
  minute: { media: {}, source: 'given', against: 'empty-minute', later: true },
  'empty-minute': { media: {}, source: 'none', against: 'empty-minute', later: true },
};

/** One thing for every variant: what `make` gives for it. */
export function forVariants<T>(make: (variant: Variant) => T): Record<Variant, T> {
  return Object.fromEntries(VARIANTS.map((one) => [one, make(one)])) as Record<Variant, T>;
}

export const ENGINE_NAMES = ['chromium'] as const;
export type EngineName = (typeof ENGINE_NAMES)[number];

/** One load in the browser. Plain data: the key of a cache, or a message to another machine. */
export const renderSchema = z.object({
  snippets: z.array(z.object({ name: z.string(), slot: z.string() })).min(1),
  insert: z.enum(INSERTS),
  viewport: viewportSchema,
  engine: z.enum(ENGINE_NAMES),
  variant: z.enum(VARIANTS),
  /** Within how long after it had come to rest, s of the page's own time; null: at rest. */
  after: z.number().nullable().default(null),
  /** Scrolled down by so much then, px; null: not at all. */
  scrolled: z.number().nullable().default(null),
  /** The host that does not answer; left out: each does. */
  outage: z.string().optional(),
  /** Windows that are tried besides, on a copy of the page. */
  search: z.array(intervalSchema),
});
export type Render = z.output<typeof renderSchema>;

/** Where something was looked at, in words that reports use. */
export interface Place {
  slot: string;
  insert: string;
  viewport: string;
  width: number;
  density: number;
  scheme: string;
  /** What is unusual about the window, in words; '' for one of the house's. */
  condition: string;
  engine: string;
  variant: string;
  /** Within how long after the page had come to rest, s of its own time; null: at rest. */
  after: number | null;
  /** Scrolled down by so much, px; null: not at all. */
  scrolled: number | null;
}

/** The place of one of a render's snippets. */
export function getPlace({ render, of }: { render: Render; of: number }): Place {
  const { viewport, insert, engine, after, scrolled, outage } = render;
  const variant = outage === undefined ? render.variant : `${OUTAGE}${outage}`;
  return {
    slot: render.snippets[of]?.slot ?? '',
    insert,
    viewport: viewport.name,
    width: viewport.width,
    density: viewport.density,
    scheme: viewport.scheme,
    condition: viewport.condition,
    engine,
    variant,
    after,
    scrolled,
  };
}

/** How it is told that a host does not answer, before its name. */
const OUTAGE = 'outage:';

/** Places of one key are the same. */
export function getPlaceKey(place: Place): string {
  const { slot, insert, viewport, engine, variant } = place;
  return [slot, insert, viewport, engine, variant, ...listMoment(place)].join(' ');
}

/** When it was looked at, where that was not at once. */
function listMoment({ after, scrolled }: Pick<Place, 'after' | 'scrolled'>): number[] {
  return [after, scrolled].filter((one) => one !== null);
}

/** Renders of one key are the same: for whatever is kept by render. */
export function getRenderKey(render: Render): string {
  const { snippets, insert, viewport, engine, variant, search, outage } = render;
  return JSON.stringify([
    snippets.map(({ name, slot }) => [name, slot]),
    [insert, engine, variant, ...listMoment(render), ...(outage === undefined ? [] : [outage])],
    VIEWPORT_KEYS.map((key) => viewport[key]),
    search,
  ]);
}

/** The same page under the same conditions with nothing in its slots: what a render is held against. */
export function getEmpty(render: Render): Render {
  const snippets = render.snippets.map(({ slot }) => ({ name: '', slot }));
  // Only a frame has another page around it.
  const insert = render.insert === 'frame' ? 'frame' : 'inline';
  const { against: variant } = CONDITIONS[render.variant];
  const { outage: _, ...rest } = render;
  return { ...rest, snippets, insert, variant, after: null, scrolled: null };
}

/** The host that did not answer there; null where each did. */
export function getSilent({ variant }: Pick<Place, 'variant'>): string | null {
  return variant.startsWith(OUTAGE) ? variant.slice(OUTAGE.length) : null;
}

/** In what state a page was looked at, as reports name it; '' for the usual one. */
export function nameState({
  variant,
  after,
  scrolled,
}: Pick<Place, 'variant' | 'after' | 'scrolled'>): string {
  const silent = getSilent({ variant });
  if (silent !== null) return `without ${silent}${after === null ? '' : ` for ${after} s`}`;
  if (scrolled !== null) return `scrolled by ${scrolled} px`;
  if (after !== null) return `within ${after} s`;
  return variant === 'as-is' ? '' : variant;
}

/** A slot as reports name it, with how code comes into it where that is not the usual way. */
export function nameRoom({ slot, insert }: Pick<Place, 'slot' | 'insert'>): string {
  return insert === 'inline' ? slot : `${slot} (${insert})`;
}
