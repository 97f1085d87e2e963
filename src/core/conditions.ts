import type { About } from './check.js';
import type { Evidence } from './evidence.js';
import { getSlotRange } from './house/house.js';
import { flatMap, mapPresent } from './lists.js';
import { getRenderKey, type Render, type Viewport } from './render.js';
import { gatherRooms, toWidth } from './search/rooms.js';
import type { Snippet } from './snippet.js';

/** What code and styles can ask of a window and of a visitor, by the words they do it with (Media Queries 5; CSSOM View). */
const ASKS = {
  dark: /prefers-color-scheme|light-dark\(|color-scheme["'\s]*[:=][^;}"']*\bdark\b/i,
  calm: /prefers-reduced-motion/i,
  contrast: /prefers-contrast/i,
  forced: /forced-colors/i,
  sideways: /\(\s*orientation\s*:|\(\s*((min|max)-)?(device-)?aspect-ratio|screen\.orientation/i,
  low: /\(\s*(min|max)-(device-)?height\s*:\s*[\d.]+(px|r?em)|\(\s*height\s*[<>]=?\s*[\d.]+(px|r?em)|[\d.]+(px|r?em)\s*[<>]=?\s*height\b|\binnerHeight(\s*[<>]=?\s*\d+)?/i,
  again: /\blocalStorage\b|\bindexedDB\b|document\.cookie|\bcookieStore\b/i,
  width:
    /\b(inner|client|outer|offset)Width\s*[<>]=?\s*\d{3,4}\b|\b\d{3,4}\s*[<>]=?\s*[\w.]*\.?(inner|client|outer)Width|matchMedia\(\s*["'`][^"'`]*width[^"'`]*/i,
} as const;
type Ask = keyof typeof ASKS;

/** So many different phrases of a text are kept, and so much of each. */
const MOST_PHRASES = 60;
const LONGEST = 120;

/** The phrases in which a text asks for something, each once. */
export function listAskedConditions(text: string): string[] {
  const found = new Set<string>();
  for (const pattern of Object.values(ASKS))
    for (const [phrase] of text.matchAll(new RegExp(pattern, 'gi'))) {
      if (found.size >= MOST_PHRASES) return [...found];
      found.add(phrase.slice(0, LONGEST).toLowerCase().replace(/\s+/g, ' '));
    }
  return [...found];
}

/** What is unusual about a window, and how that is said. */
interface Unusual {
  short: string;
  words: string;
  /** null where a window cannot be so, or is so already. */
  apply(viewport: Viewport): Viewport | null;
}

/** A window whose visitor has said what is wished for (Media Queries 5). */
const saying = (feature: string, value: string) => (viewport: Viewport) => ({
  ...viewport,
  media: { ...viewport.media, [feature]: value },
});

const describe = (short: string, words: string, apply: Unusual['apply']): Unusual => ({
  ...{ short, words, apply },
});

/** What each of them asks for, in this order; how low or wide a window is to be its phrase says. */
const UNUSUAL: Record<Exclude<Ask, 'low' | 'width'>, Unusual> = {
  dark: describe('dark', 'in the dark scheme', (viewport) =>
    viewport.scheme === 'dark' ? null : { ...viewport, scheme: 'dark' },
  ),
  calm: describe(
    'less motion',
    'for visitors who want less motion',
    saying('prefers-reduced-motion', 'reduce'),
  ),
  contrast: describe(
    'more contrast',
    'for visitors who want more contrast',
    saying('prefers-contrast', 'more'),
  ),
  forced: describe(
    'forced colours',
    'with colours of the visitor’s own',
    saying('forced-colors', 'active'),
  ),
  sideways: describe('sideways', 'with the phone held sideways', ({ width, height, ...rest }) =>
    rest.touch && width < height ? { ...rest, width: height, height: width } : null,
  ),
  again: describe('second visit', 'on a second visit', (viewport) => ({ ...viewport, visit: 2 })),
};

const NAMED = Object.keys(UNUSUAL) as (keyof typeof UNUSUAL)[];

function makeLow(height: number): Unusual {
  const apply = (viewport: Viewport) => (height < viewport.height ? { ...viewport, height } : null);
  return describe(`${height} px high`, `in a window ${height} px high`, apply);
}

/** A phone that is held sideways is about as high, px. */
const LOW = 390;
const LEAST_HEIGHT = 200;
const MOST_HEIGHTS = 2;

/** The conditions that phrases ask for. */
function listConditions(phrases: readonly string[]): Unusual[] {
  const low = phrases.filter((one) => ASKS.low.test(one));
  const heights = new Set(low.map(getHeight).filter((height) => height >= LEAST_HEIGHT));
  const lowest = [...heights].sort((a, b) => a - b).slice(0, MOST_HEIGHTS);
  const named = NAMED.filter((ask) => phrases.some((one) => ASKS[ask].test(one)));
  return [...named.map((ask) => UNUSUAL[ask]), ...lowest.map(makeLow)];
}

const EM = 16;

/** The highest window that is low by its words: of `min-height` one px less. */
function getHeight(phrase: string): number {
  const found = /([\d.]+)(px|r?em)?/.exec(phrase);
  if (!found) return LOW;
  const px = Number(found[1]) * (found[2] && found[2] !== 'px' ? EM : 1);
  return /min-|[<>](?!=)/.test(phrase) ? Math.ceil(px) - 1 : Math.floor(px);
}

const MOST_WIDTHS = 6;
const LEAST_WIDTH = 200;

/** The windows on both sides of each width that code asks for, px. */
function listWidths(phrases: readonly string[]): number[] {
  const asking = phrases.filter((one) => ASKS.width.test(one));
  const asked = flatMap(asking, (one) => mapPresent(one.match(/\d{3,4}/g) ?? [], Number));
  const around = flatMap(asked, (width) => [width - 1, width, width + 1]);
  const windows = [...new Set(around)].filter((width) => width >= LEAST_WIDTH);
  return windows.sort((a, b) => a - b).slice(0, MOST_WIDTHS);
}

/**
 * The windows that the snippet, its files or the page around ask for, and that are not among those it was rendered
 * in: each condition that the snippet names itself in the narrowest and the widest window of each slot, those
 * that its files name together; of a page as it is published none.
 */
export function planConditions(
  evidence: readonly Evidence[],
  { markup, house }: Pick<About, 'markup' | 'house'>,
  { published }: Pick<Snippet, 'published'>,
): Render[] {
  if (published) return [];
  const atRest = evidence.filter(({ render }) => isPlain(render));
  const own = listAskedConditions(markup.text);
  const files = flatMap(atRest, ({ asks }) => asks.files);
  const page = flatMap(atRest, ({ asks }) => asks.page);
  const sets = gatherSets(listConditions(own), listConditions(files), listConditions(page));
  const widths = listWidths([...own, ...files]);
  const planned = flatMap(gatherRooms(atRest), (room) => {
    const renders = room
      .map(({ render }) => render)
      .sort((a, b) => a.viewport.width - b.viewport.width);
    const ends = new Set([renders[0]!, renders.at(-1)!]);
    return [
      ...flatMap([...ends], (render) => mapPresent(sets, (set) => applyAll(render, set))),
      ...widths.map((width) => toLike(renders, width)),
    ];
  });
  const known = new Set(atRest.map(({ render }) => getWindowKey(render)));
  const fresh = new Map(planned.map((render) => [getRenderKey(render), render])).values();
  const isThere = ({ snippets, viewport }: Render) => {
    const slot = house.slots.find(({ name }) => name === snippets[0]?.slot);
    return slot !== undefined && getSlotRange(slot, viewport.width) !== null;
  };
  return [...fresh].filter((one) => !known.has(getWindowKey(one)) && isThere(one));
}

/** Which conditions are tried at a time: what the snippet names one by one, what only its files name together. */
function gatherSets(
  own: readonly Unusual[],
  files: readonly Unusual[],
  page: readonly Unusual[],
): Unusual[][] {
  const isNew = (known: readonly Unusual[]) => (one: Unusual) =>
    !known.some(({ words }) => words === one.words);
  const more = files.filter(isNew(own));
  const rest = page.filter(isNew([...own, ...more]));
  return [...own.map((one) => [one]), more, rest].filter((set) => set.length > 0);
}

/** It is of the page as it is, in a window of the plan. */
function isPlain({ variant, viewport }: Render): boolean {
  return variant === 'as-is' && viewport.condition === '';
}

/** What is the same window, whatever it is called. */
function getWindowKey({ insert, snippets, viewport }: Render): string {
  const { width, height, scheme, media, touch, visit } = viewport;
  return JSON.stringify([insert, snippets, width, height, scheme, media, touch, visit]);
}

function applyAll(render: Render, conditions: readonly Unusual[]): Render | null {
  let { viewport } = render;
  const applied = conditions.filter(({ apply }) => {
    const next = apply(viewport);
    viewport = next ?? viewport;
    return next !== null;
  });
  if (applied.length === 0) return null;
  const name = `${viewport.name} (${applied.map(({ short }) => short).join(', ')})`;
  const condition = applied.map(({ words }) => words).join(' and ');
  return { ...render, viewport: { ...viewport, name, condition }, search: [] };
}

/** Of the kind of the next one that is wider, or of the widest. @param room the narrowest window first */
function toLike(room: readonly Render[], width: number): Render {
  const like = room.find(({ viewport }) => viewport.width >= width) ?? room.at(-1)!;
  const names = room.map(({ viewport }) => viewport.name);
  return toWidth(like, width, names);
}
