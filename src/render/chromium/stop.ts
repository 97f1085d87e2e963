import type { Protocol } from 'devtools-protocol';
import { within } from '../bounds/limit.js';
import type { Hottest } from '../page/browser-page.js';
import type { Session } from './connection.js';
import { toCall } from './traffic.js';

/** Started before the page, the profiler can name the line that hung even when nothing else answers. */
export async function startProfile(session: Session): Promise<void> {
  await session.send('Profiler.enable');
  await session.send('Profiler.setSamplingInterval', { interval: 5000 });
  await session.send('Profiler.start');
}

/** Scripts off first, then what runs is ended; in this order it works where ending alone does not. */
export async function stopScripts(session: Session): Promise<void> {
  await within(session.hold('Emulation.setScriptExecutionDisabled', { value: true }), 2000).catch(
    () => null,
  );
  await within(session.send('Runtime.terminateExecution'), 2000).catch(() => null);
}

/** Where the page's code spent its time since the profile was started. */
export async function stopProfile(session: Session): Promise<Hottest> {
  const stopped = await within(session.send('Profiler.stop'), 3000).catch(() => null);
  return stopped && getHottest(stopped.profile);
}

/** The place where most samples fell. */
function getHottest(profile: Protocol.Profiler.Profile): Hottest {
  const nodes = profile.nodes.filter(({ callFrame, hitCount }) => callFrame.url && hitCount);
  const node = nodes.sort((a, b) => (b.hitCount ?? 0) - (a.hitCount ?? 0))[0];
  if (!node) return null;
  const ticks = [...(node.positionTicks ?? [])].sort((a, b) => b.ticks - a.ticks);
  const call = toCall(node.callFrame);
  return { ...call, line: ticks[0] ? ticks[0].line - 1 : call.line };
}
