import { SLOT_ATTRIBUTE } from '../core/host/host-page.js';
import type { Traits } from '../core/markup/traits.js';
import { UNSEEN } from '../core/markup/unseen.js';
import type { PageFact, PageWidth } from '../core/evidence.js';
import { readPage, type RawPage } from './collect/elements.js';
import { readObjects, showMedia, showSlot, type RawObjects } from './collect/objects.js';
import { scrollThrough, settle } from './collect/settle.js';
import { within, type Limits } from './limit.js';
import { openClosedRoots } from './shadow.js';
import type { Tab } from './tab.js';

/** Everything that was read in the page of one render. */
export interface Reading {
  /** The page as its elements are told: at load, or after the scroll where that was wider. */
  raw: RawPage;
  first: RawPage;
  scrolled: boolean;
  after: PageWidth | null;
  readAt: PageFact['readAt'];
  objects: RawObjects;
  stillMoving: string[];
}

/** What of a snippet decides how its page is read. */
export type ReadingTraits = Pick<Traits, 'changes' | 'live' | 'scrolls' | 'media'>;

const ELEMENT_CAP = 5000;
/** How long a page with code of its own must have been still to count as at rest, ms. */
const QUIET = 120;
const MAX_ROUNDS = 6;
/** The browser tells of tracks in batches, so it may take a while, ms. */
const SOUND_TOLD = 2000;

/** Lets the page come to rest: by events of page and network, within the limit. */
export async function rest(tab: Tab, traits: ReadingTraits, limits: Limits): Promise<string[]> {
  const end = performance.now() + limits.settle;
  let moving: string[] = [];
  for (let round = 0; round < MAX_ROUNDS; round++) {
    const left = Math.max(end - performance.now(), 50);
    const wish = { limit: left, quiet: traits.changes ? QUIET : 0, media: traits.media };
    moving = (await within(tab.read(settle, wish), left + 500)) ?? ['the page'];
    if (performance.now() >= end) break;
    const quietFor = performance.now() - tab.traffic.lastActivity;
    if (tab.traffic.pending > 0)
      await within(tab.traffic.whenIdle(), Math.max(end - performance.now(), 0));
    else if (!traits.live || quietFor >= QUIET) return moving;
    else await tab.traffic.whenStill(QUIET);
  }
  return tab.traffic.pending > 0 ? [...moving, 'the network'] : moving;
}

/** Reads page and objects, at load and, where that can make a difference, after a scroll to the end and back. */
export async function readAll(
  tab: Tab,
  slot: string,
  traits: ReadingTraits,
  limits: Limits,
): Promise<Reading> {
  if (traits.changes) await openClosedRoots(tab);
  const first = await readInDetail(tab, slot);
  const begun = { first, raw: first, after: null, scrolled: false, stillMoving: [] };
  if (!traits.scrolls) return finish(tab, { ...begun, readAt: 'load' }, traits, limits);
  const asked = tab.traffic.lastActivity;
  const changed = await tab.read(scrollThrough);
  // Where neither the document nor the network stirred there is nothing to wait for.
  const stirred = changed || tab.traffic.lastActivity > asked;
  const stillMoving = stirred ? await rest(tab, { ...traits, media: false }, limits) : [];
  const after = await readInDetail(tab, slot);
  const wider = isWider(after, first);
  const raw = addShown(wider ? after : first, wider ? first : after);
  const looked = first.shows || after.shows ? raw : await lookAtSlot(tab, slot, raw, limits);
  const readAt = wider ? 'after-scroll' : 'load';
  const done = {
    first,
    raw: looked,
    after: after.width,
    readAt,
    scrolled: true,
    stillMoving,
  } as const;
  return finish(tab, done, traits, limits);
}

/** What shows itself only while it is looked at. */
async function lookAtSlot(tab: Tab, slot: string, raw: RawPage, limits: Limits): Promise<RawPage> {
  await tab.read(showSlot, `[${SLOT_ATTRIBUTE}="${slot}"]`);
  await rest(tab, { changes: true, live: true, scrolls: true, media: false }, limits);
  return addShown(raw, await readInDetail(tab, slot));
}

/** A part that can be seen at one time, such as one that fades in when it is scrolled to, is shown. */
function addShown(raw: RawPage, other: RawPage): RawPage {
  const seen = new Map(other.elements.filter(({ shown }) => shown).map((one) => [one.id, one]));
  const elements = raw.elements.map((one) => (one.shown ? one : (seen.get(one.id) ?? one)));
  return { ...raw, elements };
}

type Begun = Omit<Reading, 'objects'>;

async function finish(
  tab: Tab,
  begun: Begun,
  traits: ReadingTraits,
  limits: Limits,
): Promise<Reading> {
  let objects = await tab.read(readObjects);
  // A muted film out of view is left waiting by the browser: no block, so each is brought into view.
  const waiting = objects.media.filter((one) => one.autoplay && one.paused && !one.inView);
  for (const { id } of waiting) {
    await tab.read(showMedia, id);
    await rest(tab, traits, limits);
    const again = await tab.read(readObjects);
    objects = {
      ...objects,
      media: objects.media.map((one) =>
        one.id === id ? (again.media.find((m) => m.id === id) ?? one) : one,
      ),
    };
  }
  const asking = objects.media.filter((one) => one.autoplay && one.readyState > 0 && one.address);
  const addresses = asking.map(({ address }) => address);
  await tab.sound.learn(addresses, SOUND_TOLD);
  return { ...begun, objects };
}

/** What paints beyond its box is asked for only where something does stick out. */
async function readInDetail(tab: Tab, slot: string): Promise<RawPage> {
  const wish = { slot, slotAttribute: SLOT_ATTRIBUTE, cap: ELEMENT_CAP, unseen: UNSEEN };
  const plain = await tab.read(readPage, { ...wish, detail: false });
  const { scrollWidth, clientWidth } = plain.width;
  const sticksOut = scrollWidth > clientWidth || (plain.slot?.overhang ?? 0) > 0 || plain.strays;
  return sticksOut ? tab.read(readPage, { ...wish, detail: true }) : plain;
}

function isWider(a: RawPage, b: RawPage): boolean {
  return a.width.scrollWidth - a.width.clientWidth > b.width.scrollWidth - b.width.clientWidth;
}
