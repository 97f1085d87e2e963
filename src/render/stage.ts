import { listMissing, type Evidence, type Gap } from '../core/evidence.js';
import { flatMap } from '../core/lists.js';
import { listTooWide } from '../core/measure/too-wide.js';
import { joinTraits, STILL } from '../core/markup/traits.js';
import { collectFacts } from '../facts/collector.js';
import { FACT_KINDS } from '../facts/kinds.js';
import { CONDITIONS } from '../core/render.js';
import { Breakdown } from './bounds/breakdown.js';
import { markCut } from './bounds/lost.js';
import { glimpse, type Glimpse } from './glimpse.js';
import { describeHang } from './collect/hang.js';
import { part } from './collect/makers.js';
import type { Parted } from './collect/own.js';
import { findGaps, listCut } from './gaps.js';
import { NO_HANDS, type Job } from './life/job.js';
import { NOTHING, type Learned } from './life/learned.js';
import { inTime, within } from './bounds/limit.js';
import { look, type Looked } from './look.js';
import type { Instant, Lived, Living, Moment } from './living.js';
import { liveOn, waitOn } from './minute.js';
import { readOver } from './collect/read.js';
import type { Booth } from './life/booths.js';
import type { ServedPage, Sources } from './page/served-page.js';
import { answerLate } from './late-answer.js';
import { prepareTab } from './prepare-tab.js';
import type { Setting } from './setting.js';
import { timeLoads } from './timing.js';
import type { TakenShot } from './steps/shot.js';
import type { AnyStep, Scene } from './steps/step.js';
import { LATER_KINDS, LATER_STEPS, STEPS, takeSteps, type Found } from './steps/table.js';

/** A page as it was seen once: evidence of each of its snippets, and what the page without any is compared by. */
export interface Sighting {
  evidence: Evidence[];
  parted: Parted | null;
  requests: string[];
  /** What is set for the whole page. */
  settings: Record<string, string>;
  /** By what its style sheets are known. */
  sheets: string[];
}

/** What one render gives. */
export interface Rendered extends Sighting {
  /** What is known of each snippet from now on. */
  learned: Learned[];
  served: ServedPage;
  shots: TakenShot[];
  /** What was otherwise within the first minute. */
  later: Moment[];
  /** The minute is still to be lived on: hands have used the page. */
  waits: boolean;
  /** How it looked when it had come to rest, where its minute is to be lived on; else null. */
  rested: Glimpse | null;
  /** Something was painted all the time from the start, and was watched. */
  moved: boolean;
  /** When it did not answer any more, s; null where it did. */
  stuck: number | null;
  /** It stood still, and was not read all the same: a busy machine may have been in the way. */
  unread: boolean;
}

/** How long it may take to make a tab ready, beside what it may hang, ms. */
const PREPARED = 4000;

/**
 * Renders one load: serves the page, loads it, lets it come to rest, reads it, and finds out what else is wanted.
 * @throws Error where page or browser are gone
 */
export async function renderPage(
  booth: Pick<Booth, 'page' | 'gate' | 'log'>,
  sources: Sources,
  setting: Setting,
  job: Job,
): Promise<Rendered> {
  const { page } = booth;
  const { reach, around, limits } = setting;
  const { served } = reach;
  const ready =
    reach.by === 'resize'
      ? page.resize(around.window)
      : prepareTab(booth, sources, setting, reach, job);
  // What stands there from before may hang by now.
  await inTime(
    ready,
    limits.hang + PREPARED,
    () => new Breakdown('the tab could not be made ready'),
  );
  const again = () =>
    prepareTab(booth, sources, setting, { by: 'load', served, before: 'code' }, job);
  const timed =
    CONDITIONS[job.render.variant].timed && (await timeLoads(page, sources, setting, job, again));
  const looked: Looked = { ...(await look(page, sources, setting, job)), ...(timed && { timed }) };
  // A page that is only brought to another width has asked for nothing since: what was refused it still is.
  if (reach.by === 'load') await readLog(booth);
  // Its time goes on while steps are taken: what comes meanwhile is otherwise than this.
  const rested = canLiveOn(page, setting, job, looked)
    ? (job.rested ?? (await glimpse(page)))
    : null;
  const alone = job.minute !== 'no' && job.minute !== 'also';
  const told = await tellAll(booth, { job, setting, looked }, alone ? [] : STEPS);
  const lives = canLiveOn(page, setting, job, looked);
  const mayLive = lives && ((await job.mayLive?.()) ?? true);
  const waits = mayLive && page.happened.handled;
  const lived =
    mayLive && !waits ? await live(booth, { job: { ...job, rested }, setting, looked }) : NOT_LIVED;
  return {
    ...told,
    evidence: lived.unseen === null ? told.evidence : markCut(told.evidence, lived.unseen),
    later: lived.moments,
    stuck: lived.stuck ?? null,
    waits,
    rested,
    moved: looked.watched?.moved ?? false,
    unread:
      looked.reading === null && !looked.stopped && !page.happened.left && looked.cut === null,
    served,
    shots: [...told.shots, ...flatMap(lived.moments, ({ shots }) => shots)],
  };
}

/** A page that was looked at, in the words of a job. */
interface LookedAt {
  job: Job;
  setting: Setting;
  looked: Looked;
}

