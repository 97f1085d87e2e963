import type { About } from './check.js';
import type { Evidence } from './evidence.js';
import { getSlotRange } from './house/house.js';
import { flatMap, mapPresent } from './lists.js';
import { getPlace, getRenderKey, nameRoom, type Render, type Viewport } from './render.js';

/** What code and styles can ask of a window and of a visitor, by the words they do it with (Media Queries 5; CSSOM View). */
const ASKS = {
  dark: /prefers-color-scheme|light-dark\(|color-scheme["'\s]*[:=][^;}"']*\bdark\b/gi,
  calm: /prefers-reduced-motion/gi,
  contrast: /prefers-contrast/gi,
  forced: /forced-colors/gi,
  sideways: /\(\s*orientation\s*:|\(\s*((min|max)-)?(device-)?aspect-ratio|screen\.orientation/gi,
  low: /\(\s*(min|max)-(device-)?height\s*:\s*[\d.]+(px|r?em)|\(\s*height\s*[<>]=?\s*[\d.]+(px|r?em)|[\d.]+(px|r?em)\s*[<>]=?\s*height\b|\binnerHeight(\s*[<>]=?\s*\d+)?/gi,
  again: /\blocalStorage\b|\bindexedDB\b|document\.cookie|\bcookieStore\b/gi,
  width:
    /\b(inner|client|outer|offset)Width\s*[<>]=?\s*\d{3,4}\b|\b\d{3,4}\s*[<>]=?\s*[\w.]*\.?(inner|client|outer)Width|matchMedia\(\s*["'`][^"'`]*width[^"'`]*/gi,
} as const;
type Ask = keyof typeof ASKS;

/** So many different phrases of a text are kept, and so much of each. */
const MOST_PHRASES = 60;
const LONGEST = 120;

/** The phrases in which a text asks for something, each once. */
export function listAsked(text: string): string[] {
  const found = new Set<string>();
  for (const pattern of Object.values(ASKS))
    for (const [phrase] of text.matchAll(pattern)) {
      if (found.size >= MOST_PHRASES) return [...found];
      found.add(phrase.slice(0, LONGEST).toLowerCase().replace(/\s+/g, ' '));
    }
  return [...found];
}

/** What a window has to be like for it, and how that is said. */
interface Condition {
  short: string;
  words: string;
  /** null where a window cannot be so, or is so already. */
  apply(viewport: Viewport): Viewport | null;
}

const saying = (feature: string, value: string) => (viewport: Viewport) => ({
  ...viewport,
  media: { ...viewport.media, [feature]: value },
});

const DARK: Condition = {
  short: 'dark',
  words: 'in the dark scheme',
  apply: (viewport) => (viewport.scheme === 'dark' ? null : { ...viewport, scheme: 'dark' }),
};
const CALM: Condition = {
  short: 'less motion',
  words: 'for visitors who want less motion',
  apply: saying('prefers-reduced-motion', 'reduce'),
};
const CONTRAST: Condition = {
  short: 'more contrast',
  words: 'for visitors who want more contrast',
  apply: saying('prefers-contrast', 'more'),
};
const FORCED: Condition = {
  short: 'forced colours',
  words: 'with colours of the visitor’s own',
  apply: saying('forced-colors', 'active'),
};
const SIDEWAYS: Condition = {
  short: 'sideways',
  words: 'with the phone held sideways',
  apply: ({ width, height, ...rest }) =>
    rest.touch && width < height ? { ...rest, width: height, height: width } : null,
};

const AGAIN: Condition = {
  short: 'second visit',
  words: 'on a second visit',
  apply: (viewport) => ({ ...viewport, visit: 2 }),
};

function makeLow(height: number): Condition {
  const apply = (viewport: Viewport) => (height < viewport.height ? { ...viewport, height } : null);
  return { short: `${height} px high`, words: `in a window ${height} px high`, apply };
}

/** A phone that is held sideways is about as high, px. */
const LOW = 390;
const LEAST_HEIGHT = 200;
const MOST_HEIGHTS = 2;

/** The conditions that phrases ask for. */
function listConditions(phrases: readonly string[]): Condition[] {
  const asks = (ask: Ask) => phrases.some((one) => new RegExp(ASKS[ask], 'i').test(one));
  const low = phrases.filter((one) => new RegExp(ASKS.low, 'i').test(one));
  const heights = new Set(low.map(getHeight).filter((height) => height >= LEAST_HEIGHT));
  return [
    ...(asks('dark') ? [DARK] : []),
    ...(asks('calm') ? [CALM] : []),
    ...(asks('contrast') ? [CONTRAST] : []),
    ...(asks('forced') ? [FORCED] : []),
    ...(asks('sideways') ? [SIDEWAYS] : []),
    ...(asks('again') ? [AGAIN] : []),
    ...[...heights]
      .sort((a, b) => a - b)
      .slice(0, MOST_HEIGHTS)
      .map(makeLow),
  ];
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
  const asking = phrases.filter((one) => new RegExp(ASKS.width, 'i').test(one));
  const asked = flatMap(asking, (one) => mapPresent(one.match(/\d{3,4}/g) ?? [], Number));
  const around = flatMap(asked, (width) => [width - 1, width, width + 1]);
  const windows = [...new Set(around)].filter((width) => width >= LEAST_WIDTH);
  return windows.sort((a, b) => a - b).slice(0, MOST_WIDTHS);
}

/**
 * The windows that the snippet, its files or the page around ask for, and that are not among those it was rendered
 * in: each condition that the snippet names itself in the narrowest and the widest window of each slot, those
 * that its files name together.
 */
export function planConditions(
  evidence: readonly Evidence[],
  { markup, house }: Pick<About, 'markup' | 'house'>,
): Render[] {
  const atRest = evidence.filter(({ render }) => isPlain(render));
  const own = listAsked(markup.text);
  const files = flatMap(atRest, ({ asks }) => asks.files);
  const page = flatMap(atRest, ({ asks }) => asks.page);
  const sets = gatherSets(listConditions(own), listConditions(files), listConditions(page));
  const widths = listWidths([...own, ...files]);
  const planned = flatMap(listRooms(atRest), (room) => [
    ...flatMap([...new Set([room[0]!, room.at(-1)!])], (render) =>
      mapPresent(sets, (set) => applyAll(render, set)),
    ),
    ...mapPresent(widths, (width) => toWidth(room, width)),
  ]);
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
  own: readonly Condition[],
  files: readonly Condition[],
  page: readonly Condition[],
): Condition[][] {
  const isNew = (known: readonly Condition[]) => (one: Condition) =>
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

/** The renders of each slot, the narrowest window first. */
function listRooms(evidence: readonly Evidence[]): Render[][] {
  const rooms = new Map<string, Render[]>();
  for (const one of evidence) {
    const room = nameRoom(getPlace(one));
    rooms.set(room, [...(rooms.get(room) ?? []), one.render]);
  }
  return [...rooms.values()].map((all) => all.sort((a, b) => a.viewport.width - b.viewport.width));
}

function applyAll(render: Render, conditions: readonly Condition[]): Render | null {
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

/** Of the kind of the next one that is wider, or of the widest. */
function toWidth(room: readonly Render[], width: number): Render | null {
  const like = room.find(({ viewport }) => viewport.width >= width) ?? room.at(-1)!;
  const isNamed = room.some(({ viewport }) => viewport.name === String(width));
  const name = isNamed ? `${width}px` : String(width);
  return { ...like, viewport: { ...like.viewport, name, width }, search: [] };
}
