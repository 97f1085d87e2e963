import { setAlarm } from './awake.js';

/** Resolves to null where the promise has not settled within `ms`; a rejection passes through. */
export async function within<T>(promise: Promise<T>, ms: number): Promise<T | null> {
  let putOff: (() => void) | undefined;
  const over = new Promise<null>((resolve) => {
    putOff = setAlarm(ms, () => resolve(null));
  });
  try {
    return await Promise.race([promise, over]);
  } finally {
    putOff?.();
  }
}

/** How often more time is given to what answers behind all that it tells. */
const MOST_TALK = 2;

/**
 * The same, but that what comes from a page that talks without measure is given more time.
 * @param wait how it is waited each time
 */
export async function withinTalk<T>(
  page: { readonly talks: boolean },
  promise: Promise<T>,
  ms: number,
  wait: typeof within = within,
): Promise<T | null> {
  for (let given = 0; ; given++) {
    const answer = await wait(promise, ms);
    if (answer !== null || !page.talks || given >= MOST_TALK) return answer;
  }
}

/** The same, where what is late is a fault: `late` makes the error. */
export async function inTime<T>(promise: Promise<T>, ms: number, late: () => Error): Promise<T> {
  const done = await within(
    promise.then((value) => ({ value })),
    ms,
  );
  if (done === null) throw late();
  return done.value;
}

/** Time limits of a render, ms. Injected, so that tests of hanging pages need not wait for them. */
export interface Limits {
  /** For everything a page loads. */
  load: number;
  /** For coming to rest after load. */
  settle: number;
  /** The longest the page may not answer before it counts as hanging. */
  hang: number;
}

/** The longest that a whole render may take, ms: beyond it the tab is given up, whatever it does. */
export function getCeiling({ load, settle, hang }: Limits): number {
  return load + 6 * settle + 4 * hang;
}

export const DEFAULT_LIMITS: Limits = { load: 15_000, settle: 5_000, hang: 5_000 };