/** All that is told of a page as it was looked at, with what steps find out. */
async function tellAll(
  booth: Pick<Booth, 'page' | 'log'>,
  seen: LookedAt,
  steps: readonly AnyStep[],
): Promise<Moment & { learned: Learned[] }> {
  const { job, looked } = seen;
  const known = (await job.learn?.()) ?? job.known;
  const scenes: Scene[] = [];
  for (const of of job.subject.traits.keys())
    scenes.push(await setScene(booth, { ...seen, job: { ...job, known } }, of));
  const found = await takeSteps(scenes, steps, job.onLearned);
  return {
    evidence: scenes.map((scene, i) => toEvidence(scene, found[i]!, looked)),
    learned: found.map((one) => one.learned),
    parted: scenes[0]?.parted ?? null,
    requests: booth.page.requests.requests.map((one) => one.address),
    settings: looked.reading?.raw.settings ?? {},
    sheets: looked.reading?.raw.sheets ?? [],
    shots: flatMap(found, ({ shot, harm }) => [shot, harm].filter((one) => one !== null)),
  };
}

const NOT_LIVED: Lived = { moments: [], unseen: null };

/** Whether anything may come of living on: the page is as it would be, and there is time for it. */
function canLiveOn(
  { happened }: Booth['page'],
  { budget }: Setting,
  { minute, render }: Job,
  { reading, stopped }: Looked,
): boolean {
  const goesOn = minute !== 'no' || CONDITIONS[render.variant].drilled === true;
  return goesOn && reading !== null && !stopped && !happened.left && !budget.isOver;
}

/** Lives the first minute on, and reads the page where it is otherwise. */
function live(
  booth: Pick<Booth, 'page' | 'gate' | 'log'>,
  { job, setting, looked }: LookedAt,
): Promise<Lived> {
  const { page } = booth;
  const { limits, budget } = setting;
  const { render, subject, minute } = job;
  const { later, drilled } = CONDITIONS[render.variant];
  const variant = later || drilled ? render.variant : 'minute';
  const slots = render.snippets.map(({ slot }) => slot);
  const wants = new Set([...job.wants].filter((kind) => LATER_KINDS.includes(kind)));
  const traits = joinTraits(subject.traits);
  const common: Job = {
    ...{ ...job, wants, baseline: job.later ?? job.baseline },
    ...{ shots: job.shots === 'none' ? 'none' : 'taken', hands: NO_HANDS, postpones: false },
    ...{ learn: undefined, onLearned: undefined, mayLive: undefined },
  };
  const read = async ({ after, stopped = null, down, watched }: Instant): Promise<Moment> => {
    const scrolled = down?.scrolled ?? null;
    const then: Job = {
      ...{ ...common, render: { ...render, variant, after, scrolled, search: [] } },
      // To have its picture taken it would be scrolled away from where it is so.
      ...(down && { shots: 'none' }),
    };
    const covered = down?.covered ?? null;
    await readLog(booth);
    const isLeft = page.happened.left;
    const reading = isLeft ? null : await readOver(page, { slots, wants }, traits, limits, covered);
    const { timed } = looked;
    const now: Looked = {
      ...{ stopped, stillMoving: [], reading, cut: null },
      ...(timed && { timed }),
      ...(watched && { watched }),
    };
    return tellAll(booth, { job: then, setting, looked: now }, LATER_STEPS);
  };
  const empty = CONDITIONS[render.variant].source === 'none';
  const alone = minute === 'only';
  const rested = job.rested ?? null;
  // What flashes from the start need not be looked for again.
  const isKnown = Boolean(looked.watched?.flash);
  const watches =
    job.wants.has('flashing') && !isKnown
      ? {
          window: setting.around.window,
          slot: slots[0]!,
          moved: looked.watched?.moved ?? job.moved ?? false,
        }
      : null;
  const living: Living = { page, limits, budget, empty, rested, alone, watches, read };
  if (drilled) return answerLate(living, () => booth.gate.endSilence());
  return typeof minute === 'object' ? waitOn(living, minute.until) : liveOn(living);
}

/** A page that was looked at, as it concerns one of the snippets. */
async function setScene(
  { page, log }: Pick<Booth, 'page' | 'log'>,
  { job, setting, looked }: LookedAt,
  of: number,
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
    ...{ page, served, of, happened, reading: read, parted, hung, stillMoving, log, baseline },
    timed: looked.timed?.[of] ?? [],
    flash: looked.watched?.flash ?? null,
    flashingAlone: (job.later ?? baseline)?.flashing ?? [],
    ...{ hostChanges, changes: own.changes, pageFamily: around.pageFamily },
    hasSound: (file) => page.hasSound(file),
  });
  const { left } = happened;
  const unwatched = looked.watched?.unseen ?? null;
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
    gaps: [
      ...gaps,
      ...findGaps({ facts, reading: read, hung, requests, of, left, cut }),
      ...(unwatched === null ? [] : listMissing(['flashing'], unwatched)),
    ],
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

/** What the gate saw of the page since. */
async function readLog(booth: Pick<Booth, 'gate' | 'log'>): Promise<void> {
  const { refusals, entries } = await booth.gate.takeLog();
  booth.log.refusals.push(...refusals);
  booth.log.entries.push(...entries);
}
