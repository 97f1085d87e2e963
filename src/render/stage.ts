import type { Baseline, Evidence, Facts, Gap, PageFact, Render } from '../core/evidence.js';
import type { Load } from '../core/recording/exchange.js';
import type { Traits } from '../core/markup/traits.js';
import { contain, startProfile, watchHeart, type Hang } from './contain.js';
import type { GateHandle } from './gate/gates.js';
import { PAGE_PATH } from './gate/page-server.js';
import { within, type Limits } from './limit.js';
import { compareParts, partElements, type Parted } from './own.js';
import { takePicture, type Picture } from './picture.js';
import { readAll, rest, type Reading } from './read.js';
import { toRequestFacts } from './requests.js';
import { ServedPage, type Sources } from './sources.js';
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
  /** A folder of files that the host page may ask for. */
  root: string | null;
  /** What stands in the tab; null in a new one. */
  shown: Shown | null;
  /** Profile from the start, to name the line where it hangs. */
  profile: boolean;
  /** Take a picture. */
  pictures: boolean;
}

/** The kinds of facts that what is loaded has a part in. */
const BY_TRAFFIC = ['traffic', 'elements', 'frames', 'media', 'pictures'] as const;
const READ_KINDS = ['page', 'slot', 'elements', 'frames', 'media', 'pictures', 'host'] as const;

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
  if (options.shown?.resizable) await resize(tab.session, render.viewport);
  else await prepare(tab, gate, render, page, sources, options);
  const { hung, stillMoving } = await loadAndRest(tab, address, page, options);
  const reading = await readWithin(tab, render, options, hung);
  const refusals = await gate.takeRefusals();
  const parted =
    reading &&
    partElements(page, reading.raw, reading.objects, options.traits.script, options.baseline);
  const facts = makeFacts(tab, hung, reading, parted, options.baseline, stillMoving);
  facts.traffic = toRequestFacts(tab.traffic.requests, {
    page,
    pageAddress: address,
    mainFrame: tab.targetId,
    frames: facts.frames,
    refusals,
    hostRequests: new Set(options.baseline?.requests ?? []),
  });
  const gaps = [
    ...findGaps(tab, hung, reading),
    ...findMissingMedia(facts),
    ...findUnloaded(facts),
    ...findUnproxied(facts),
  ];
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
  if (options.profile) await startProfile(tab);
}

function getLoad({ snippets, viewport, variant }: Render): Load {
  const name = variant === 'empty' ? '' : (snippets[0]?.name ?? '');
  return { snippet: name, view: `${snippets[0]?.slot ?? ''} at ${viewport.name}` };
}

/** Loads and settles, with a hand on the pulse. */
async function loadAndRest(tab: Tab, address: string, page: ServedPage, options: StageOptions) {
  const { limits, traits, profile } = options;
  const heart = watchHeart(tab, limits.hang);
  const stillMoving: string[] = [];
  try {
    const work = async () => {
      const loaded = options.shown?.resizable || (await tab.load(address, limits.load));
      if (loaded === null) stillMoving.push('the load');
      stillMoving.push(...(await rest(tab, traits, limits)));
    };
    const outcome = await Promise.race([work(), heart.hung]);
    const hung = outcome === 'hung' ? await contain(tab, page, limits.hang / 1000, profile) : null;
    return { hung, stillMoving };
  } finally {
    heart.stop();
  }
}

async function readWithin(
  tab: Tab,
  render: Render,
  options: StageOptions,
  hung: Hang | null,
): Promise<Reading | null> {
  const { limits, traits } = options;
  const slot = render.snippets[0]?.slot ?? '';
  const calm = hung
    ? { ...traits, changes: false, live: false, scrolls: false, media: false }
    : traits;
  const reading = readAll(tab, slot, calm, limits);
  return within(reading, hung ? limits.hang : limits.hang + 2 * limits.settle).catch(() => null);
}

function makeFacts(
  tab: Tab,
  hung: Hang | null,
  reading: Reading | null,
  parted: Parted | null,
  baseline: Baseline | null,
  stillMoving: string[],
): Facts {
  const { dialogs, navigations, console, replaced } = tab.happened;
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
    scripts: { hung, dialogs, navigations, console },
    host: parted ? compareParts(parted.parts, baseline) : [],
  };
}

/** What was read of a page that had not loaded in time is not all of it. */
function findUnloaded({ page, elements }: Facts): Gap[] {
  if (!page.stillMoving.includes('the load')) return [];
  const why = 'the page had not loaded when the time was over';
  return [{ kind: 'elements', why, seen: null, kept: elements.length }];
}

/** What the proxy of this network did not let through could have shown anything. */
function findUnproxied({ traffic }: Facts): Gap[] {
  const refused = traffic.find(({ refused }) => refused?.kind === 'proxy')?.refused;
  if (!refused) return [];
  return BY_TRAFFIC.map((kind) => ({ kind, why: refused.words, seen: null, kept: null }));
}

/** A film that this run could not have, for reasons of its own, says nothing of what visitors get. */
function findMissingMedia({ traffic, media }: Facts): Gap[] {
  const missing = traffic.find(
    ({ type, inFrame, refused }) =>
      type === 'Media' && !inFrame && /^(offline|not-recorded)$/.test(refused?.kind ?? ''),
  );
  if (!missing?.refused || media.length === 0) return [];
  return [{ kind: 'media', why: missing.refused.words, seen: media.length, kept: null }];
}

function findGaps(tab: Tab, hung: Hang | null, reading: Reading | null): Gap[] {
  const gaps: Gap[] = [];
  const lost = (kind: Gap['kind'], why: string) => gaps.push({ kind, why, seen: null, kept: null });
  if (!reading)
    for (const kind of READ_KINDS)
      lost(kind, hung ? 'the page hangs' : 'the page could not be read');
  else if (!reading.raw.slot)
    for (const kind of READ_KINDS) lost(kind, 'the slot is no longer on the page');
  if (reading && reading.raw.total > reading.raw.elements.length) {
    const kept = reading.raw.elements.length;
    gaps.push({
      kind: 'elements',
      why: 'more elements than are read',
      seen: reading.raw.total,
      kept,
    });
  }
  if (tab.traffic.dropped > 0) {
    const kept = tab.traffic.requests.length;
    gaps.push({
      kind: 'traffic',
      why: 'more requests than are kept',
      seen: kept + tab.traffic.dropped,
      kept,
    });
  }
  return gaps;
}
