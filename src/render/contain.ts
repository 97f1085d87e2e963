import type { Protocol } from 'devtools-protocol';
import type { ScriptFact } from '../core/evidence.js';
import { within } from './limit.js';
import { getAskers } from './makers.js';
import type { ServedPage } from './sources.js';
import type { Tab } from './tab.js';

export type Hang = NonNullable<ScriptFact['hung']>;

/** How often a page is asked whether it still answers, ms. */
const BEAT = 400;
/** How lately something must have come from the browser, ms, and how often an answer may fail all the same. */
const TALKS = 1000;
const MOST_DEAF = 4;

/** Asks the page again and again; `hung` resolves when it has not answered for `ms`. */
export function watchHeart(tab: Tab, ms: number): { hung: Promise<'hung'>; stop: () => void } {
  let stopped = false;
  let deaf = 0;
  let wake: NodeJS.Timeout | undefined;
  const hung = new Promise<'hung'>((resolve) => {
    const beat = async () => {
      const answered = tab.session.ended || (await tab.answers(ms));
      if (stopped) return;
      deaf = answered ? 0 : deaf + 1;
      // What a page logs without measure comes before its answer: that is no hang yet.
      const talks = tab.isHeard(TALKS) && deaf < MOST_DEAF;
      if (answered || tab.session.ended || talks) wake = setTimeout(() => void beat(), BEAT);
      else resolve('hung');
    };
    wake = setTimeout(() => void beat(), BEAT);
  });
  const stop = () => {
    stopped = true;
    clearTimeout(wake);
  };
  return { hung, stop };
}

/** Started before the page, the profiler can name the line that hung even when nothing else answers. */
export async function startProfile(tab: Tab): Promise<void> {
  await tab.session.send('Profiler.enable');
  await tab.session.send('Profiler.setSamplingInterval', { interval: 5000 });
  await tab.session.send('Profiler.start');
}

/**
 * Gets a hanging page to answer again: scripts off first, then what runs is ended; in this order
 * it works where ending alone does not.
 * @returns where it hung, as far as known
 */
export async function contain(
  tab: Tab,
  page: ServedPage,
  seconds: number,
  profiled: boolean,
): Promise<Hang> {
  await within(
    tab.session.send('Emulation.setScriptExecutionDisabled', { value: true }),
    2000,
  ).catch(() => null);
  await within(tab.session.send('Runtime.terminateExecution'), 2000).catch(() => null);
  await tab.answers(3000);
  const stopped = profiled
    ? await within(tab.session.send('Profiler.stop'), 3000).catch(() => null)
    : null;
  const hottest = stopped && getHottest(stopped.profile);
  if (!hottest) return { from: null, address: null, line: null, functionName: null, seconds };
  const { callFrame, line } = hottest;
  const { url, functionName } = callFrame;
  const inPage = url === tab.address;
  const offset = inPage ? page.getSnippetLineStart(line) : findScript(tab, page, callFrame);
  return {
    from: offset === null ? null : { offset },
    address: inPage ? null : url.slice(0, 300),
    line: line + 1 - (inPage ? page.getFirstLine() : 0),
    functionName: functionName || null,
    seconds,
  };
}

/** The place in the snippet that brought a script in, or that brought in who did. */
function findScript(tab: Tab, page: ServedPage, frame: Protocol.Runtime.CallFrame): number | null {
  const owner = getAskers(tab, page).findRunner([frame]);
  return owner?.to === 'snippet' && 'offset' in owner.from ? owner.from.offset : null;
}

/** The place, line 0-based, where most samples fell. */
function getHottest(profile: Protocol.Profiler.Profile) {
  const nodes = profile.nodes.filter(({ callFrame, hitCount }) => callFrame.url && hitCount);
  const node = nodes.sort((a, b) => (b.hitCount ?? 0) - (a.hitCount ?? 0))[0];
  if (!node) return null;
  const ticks = [...(node.positionTicks ?? [])].sort((a, b) => b.ticks - a.ticks);
  return {
    callFrame: node.callFrame,
    line: ticks[0] ? ticks[0].line - 1 : node.callFrame.lineNumber,
  };
}
