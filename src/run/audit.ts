import { isMeasured, type Evidence } from '../core/evidence.js';
import { mapPresent } from '../core/lists.js';
import { readMarkup } from '../core/markup/markup.js';
import type { RunDocument } from '../core/run.js';
import type { Snippet } from '../core/snippet.js';
import { Events, type AuditEvent } from './events.js';
import type { Measured } from './measure.js';
import { LazyRenderer, openMeans, type Means } from './means.js';
import { takeInPages } from './pages.js';
import { renderAll } from './rendering.js';
import { readEarlier } from './rejudge.js';
import { planAudit, type AuditRequest, type Called, type Plan } from './request.js';
import type { Workplace } from './workplace.js';
import { Results } from './results.js';
import { Faults } from './faults.js';

/** How an audit is steered from outside. */
export interface AuditOptions {
  /** Aborted, it ends in good order: the document then has what was finished. */
  signal?: AbortSignal;
  /** Where it works, where others follow it; left out: in a browser of its own. */
  workplace?: Workplace;
  /** How the parts of the request are called in complaints; left out: by their keys. */
  called?: Called;
}

/** An audit that runs. */
export interface AuditRun extends AsyncIterable<AuditEvent> {
  /** The run document, as soon as all is judged. Rejects with a ToolError where there can be none. */
  readonly document: Promise<RunDocument>;
  /** Resolves when the browser is gone too, and all that was to be kept is written. */
  readonly finished: Promise<void>;
}

/**
 * Audits snippets: renders each in its slots at its widths, and judges what was measured.
 * @example
 * const run = audit({ snippets: [{ name: 'map', text: '<iframe width="640" src="…"></iframe>' }] });
 * for await (const event of run) if (event.type === 'judged') console.log(event.report.verdict);
 * console.log((await run.document).verdict);
 */
export function audit(request: AuditRequest, options: AuditOptions = {}): AuditRun {
  const events = new Events();
  const {
    signal = new AbortController().signal,
    workplace = null,
    called = (part) => part,
  } = options;
  const { promise: document, resolve, reject } = makePromise<RunDocument>();
  // Begun a turn later: who wants to listen can do so before anything happens.
  const finished = new Promise<void>((begin) => setImmediate(begin))
    .then(() => planSince(request, called))
    .then((plan) => perform(plan, events, { signal, workplace }, resolve))
    .then(
      () => events.end(null),
      (error: unknown) => {
        reject(error);
        events.end({ error });
        throw error;
      },
    );
  // Whoever waits for either is told; nobody has to wait for both.
  for (const promise of [document, finished]) promise.catch(() => undefined);
  return { document, finished, [Symbol.asyncIterator]: () => events.listen() };
}

/** What is settled before, with the run that this one goes on from. */
async function planSince(request: AuditRequest, called: Called): Promise<Plan> {
  const plan = planAudit(request, called);
  const { newSince, only, skip } = request;
  const asked = { ...(only && { only }), ...(skip && { skip }), ...(newSince && { newSince }) };
  return { ...plan, earlier: await readEarlier({ ...asked, house: plan.house }, called) };
}

/** Until when, and where, it works. */
interface Working {
  signal: AbortSignal;
  workplace: Workplace | null;
}

async function perform(
  plan: Plan,
  events: Events,
  { signal, workplace }: Working,
  onDocument: (document: RunDocument) => void,
): Promise<void> {
  const faults = new Faults((error) => events.tell({ type: 'fault', error }));
  if (plan.markupOnly !== null) return readAll(plan, faults, events, signal, onDocument);
  const means = await openMeans(plan, faults);
  try {
    const whole = await takeInPages(plan, faults, means, signal);
    await lookAtAll(whole, means, events, { signal, workplace }, onDocument);
  } finally {
    // What was recorded becomes its file.
    if (means.recordTo) await faults.collect(means.recordTo.finish(), 'the recording');
  }
}

/** The markup alone. */
async function readAll(
  plan: Plan,
  faults: Faults,
  events: Events,
  signal: AbortSignal,
  onDocument: (document: RunDocument) => void,
): Promise<void> {
  const whole = await takeInPages(plan, faults, null, signal);
  const results = new Results(whole, faults);
  try {
    for (const [i, snippet] of whole.snippets.entries()) {
      if (signal.aborted) break;
      const judged = await results.judge(i, read(snippet, faults));
      events.tell({ type: 'judged', snippet: snippet.name, ...judged, scriptTime: null });
    }
    onDocument(await results.makeDocument([]));
  } finally {
    await results.close();
  }
}

function read(snippet: Snippet, faults: Faults): Measured | null {
  try {
    return { markup: readMarkup(snippet.text, snippet), evidence: [], baselines: new Map() };
  } catch (error) {
    faults.add(error, `reading ${snippet.name}`);
    return null;
  }
}

async function lookAtAll(
  plan: Plan,
  means: Means,
  events: Events,
  { signal, workplace }: Working,
  onDocument: (document: RunDocument) => void,
): Promise<void> {
  const { keeper, faults } = means;
  const results = new Results(plan, faults);
  const shared = (await workplace?.take(plan, means, events, signal)) ?? null;
  const browser = shared ?? new LazyRenderer(plan, means, events, signal);
  try {
    await lookAt(plan, means, browser, results, events, signal);
    const version = browser.version;
    const engines = version ? [{ name: 'chromium', version }] : (keeper?.engines ?? []);
    const document = await results.makeDocument(engines);
    // Told first: whatever happens to the files, it is there.
    onDocument(document);
    if (keeper)
      await faults.collect(
        keeper.finish(document, plan.snippets, describeRun(plan, engines)),
        'keeping the run',
      );
  } finally {
    if (shared === null) await browser.close();
    await results.close();
  }
}

async function lookAt(
  plan: Plan,
  means: Means,
  browser: LazyRenderer,
  results: Results,
  events: Events,
  signal: AbortSignal,
): Promise<void> {
  try {
    await renderAll(plan, means, browser, events, signal, async (i, measured) => {
      const judged = await results.judge(i, measured);
      const scriptTime = getScriptTime(measured?.evidence ?? []);
      events.tell({ type: 'judged', snippet: judged.report.name, ...judged, scriptTime });
    });
  } catch (error) {
    if (!signal.aborted) throw error;
  }
}

/** In the window in which it took most. */
function getScriptTime(evidence: readonly Evidence[]): number | null {
  const plain = evidence.filter(
    (one) => one.render.variant === 'as-is' && isMeasured(one, 'times'),
  );
  const timed = mapPresent(plain, ({ times }) => times.all);
  return timed.length > 0 ? Math.max(...timed) : null;
}

/** What a kept run must say of how it was made. */
function describeRun({ house, ownPage, slots, viewports }: Plan, engines: RunDocument['engines']) {
  return {
    engines,
    house,
    ownPage: ownPage !== null,
    slots: slots.map(({ name }) => name),
    viewports: viewports.map(({ name }) => name),
  };
}

function makePromise<T>() {
  let resolve!: (value: T) => void;
  let reject!: (error: unknown) => void;
  const promise = new Promise<T>((done, fail) => ([resolve, reject] = [done, fail]));
  return { promise, resolve, reject };
}
