import pLimit from 'p-limit';
import { ToolError } from '../core/errors.js';
import { readMarkup } from '../core/markup/markup.js';
import type { House } from '../core/house/house.js';
import { housePublished } from '../core/house/published.js';
import { makeJob, type MeasureAnswer } from '../core/measuring.js';
import { planConditions } from '../core/conditions.js';
import { planOutages, planRenders, planVariants } from '../core/plan.js';
import { getRenderKey, type Render } from '../core/render.js';
import type { Snippet } from '../core/snippet.js';
import { planBetween } from '../core/search/between.js';
import type { Events } from './events.js';
import { measure, type Measured } from './measure.js';
import type { LazyRenderer, Means } from './means.js';
import { getJobs, type Plan } from './request.js';

/** Takes what was measured of a snippet of the plan; null where nothing could be. */
export type Judge = (index: number, measured: Measured | null) => Promise<void>;

/**
 * Renders all snippets, several at once. The browser is started when one needs it. What breaks down over a
 * snippet costs no other.
 */
export async function renderAll(
  plan: Plan,
  means: Means,
  browser: LazyRenderer,
  events: Events,
  signal: AbortSignal,
  judge: Judge,
): Promise<void> {
  const { keeper, faults, seats } = means;
  const counts = plan.snippets.map((one) => planOf(plan, one).length);
  events.tell({ type: 'planned', renders: counts.reduce((sum, count) => sum + count, 0) });
  const jobs = getJobs(plan.request);
  const limit = pLimit(jobs);
  const find = async (snippet: Snippet, i: number): Promise<Measured> => {
    const kept = await findKept(plan, means, snippet);
    if (kept) events.tell({ type: 'rendered', snippet: snippet.name, renders: counts[i]! });
    if (kept) return kept;
    const measured = await renderSnippet(plan, means, snippet, browser, events, signal);
    const keeping = keeper?.keep(snippet, measured.evidence, measured.baselines);
    if (keeping) await faults.collect(keeping, `keeping ${snippet.name}`);
    return measured;
  };
  const one = async (snippet: Snippet, i: number) => {
    if (signal.aborted) return;
    events.tell({ type: 'begun', snippet: snippet.name });
    seats.sit();
    const found = await find(snippet, i)
      .catch((error: unknown) => {
        // Without any browser there is nothing to go on with.
        if (signal.aborted || browser.version === null) throw error;
        faults.add(error, `measuring ${snippet.name}`);
        return null;
      })
      .finally(() => seats.rise());
    await judge(i, found);
  };
  const ordered = jobs > 1 ? listByLength(plan.snippets) : [...plan.snippets.entries()];
  const work = ordered.map(([i, snippet]) => limit(one, snippet, i));
  await Promise.race([Promise.all(work), whenAborted(signal)]);
}

/** What has to be loaded anew for each window, and waited for. */
const LONG = /<(script|i?frame|object|embed|video|audio)\b|\son[a-z]+\s*=/i;

/** Those that take long first: one that is begun last of all would run on alone, beside idle processors. */
function listByLength(snippets: readonly Snippet[]): [number, Snippet][] {
  const all = [...snippets.entries()];
  const isLong = ([, { text, published }]: [number, Snippet]) =>
    published !== undefined || LONG.test(text);
  return [...all.filter(isLong), ...all.filter((one) => !isLong(one))];
}

/** What was measured of an unchanged snippet, where all is in it that is wanted now. */
async function findKept(
  plan: Plan,
  { keeper, shots }: Means,
  snippet: Snippet,
): Promise<Measured | null> {
  const evidence = (await keeper?.find(snippet)) ?? null;
  if (!keeper || !evidence) return null;
  const { baselines } = keeper;
  const keys = new Set(evidence.map(({ render }) => getRenderKey(render)));
  const about = { markup: readMarkup(snippet.text, snippet), house: getHouse(plan, snippet) };
  const variants = planVariants(evidence, plan.checks, baselines, about);
  const conditions = planConditions(evidence, about, snippet);
  const planned = [...planOf(plan, snippet), ...planBetween(evidence)];
  const outages = planOutages(evidence, plan.checks, about, snippet);
  const wanted = [...planned, ...variants, ...outages, ...conditions];
  if (!wanted.every((render) => keys.has(getRenderKey(render)))) return null;
  const there = await Promise.all(
    evidence.map(async ({ shot, harm }) => {
      if (shots === null) return true;
      const taken = harm ? [shot, harm.with, harm.without] : [shot];
      const found = await Promise.all(taken.map((one) => one !== null && shots.has(one.hash)));
      return found.every(Boolean);
    }),
  );
  return there.every(Boolean) ? { markup: about.markup, evidence, baselines } : null;
}

async function renderSnippet(
  plan: Plan,
  { faults }: Means,
  snippet: Snippet,
  browser: LazyRenderer,
  events: Events,
  signal: AbortSignal,
): Promise<Measured> {
  const { name, published } = snippet;
  const job = makeJob(snippet, {
    renders: planOf(plan, snippet),
    checks: plan.checks.map(({ id }) => id),
    seenOnly: isSeenOnly(plan),
    timeLimit: plan.request.timeLimit ?? null,
  });
  const listener = {
    onMore: (more: number) => events.tell({ type: 'planned', renders: more }),
    onRender: () => events.tell({ type: 'rendered', snippet: name, renders: 1 }),
    onFault: (error: unknown) => faults.add(error, `measuring ${name}`),
  };
  const answer = await measure(await browser.get(published), job, listener, signal);
  return readAnswer(snippet, answer);
}

/** What came of a snippet's job. @throws where its markup cannot be read */
function readAnswer(snippet: Snippet, { evidence, baselines }: MeasureAnswer): Measured {
  return { markup: readMarkup(snippet.text, snippet), evidence, baselines: new Map(baselines) };
}

/** A snippet that is for one slot stands in that alone, and a published page in none of them. */
function planOf(plan: Plan, snippet: Snippet): Render[] {
  const { name, slot, published } = snippet;
  const house = getHouse(plan, snippet);
  if (published) return planRenders(name, house, { slots: house.slots, viewports: plan.viewports });
  const slots = slot === undefined ? plan.slots : plan.slots.filter((one) => one.name === slot);
  return planRenders(name, house, { ...plan, slots });
}

function getHouse({ house }: Plan, { published }: Snippet): House {
  return published ? housePublished(house, published) : house;
}

function whenAborted(signal: AbortSignal): Promise<never> {
  return new Promise((_, reject) => {
    const abort = () => reject(new ToolError('nothing-rendered-at-all', 'Interrupted.'));
    if (signal.aborted) abort();
    else signal.addEventListener('abort', abort, { once: true });
  });
}

/** What is kept or recorded may be judged by others. */
function isSeenOnly({ checks, request: { keep, record } }: Plan): boolean {
  return checks.length === 0 && keep === undefined && record === undefined;
}
