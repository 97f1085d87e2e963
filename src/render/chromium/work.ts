import { setTimeout } from 'node:timers/promises';
import type { Protocol } from 'devtools-protocol';
import { flatMap, mapPresent } from '../../core/lists.js';
import type { WorkShare, WorkTime } from '../page/browser-page.js';
import type { CallFrame } from '../page/request-log.js';
import type { Session } from './connection.js';
import { toCall } from './traffic.js';

/** How often it is looked what runs, µs. */
const OFTEN = 1000;

/** How much of the time a page's code has the processor for so long, 0 to 1, whoever's it is. */
export async function measureBusy(session: Session, ms: number): Promise<number> {
  session.tell('Performance.enable');
  const before = await readWorked(session);
  const at = performance.now();
  await setTimeout(ms);
  const after = await readWorked(session);
  const passed = performance.now() - at;
  const grow = (name: keyof typeof after) => after[name] - before[name];
  // The processor's time tells of the thread as a whole; how much of that is code's, the clock does.
  return grow('TaskDuration') > 0
    ? (((1000 * grow('ThreadTime')) / passed) * grow('ScriptDuration')) / grow('TaskDuration')
    : 0;
}

/** Since the page began, s. */
async function readWorked(session: Session) {
  const { metrics } = await session.send('Performance.getMetrics');
  const get = (asked: string) => metrics.find(({ name }) => name === asked)?.value ?? 0;
  return {
    ThreadTime: get('ThreadTime'),
    TaskDuration: get('TaskDuration'),
    ScriptDuration: get('ScriptDuration'),
  };
}

/** What code runs for so long, and its share of all that was looked at. */
export async function sampleWork(session: Session, ms: number): Promise<WorkShare[]> {
  return listWork(await takeProfile(session, () => setTimeout(ms)));
}

/** How long code has run since that was last switched on, ms. */
export async function readRunTime(session: Session): Promise<number> {
  return 1000 * (await readWorked(session)).ScriptDuration;
}

/** What code runs while something is done, and for how long. */
export async function timeWork(
  session: Session,
  work: () => Promise<unknown>,
): Promise<WorkTime[]> {
  return listTimes(await takeProfile(session, work));
}

async function takeProfile(
  session: Session,
  work: () => Promise<unknown>,
): Promise<Protocol.Profiler.Profile> {
  session.tell('Profiler.enable');
  session.tell('Profiler.setSamplingInterval', { interval: OFTEN });
  await session.send('Profiler.start');
  await work();
  const { profile } = await session.send('Profiler.stop');
  return profile;
}

/** So long one look stands for at most, µs: who had to wait for the processor meanwhile did not run. */
const LOOK = 2 * OFTEN;

export function listTimes(profile: Profile): WorkTime[] {
  const { nodes, samples = [], timeDeltas = [] } = profile;
  const spent = new Map<number, number>();
  // What was met at one look ran until the next one.
  samples.forEach((id, i) => {
    const lasted = Math.min(Math.max(timeDeltas[i + 1] ?? 0, 0), LOOK) / 1000;
    spent.set(id, (spent.get(id) ?? 0) + lasted);
  });
  return mapPresent(listCalls(nodes), ({ id, calls }) => {
    const ms = spent.get(id) ?? 0;
    return ms > 0 ? { ms, calls } : null;
  });
}

type Profile = Pick<Protocol.Profiler.Profile, 'nodes' | 'samples' | 'timeDeltas'>;

/** By how often it was met, and not for how long: who stands in line for the processor is not met. */
export function listWork({ nodes }: Pick<Protocol.Profiler.Profile, 'nodes'>): WorkShare[] {
  const all = nodes.reduce((sum, { hitCount = 0 }) => sum + hitCount, 0);
  return mapPresent(listCalls(nodes), ({ hitCount = 0, calls }) =>
    hitCount > 0 ? { share: hitCount / all, calls } : null,
  );
}

/** Those with code in their calls, the innermost of these first. */
function listCalls(nodes: readonly Protocol.Profiler.ProfileNode[]) {
  const byId = new Map(nodes.map((node) => [node.id, node]));
  const parents = new Map(
    flatMap(nodes, ({ id, children = [] }) =>
      children.map((child) => [child, byId.get(id)!] as const),
    ),
  );
  return mapPresent(nodes, (node) => {
    const calls: CallFrame[] = [];
    for (let at: typeof node | undefined = node; at; at = parents.get(at.id))
      if (at.callFrame.url) calls.push(toCall(at.callFrame));
    return calls.length > 0 ? { id: node.id, hitCount: node.hitCount, calls } : null;
  });
}
