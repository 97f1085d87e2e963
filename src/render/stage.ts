import type { Evidence, Gap } from '../core/evidence.js';
import { flatMap } from '../core/lists.js';
import { listTooWide } from '../core/measure/too-wide.js';
import { joinTraits, STILL } from '../core/markup/traits.js';
import { collectFacts } from '../facts/collector.js';
import { FACT_KINDS } from '../facts/kinds.js';
import { Breakdown } from './bounds/breakdown.js';
import { describeHang } from './collect/hang.js';
import { needsMakers, part } from './collect/makers.js';
import type { Parted } from './collect/own.js';
import { findGaps, listCut } from './gaps.js';
import { getLoad, type Job } from './life/job.js';
import { NOTHING, type Learned } from './life/learned.js';
import { inTime, within } from './bounds/limit.js';
import { look, type Looked } from './look.js';
import type { Place } from './life/places.js';
import type { ServedPage, Sources } from './page/served-page.js';
import type { Setting } from './setting.js';
import type { TakenShot } from './steps/shot.js';
import type { Scene } from './steps/step.js';
import { takeSteps, type Found } from './steps/table.js';

/** What one render gives: evidence of each of its snippets, and what the page without any is compared by. */
export interface Rendered {
  evidence: Evidence[];
  /** What is known of each snippet from now on. */
  learned: Learned[];
  served: ServedPage;
  parted: Parted | null;
  requests: string[];
  /** What is set for the whole page. */
  settings: Record<string, string>;
  shots: TakenShot[];
}

/** How long it may take to make a tab ready, beside what it may hang, ms. */
const PREPARED = 4000;

/**
 * Renders one load: serves the page, loads it, lets it come to rest, reads it, and finds out what else is wanted.
 * @throws Error where page or browser are gone
 */
export async function renderPage(
  place: Pick<Place, 'page' | 'gate' | 'refusals'>,
  sources: Sources,
  setting: Setting,
  job: Job,
): Promise<Rendered> {
  const { page, gate } = place;
  const { reach, around, limits } = setting;
  const { served } = reach;
  const ready =
    reach.by === 'resize'
      ? page.resize(around.window)
      : prepare(place, sources, setting, reach, job);
  // What stands there from before may hang by now.
  await inTime(
    ready,
    limits.hang + PREPARED,
    () => new Breakdown('the tab could not be made ready'),
  );
  const looked = await look(page, sources, setting, job);
  // A page that is only brought to another width has asked for nothing since: what was refused it still is.
  if (reach.by === 'load') place.refusals.push(...(await gate.takeRefusals()));
  const scenes: Scene[] = [];
  for (const of of job.subject.traits.keys())
    scenes.push(await setScene(place, { job, of, setting, looked }));
  const found = await takeSteps(scenes);
  return {
    evidence: scenes.map((scene, i) => toEvidence(scene, found[i]!, looked)),
    learned: found.map((one) => one.learned),
    served,
    parted: scenes[0]?.parted ?? null,
    requests: page.requests.requests.map((one) => one.address),
    settings: looked.reading?.raw.settings ?? {},
    shots: flatMap(found, ({ shot, harm }) => [shot, harm].filter((one) => one !== null)),
  };
}

/** A page that was looked at, as it concerns one of the snippets. */
async function setScene(
  { page, refusals }: Pick<Place, 'page' | 'refusals'>,
  { job, of, setting, looked }: { job: Job; of: number; setting: Setting; looked: Looked },
): Promise<Scene> {
  const { subject, baseline, scripted } = job;
  const { limits, around, reach } = setting;
  const { reading, stopped, stillMoving, cut } = looked;
  const { served } = reach;
  const { hostChanges } = around;
  const own = subject.traits[of] ?? STILL;
  const whose = { ...own, of, served, hostChanges, baseline };
  const parting = reading && part(page, reading, whose).catch(() => null);
  const parted = parting && (await within(parting, limits.hang));
  const read = parted && reading;
  const hung = describeHang(page, served, of, stopped, scripted ? limits.hang / 1000 : null);
  const { happened, requests } = page;
  const { facts, gaps } = collectFacts({
    ...{ page, served, of, happened, reading: read, parted, hung, stillMoving, refusals, baseline },
    ...{ hostChanges, changes: own.changes, pageFamily: around.pageFamily },
    hasSound: (file) => page.hasSound(file),
  });
  const { left } = happened;
  const known = job.known[of] ?? NOTHING;
  const isWhole = read !== null && hung === null;
  const sticksOut = isWhole && listTooWide({ ...facts, baseline }).length > 0;
  return {
    ...{ page, job, setting, of, own, baseline, parted, facts },
    markup: subject.markups[of] ?? null,
    known,
    tooWide: known.tooWide || sticksOut,
    reading: read,
    raw: reading?.raw ?? null,
    hung: hung !== null,
    gaps: [...gaps, ...findGaps({ facts, reading: read, hung, requests, of, left, cut })],
  };
}

function toEvidence(
  { job, of, setting, gaps: unread }: Scene,
  { facts, gaps, shot, harm }: Found,
  { cut }: Looked,
): Evidence {
  const { budget } = setting;
  const over: Gap[] = cut === null && budget.isOver ? listCut(facts, budget.words) : [];
  const sought = FACT_KINDS.filter((kind) => job.wants.has(kind));
  return {
    ...{ render: job.render, of, gaps: [...unread, ...gaps, ...over], ...facts },
    shot: shot && shot.shot,
    harm: harm && { with: harm.shot, without: null },
    ...(sought.length < FACT_KINDS.length && { sought }),
  };
}

async function prepare(
  place: Pick<Place, 'page' | 'gate' | 'refusals'>,
  sources: Sources,
  { terms, around }: Setting,
  { served, before }: Extract<Setting['reach'], { by: 'load' }>,
  job: Job,
): Promise<void> {
  const { page, gate } = place;
  const { render, baseline, profile: profiled, scripted } = job;
  const { hostChanges, window } = around;
  const { pathname, search } = new URL(sources.address);
  const { headers, published } = sources;
  const { root, cold } = terms;
  const content = { html: served.html, headers, root, path: pathname + search, published };
  const { changes } = joinTraits(job.subject.traits);
  await Promise.all([
    gate.setPage(content, getLoad(render)),
    page.prepare({
      ...{ viewport: window, variant: render.variant, before, cold, profiled, scripted },
      traced: needsMakers({ changes, hostChanges, baseline }),
    }),
  ]);
  await gate.takeRefusals();
  place.refusals.length = 0;
}
