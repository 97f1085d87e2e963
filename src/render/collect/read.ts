import type { FactKind, PageFact, PageWidth, StoredFact } from '../../core/evidence.js';
import { SLOT_ATTRIBUTE } from '../../core/host/slot-attribute.js';
import type { RawCovered } from '../../facts/layers/read.js';
import type { RawPage } from '../in-page/page.js';
import type { RawObjects } from '../reader/objects.js';
import type { SettleWish } from '../in-page/settle.js';
import type { Whole, WholeWish } from '../reader/whole.js';
import { withinTalk, type Limits } from '../bounds/limit.js';
import { patiently } from '../bounds/patience.js';
import type { BrowserPage } from '../page/browser-page.js';
import { readDocuments, type FrameDocument } from './documents.js';
import { rest, type ReadingTraits } from './rest.js';
import { readAllStored } from './stored.js';

/** Everything that was read in the page of one render. */
export interface Reading {
  /** The page as its elements are told: at load, or after the scroll where that was wider. */
  raw: RawPage;
  first: RawPage;
  scrolled: boolean;
  after: PageWidth | null;
  readAt: PageFact['readAt'];
  objects: RawObjects & { layers: RawCovered[] };
  /** The documents of its frames. */
  inner: FrameDocument[];
  stillMoving: string[];
  /** What is stored on the visitor's device; empty where nobody asks, null where it was not told. */
  stored: StoredFact[] | null;
}

/** What is to be read of a page: its slots, by their names, and the kinds of facts that somebody wants. */
export interface ReadingWish {
  slots: readonly string[];
  wants: ReadonlySet<FactKind>;
}

/** So many elements of a page are read; what there are more of is a gap. */
export const ELEMENT_CAP = 5000;
/** The browser tells of tracks in batches, so it may take a while, ms. */
const SOUND_TOLD = 2000;

/** Whether nothing is at work in it: rest and reading can be one. */
export function isStill({ live, scrolls }: ReadingTraits): boolean {
  return !live && !scrolls;
}

/**
 * Rest and reading in one, for a page that is still: null where it does not come to rest at once.
 * @param loaded it has only just loaded
 */
export async function readStill(
  page: BrowserPage,
  wish: ReadingWish,
  traits: ReadingTraits,
  limits: Limits,
  loaded: boolean,
): Promise<Reading | null> {
  const settling: SettleWish = {
    limit: limits.settle,
    quiet: 0,
    media: traits.media,
    first: loaded && 'loaded',
  };
  const asking = page.read('settleAndRead', settling, toWhole(wish, 'slots')).catch(() => null);
  // Of a large page the reading may take as long as the rest; to begin anew would take longer still.
  const whole = (await withinTalk(page, asking, 2 * limits.settle, patiently))?.whole;
  if (!whole || page.requests.pending > 0) return null;
  const { page: first, objects } = whole;
  return finish(page, begin(first), objects, wish, traits, limits);
}

/** Reads page and objects, at load and, where that can make a difference, after a scroll to the end and back. */
export async function readAll(
  page: BrowserPage,
  wish: ReadingWish,
  traits: ReadingTraits,
  limits: Limits,
): Promise<Reading> {
  if (traits.changes) await page.openClosedRoots();
  const where = traits.changes ? 'everywhere' : 'slots';
  if (!traits.scrolls) {
    const { page: first, objects } = await readWhole(page, wish, where);
    return finish(page, begin(first), objects, wish, traits, limits);
  }
  const { page: first } = await readWhole(page, wish, 'not');
  const asked = page.requests.lastActivity;
  const changed = await page.read('scrollThrough');
  // Where neither the document nor the network stirred there is nothing to wait for.
  const stirred = changed || page.requests.lastActivity > asked;
  const stillMoving = stirred ? await rest(page, { ...traits, media: false }, limits) : [];
  const { page: after, objects } = await readWhole(page, wish, where);
  const wider = isWider(after, first);
  const raw = addShown(wider ? after : first, wider ? first : after);
  const seen = first.shows || after.shows;
  const looked = seen ? raw : await lookAtSlots(page, wish, raw, limits);
  const done: Begun = {
    first,
    raw: looked,
    after: after.width,
    readAt: wider ? 'after-scroll' : 'load',
    scrolled: true,
    stillMoving,
  };
  return finish(page, done, seen ? objects : null, wish, traits, limits);
}

/** What shows itself only while it is looked at. */
async function lookAtSlots(
  page: BrowserPage,
  wish: ReadingWish,
  raw: RawPage,
  limits: Limits,
): Promise<RawPage> {
  let seen = raw;
  for (const slot of wish.slots) {
    await page.read('showSlot', `[${SLOT_ATTRIBUTE}="${slot}"]`);
    await rest(page, { changes: true, live: true, scrolls: true, media: false }, limits);
    seen = addShown(seen, (await readWhole(page, wish, 'not')).page);
  }
  return seen;
}

