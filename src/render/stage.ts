import type { Baseline, Evidence, Facts, PageFact, Render } from '../core/evidence.js';
import type { Load } from '../core/recording/exchange.js';
import type { Traits } from '../core/markup/traits.js';
import { contain, startProfile, watchHeart, type Hang } from './contain.js';
import { findGaps } from './gaps.js';
import type { GateHandle } from './gate/gates.js';
import { PAGE_PATH } from './gate/page-server.js';
import { inTime, within, type Limits } from './limit.js';
import { needsMakers, part, traceMakers } from './makers.js';
import { compareParts, type Parted } from './own.js';
import { takePicture, type Picture } from './picture.js';
import { readAll, rest, type Reading, type ReadingTraits } from './read.js';
import { toRequestFacts } from './requests.js';
import { ServedPage, type Sources } from './sources.js';
import { ProtocolError } from './protocol/connection.js';
import type { Tab } from './tab.js';
import { resize, setViewport } from './viewport.js';

/** What one render gives: evidence, and what the page without a snippet is compared by. */
export interface Rendered {
  evidence: Evidence;
  page: ServedPage;
  parted: Parted | null;
  requests: string[];
  picture: Picture | null;
}

/** A page that stands loaded in a tab. */
export interface Shown {
  /** Its text, where it is the one to render. */
  page: ServedPage | null;
  /** The same page, and it cannot tell: it may be brought to a width instead of loaded anew. */
  resizable: boolean;
  /** It has code, of its own or in frames. */
  live: boolean;
}

/** What a render needs to know besides its sources. */
export interface StageOptions {
  traits: Traits;
  limits: Limits;
  /** The page without the snippet; null while that itself is rendered. */
  baseline: Baseline | null;
  /** The page without the snippet has code. */
  hostChanges: boolean;
  /** A folder of files that the host page may ask for. */
  root: string | null;
  /** What stands in the tab; null in a new one. */
  shown: Shown | null;
  /** Profile from the start, to name the line where it hangs. */
  profile: boolean;
  /** Take a picture. */
  pictures: boolean;
}

/** How long it may take to make a tab ready, beside what it may hang, ms. */
const PREPARED = 4000;

/**
 * Renders one load: serves the page, loads it, lets it come to rest, reads it.
 * @throws ProtocolError where page or browser are gone
 */
export async function renderOne(
  tab: Tab,
  gate: GateHandle,
  render: Render,
  sources: Sources,
  options: StageOptions,
): Promise<Rendered> {
  const page = options.shown?.page ?? new ServedPage(sources);
  const address = new URL(PAGE_PATH, sources.origin).href;
  const { limits } = options;
  const ready = options.shown?.resizable
    ? resize(tab.session, render.viewport)
    : prepare(tab, gate, render, page, sources, options);
  // What stands there from before may hang by now.
  const late = () => new ProtocolError('the tab could not be made ready');
  await inTime(ready, limits.hang + PREPARED, late);
  const { hung, stillMoving, reading } = await look(tab, address, page, render, options);
  // A page that is only brought to another width has asked for nothing since: what was refused it still is.
  tab.refusals.push(...(await gate.takeRefusals()));
  const { traits, baseline, hostChanges } = options;
  const whose = { ...traits, page, hostChanges, baseline };
  const parting = reading && part(tab, reading.raw, reading.objects, whose).catch(() => null);
  const parted = parting && (await within(parting, limits.hang));
  const read = parted && reading;
  const facts = makeFacts(tab, hung, read, parted, baseline, stillMoving);
  facts.traffic = toRequestFacts(tab.traffic.requests, {
    page,
    pageAddress: address,
    mainFrame: tab.targetId,
    frames: facts.frames,
    refusals: tab.refusals,
    hostRequests: new Set(baseline?.requests ?? []),
    hostChanges: hostChanges && baseline !== null,
    changes: traits.changes,
  });
  const { left } = tab.happened;
  const gaps = findGaps({ facts, reading: read, hung, traffic: tab.traffic, left });
  // Last of all: to take it makes the page paint what nobody has looked at.
  const picture = options.pictures
    ? await takePicture(tab, render, reading?.raw ?? null, facts.elements)
    : null;
  return {
    evidence: { render, gaps, ...facts, picture: picture && picture.shot },
    picture,
    page,
    parted,
    requests: tab.traffic.requests.map((r) => r.address),
  };
}

