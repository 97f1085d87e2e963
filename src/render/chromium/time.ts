import type { Session } from './connection.js';

/** So little short of its goal a clock is at it, ms. */
const ROUNDING = 1;
/** So many tasks may follow each other at one moment before time moves all the same. */
const STARVED = 1000;

/** Whether time stands while something is asked for. */
export const WAITING = 'pauseIfNetworkFetchesPending';
export type TimePolicy = typeof WAITING | 'advance';

/** What has a time of its own. */
export interface Timed {
  session: Session;
  /** The page or frame in whose process it is, and whose clock is its own. */
  owner: Session;
}

/** Its time goes no further by itself. */
export async function stand(session: Session): Promise<void> {
  await session.send('Emulation.setVirtualTimePolicy', { policy: 'pause' }).catch(() => undefined);
}

/** It goes on to where it was to go, without regard to what is asked for. */
export function goOn(session: Session): void {
  session.tell('Emulation.setVirtualTimePolicy', { policy: 'advance' });
}

/**
 * Moves a target's time on. Resolves when it is where it is to be, or the target is gone.
 * @param goal where its owner's clock is to be, ms; null: wherever it comes to stand
 */
export async function moveOn(
  { session, owner }: Timed,
  ms: number,
  policy: TimePolicy,
  goal: number | null = null,
): Promise<void> {
  const over = new Promise<void>((resolve) => {
    const onOver = () => {
      session.off('Emulation.virtualTimeBudgetExpired', onTold);
      forget();
      resolve();
    };
    // What is told may be of the move before, and then ended this one.
    const onTold = async () => {
      const left = goal === null ? 0 : goal - (await readTime(owner));
      if (left > ROUNDING) await grant(session, left, policy);
      else onOver();
    };
    session.on('Emulation.virtualTimeBudgetExpired', onTold);
    const forget = session.onEnd(onOver);
  });
  const granted = await grant(session, ms, policy);
  // A kind of worker that has no clock of its own goes by that of its page.
  if (granted) await over;
}

/** The clock of the process that a page or frame lives in, ms; NaN where it cannot be asked. */
export async function readTime(owner: Session): Promise<number> {
  owner.hold('Performance.enable', {}).catch(() => undefined);
  const answer = await owner.send('Performance.getMetrics').catch(() => null);
  return 1000 * (answer?.metrics.find(({ name }) => name === 'Timestamp')?.value ?? NaN);
}

function grant(session: Session, budget: number, policy: TimePolicy): Promise<boolean> {
  const wish = { policy, budget, maxVirtualTimeTaskStarvationCount: STARVED };
  return session.send('Emulation.setVirtualTimePolicy', wish).then(
    () => true,
    () => false,
  );
}
