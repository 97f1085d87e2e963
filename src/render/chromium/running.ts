import { mapPresent } from '../../core/lists.js';
import type { RanScript, Running, WorkShare, WorkTime } from '../page/browser-page.js';
import type { Session } from './connection.js';
import { measureRan } from './coverage.js';
import { measureBusy, readRunTime, sampleWork, timeWork } from './work.js';

/** So short a script is told of nothing, characters. */
const SHORT = 10_000;

/** The code of a page, as it runs. */
export class RunningCode implements Running {
  #session: Session;
  #kept = false;

  constructor(session: Session) {
    this.#session = session;
  }

  /** From the next load on the browser keeps it in mind; or no longer, which costs nothing. */
  async keep(wanted: boolean): Promise<void> {
    const session = this.#session;
    // It counts from where it was switched on.
    session.tell('Performance.disable');
    if (wanted) session.tell('Performance.enable');
    if (!wanted && this.#kept) session.tell('Profiler.stopPreciseCoverage');
    this.#kept = wanted;
    if (!wanted) return;
    session.tell('Profiler.enable');
    await session.send('Profiler.startPreciseCoverage', { callCount: false, detailed: true });
  }

  /** Scripts of some length, and how much of them has run since; null where that was not kept. */
  async listRan(): Promise<RanScript[] | null> {
    if (!this.#kept) return null;
    const { result } = await this.#session.send('Profiler.takePreciseCoverage');
    return mapPresent(result, ({ url: address, functions }) => {
      const measured = measureRan(functions);
      return address && measured.length >= SHORT ? { address, ...measured } : null;
    });
  }

  measureBusy(ms: number): Promise<number> {
    return measureBusy(this.#session, ms);
  }

  sampleWork(ms: number): Promise<WorkShare[]> {
    return sampleWork(this.#session, ms);
  }

  async getTime(): Promise<number | null> {
    return this.#kept ? readRunTime(this.#session) : null;
  }

  timeWork(work: () => Promise<unknown>): Promise<WorkTime[]> {
    return timeWork(this.#session, work);
  }
}
