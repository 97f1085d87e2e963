/** How often it is looked how much time has gone by, ms. */
const BEAT = 250;
/** As much of the time between two looks counts, ms: beyond it the machine stood still, or had nothing left for us. */
const MOST = 1000;

/** Takes the time, but for that in which nobody here could do anything. */
export class Stopwatch {
  #spent = 0;
  #since: number | null = null;
  #beating: NodeJS.Timeout | undefined;

  /** What was taken so far, ms. */
  get ms(): number {
    const running = this.#since === null ? 0 : performance.now() - this.#since;
    return this.#spent + Math.min(running, MOST);
  }

  start(): void {
    this.#since = performance.now();
    this.#beating = setInterval(() => this.#beat(), BEAT).unref();
  }

  stop(): void {
    this.#beat();
    this.#since = null;
    clearInterval(this.#beating);
  }

  #beat(): void {
    this.#spent = this.ms;
    this.#since = performance.now();
  }
}

/** Does something with a watch that runs as long as that takes. */
export async function timed<T>(work: (watch: Stopwatch) => Promise<T>): Promise<T> {
  const watch = new Stopwatch();
  watch.start();
  try {
    return await work(watch);
  } finally {
    watch.stop();
  }
}

/**
 * Rings when so much time has gone by, but for that in which nobody here could do anything: a machine that was
 * asleep, or frozen by its host, leaves nobody late.
 * @returns what puts it off
 */
export function setAlarm(ms: number, ring: () => void): () => void {
  let left = ms;
  let timer: NodeJS.Timeout;
  const wait = () => {
    const at = performance.now();
    timer = setTimeout(
      () => {
        left -= Math.min(performance.now() - at, MOST);
        if (left > 0) wait();
        else ring();
      },
      Math.min(left, BEAT),
    );
  };
  wait();
  return () => clearTimeout(timer);
}