async function prepare(
  tab: Tab,
  gate: GateHandle,
  render: Render,
  page: ServedPage,
  sources: Sources,
  options: StageOptions,
) {
  await Promise.all([
    gate.setPage(
      { html: page.html, headers: sources.headers, root: options.root },
      getLoad(render),
    ),
    setViewport(tab.session, render.viewport),
    tab.introduce(render.viewport),
    ...(options.shown === null
      ? []
      : [
          tab.makeCold(options.shown.live),
          tab.session.send('Emulation.setScriptExecutionDisabled', { value: false }),
        ]),
  ]);
  await gate.takeRefusals();
  tab.refusals = [];
  if (needsMakers({ ...options, changes: options.traits.changes })) await traceMakers(tab);
  if (options.profile) await startProfile(tab);
}

function getLoad({ snippets, viewport, variant }: Render): Load {
  const name = variant === 'empty' ? '' : (snippets[0]?.name ?? '');
  return { snippet: name, view: `${snippets[0]?.slot ?? ''} at ${viewport.name}` };
}

/** What was seen of a page while it was watched. */
interface Look {
  hung: Hang | null;
  stillMoving: string[];
  reading: Reading | null;
}

/** Loads, lets settle and reads, with a hand on the pulse. */
async function look(
  tab: Tab,
  address: string,
  page: ServedPage,
  render: Render,
  options: StageOptions,
): Promise<Look> {
  const { limits, traits, profile } = options;
  const heart = watchHeart(tab, limits.hang);
  const seen: Look = { hung: null, stillMoving: [], reading: null };
  const work = async () => {
    if (!options.shown?.resizable && (await tab.load(address, limits.load)) === null)
      seen.stillMoving.push('the load');
    seen.stillMoving.push(...(await rest(tab, traits, limits)));
    seen.reading = await readWithin(tab, render, traits, limits);
  };
  try {
    const outcome = await Promise.race([work(), heart.hung]).catch((error: unknown) => {
      if (!tab.happened.left) throw error;
    });
    if (outcome === 'hung') {
      seen.hung = await contain(tab, page, limits.hang / 1000, profile);
      seen.reading = await readWithin(tab, render, CALM, limits);
    }
    return tab.happened.left ? { ...seen, reading: null } : seen;
  } finally {
    heart.stop();
  }
}

/** A page whose code was stopped: nothing in it changes by itself any more. */
const CALM = { changes: false, live: false, scrolls: false, media: false };

async function readWithin(
  tab: Tab,
  render: Render,
  traits: ReadingTraits,
  limits: Limits,
): Promise<Reading | null> {
  const slot = render.snippets[0]?.slot ?? '';
  const reading = readAll(tab, slot, traits, limits).catch(() => null);
  return within(reading, limits.hang + 2 * limits.settle);
}

function makeFacts(
  tab: Tab,
  hung: Hang | null,
  reading: Reading | null,
  parted: Parted | null,
  baseline: Baseline | null,
  stillMoving: string[],
): Facts {
  const { dialogs, windows, navigations, console, replaced } = tab.happened;
  const page: PageFact = {
    atLoad: reading?.first.width ?? { scrollWidth: 0, clientWidth: 0, scrollable: false },
    afterScroll: reading?.scrolled ? reading.after : null,
    readAt: reading?.readAt ?? 'load',
    direction: reading?.raw.direction ?? 'ltr',
    stillMoving: [...stillMoving, ...(reading?.stillMoving ?? [])],
    replaced,
  };
  return {
    page,
    slot: reading?.raw.slot ?? {
      name: '',
      box: { x: 0, y: 0, width: 0, height: 0 },
      overhang: 0,
      text: false,
    },
    elements: parted?.elements ?? [],
    frames: parted?.frames ?? [],
    media: (parted?.media ?? []).map((one) => ({
      ...one,
      sound: one.sound ?? tab.sound.get(one.address),
    })),
    pictures: parted?.pictures ?? [],
    traffic: [],
    scripts: {
      hung,
      dialogs,
      windows,
      navigations,
      console,
      sounds: reading?.objects.sounds ?? [],
    },
    host: parted ? compareParts(parted.parts, baseline) : [],
  };
}