/** A part that can be seen at one time, such as one that fades in when it is scrolled to, is shown. */
function addShown(raw: RawPage, other: RawPage): RawPage {
  const seen = new Map(other.elements.filter(({ shown }) => shown).map((one) => [one.id, one]));
  const elements = raw.elements.map((one) => (one.shown ? one : (seen.get(one.id) ?? one)));
  return { ...raw, elements };
}

/**
 * Reads it as it stands, its own time standing: nothing is waited for, and nothing scrolled to.
 * @param covered what lies over what, where that was seen on the way down the page; null: it is pointed at here
 */
export async function readOver(
  page: BrowserPage,
  wish: ReadingWish,
  traits: ReadingTraits,
  limits: Limits,
  covered: RawCovered[] | null = null,
): Promise<Reading | null> {
  return waitFor(page, readOnce(page, wish, traits, covered), limits);
}

/** A reading, for as long as that may take; null where nothing comes of it. */
export function waitFor(
  page: BrowserPage,
  reading: Promise<Reading>,
  { hang, settle }: Limits,
): Promise<Reading | null> {
  return withinTalk(
    page,
    reading.catch(() => null),
    hang + 2 * settle,
    patiently,
  );
}

async function readOnce(
  page: BrowserPage,
  wish: ReadingWish,
  { changes }: ReadingTraits,
  covered: RawCovered[] | null,
): Promise<Reading> {
  if (changes) await page.openClosedRoots();
  const where = changes ? 'everywhere' : 'slots';
  const { page: first, objects } = await readWhole(page, wish, where, covered !== null);
  return complete(page, begin(first), objects!, wish, changes, covered);
}

type Begun = Omit<Reading, 'objects' | 'inner' | 'stored'>;

/** A page that is read as it stands, and not scrolled. */
function begin(first: RawPage): Begun {
  return { first, raw: first, after: null, scrolled: false, stillMoving: [], readAt: 'load' };
}

async function finish(
  page: BrowserPage,
  begun: Begun,
  known: RawObjects | null,
  asked: ReadingWish,
  traits: ReadingTraits,
  limits: Limits,
): Promise<Reading> {
  const { wants } = asked;
  const wish = { cap: ELEMENT_CAP, everywhere: traits.changes, kinds: [...wants] };
  let objects = known ?? (await page.read('readObjects', wish));
  // A muted film out of view is left waiting by the browser: no block, so each is brought into view.
  const waiting = objects.media.filter((one) => one.autoplay && one.paused && !one.inView);
  for (const { id } of waiting) {
    await page.read('showMedia', id);
    await rest(page, traits, limits);
    const again = await page.read('readObjects', wish);
    objects = {
      ...objects,
      media: objects.media.map((one) =>
        one.id === id ? (again.media.find((m) => m.id === id) ?? one) : one,
      ),
    };
  }
  return complete(page, begun, objects, asked, traits.changes);
}

/** What is told by others than the page itself, and what it takes scrolling to see. */
async function complete(
  page: BrowserPage,
  begun: Begun,
  objects: RawObjects,
  { wants }: ReadingWish,
  changes: boolean,
  covered: RawCovered[] | null = null,
): Promise<Reading> {
  const came = objects.media.filter((one) => one.readyState > 0 && one.address);
  const addresses = came.map(({ address }) => address);
  await page.learnSounds(addresses, SOUND_TOLD);
  const inner = objects.frames.length > 0 ? await readDocuments(page, objects.frames) : [];
  const stored = wants.has('stored') ? await readAllStored(page, changes || inner.length > 0) : [];
  // Last: it scrolls to what it points at.
  const layers = covered ?? (objects.layered ? await page.read('readLayers') : []);
  return { ...begun, objects: { ...objects, layers }, inner, stored };
}

function readWhole(
  page: BrowserPage,
  wish: ReadingWish,
  objects: WholeWish['objects'],
  fromTop = false,
): Promise<Whole> {
  return page.read('readWhole', { ...toWhole(wish, objects), fromTop });
}

function toWhole({ slots, wants }: ReadingWish, objects: WholeWish['objects']): WholeWish {
  return { slots, cap: ELEMENT_CAP, objects, kinds: [...wants] };
}

function isWider(a: RawPage, b: RawPage): boolean {
  return a.width.scrollWidth - a.width.clientWidth > b.width.scrollWidth - b.width.clientWidth;
}
