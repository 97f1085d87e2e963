import { cpus } from 'node:os';
import { within } from './limit.js';

/** So much of the processors must have been free that nobody stood in line for one. */
const FREE = 0.2;
/** How often as much time is given again to what hardly had a processor. */
const MOST = 3;
/** So long what they had done is not asked for again, ms. */
const FRESH = 100;

/** How much of the processors was free since it began, 0 to 1. */
export type Spare = () => number;

/**
 * Resolves to null where the promise has not settled in `ms` in which the machine had a processor for it; a
 * rejection passes through. What others take, on a busy machine or its host, is no time that a page was given.
 */
export async function patiently<T>(
  promise: Promise<T>,
  ms: number,
  begin: () => Spare = watchProcessors,
): Promise<T | null> {
  for (let given = 0; ; given++) {
    const getFree = begin();
    const answer = await within(promise, ms);
    if (answer !== null || given >= MOST || getFree() >= FREE) return answer;
  }
}

interface Sample {
  at: number;
  /** The time that all processors together were idle so far, ms. */
  idle: number;
  processors: number;
}

let last: Sample | undefined;

/** Idle time, and not work: what a host takes from its guests is neither. */
function watchProcessors(): Spare {
  const before = takeSample();
  return () => {
    const now = takeSample();
    const passed = (now.at - before.at) * now.processors;
    // A machine that does not tell is taken for a free one.
    return passed > 0 ? (now.idle - before.idle) / passed : 1;
  };
}

function takeSample(): Sample {
  const at = performance.now();
  if (last && at - last.at < FRESH) return last;
  const all = cpus();
  const idle = all.reduce((sum, { times }) => sum + times.idle, 0);
  return (last = { at, idle, processors: all.length });
}
