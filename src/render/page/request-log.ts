import type { FileType } from '../../core/evidence.js';

/** A call in the code of a page, lines and columns 0-based. */
export interface CallFrame {
  url: string;
  line: number;
  column: number;
  functionName: string;
}

/** What made the page ask for something. */
export interface Initiator {
  /** The document or sheet whose text asks, with the place in it, where the parser did. */
  url: string | null;
  line: number | null;
  column: number;
  /** The calls that led to it, the innermost first. */
  calls: readonly CallFrame[];
}

/** A request as the browser tells of it, over all frames and workers. */
export interface LoggedRequest {
  address: string;
  type: FileType;
  status: number | null;
  wire: number;
  unpacked: number;
  /** Bytes of headers as they are written, and of the body, null where they do not say; null before they come. */
  sized: { head: number; body: number | null; packed: boolean } | null;
  failed: string | null;
  /** As its answer's header says, without parameters, in lower case. */
  contentType: string | null;
  /** The status of an answer, whether the page was given it or not. */
  answered: number | null;
  /** The frame it was made for. */
  frame: string | null;
  initiator: Initiator;
  /** The address before redirects. */
  first: string;
  forbidsFrames: string | null;
  sharedWith: string | null;
  /** For how long its answer may be used again, s; null where that is not said. */
  fresh: number | null;
  /** Seconds, on the browser's clock. */
  startedAt: number;
  endedAt: number | null;
  done: boolean;
  /** Its server lets it wait: what comes of it comes some time. */
  held: boolean;
  /** It was made after the visitor had done something. */
  acted: boolean;
}

/** Kinds that may stay open for as long as the page lives. */
const OPEN_ENDED = new Set<FileType>(['film', 'stream', 'socket', 'ping']);
/** Those of them that the browser counts among what a page's own time may wait for. */
const LINES = new Set<FileType>(['film', 'stream']);
const CAP = 2000;
const NEW = {
  status: null,
  wire: 0,
  unpacked: 0,
  sized: null,
  failed: null,
  contentType: null,
  answered: null,
  frame: null,
  forbidsFrames: null,
  sharedWith: null,
  fresh: null,
  startedAt: 0,
  endedAt: null,
  done: false,
  held: false,
  acted: false,
};

type New = Pick<LoggedRequest, 'address' | 'first' | 'type' | 'initiator'> & Partial<LoggedRequest>;

/** All requests of a page since its load began; an engine writes it. */
export class RequestLog {
  #requests = new Map<string, LoggedRequest>();
  #dropped = 0;
  #idleWaiters: (() => void)[] = [];
  #lastActivity = 0;
  #acted = false;
  /** It does not answer. */
  #silent: string | null = null;

  /** Forgets everything: a new load begins. */
  reset(): void {
    this.#requests.clear();
    this.#dropped = 0;
    this.#acted = false;
  }

  /** From now on the visitor has done something. */
  act(): void {
    this.#acted = true;
  }

  get requests(): LoggedRequest[] {
    return [...this.#requests.values()];
  }

  /** How many there were that are not kept. */
  get dropped(): number {
    return this.#dropped;
  }

  /** How many requests are under way, those left out that may never end. */
  get pending(): number {
    return this.#underWay.length;
  }

  get #underWay(): LoggedRequest[] {
    return this.requests.filter(({ done, held, type }) => !done && !held && !OPEN_ENDED.has(type));
  }

  /** From now on a host does not answer, so that nobody waits for it; null: each does. */
  silence(host: string | null): void {
    this.#silent = host;
  }

  /** The host that was silent answers: what it was asked for is waited for again. */
  endSilence(): void {
    for (const one of this.requests) if (this.#isSilent(one.address)) one.held = false;
    this.#silent = null;
  }

  /** Whether a host does not answer. */
  get isDrilled(): boolean {
    return this.#silent !== null;
  }

  /** Whether it is asked for something. */
  get asksSilent(): boolean {
    return this.requests.some((one) => this.#isSilent(one.address));
  }

  #isSilent(address: string): boolean {
    return URL.canParse(address) && new URL(address).hostname === this.#silent;
  }

  /** How many lines are open for which the browser may keep a page's time standing without an end. */
  get open(): number {
    return this.requests.filter(({ done, held, type }) => !done && (held || LINES.has(type)))
      .length;
  }

  /** No more is waited for data that has not come by now: it is a line that its server holds open, as chats do. */
  hold(): void {
    for (const request of this.#underWay) request.held = request.type === 'data';
    this.#tellIdle();
  }

  get lastActivity(): number {
    return this.#lastActivity;
  }

  /** Resolves when nothing is under way. */
  whenIdle(): Promise<void> {
    if (this.pending === 0) return Promise.resolve();
    return new Promise((resolve) => this.#idleWaiters.push(resolve));
  }

  /** Resolves when nothing has been asked for or has come for `ms`. */
  async whenStill(ms: number): Promise<void> {
    for (let rest = ms; rest > 0; rest = ms - (performance.now() - this.#lastActivity)) {
      await new Promise((resolve) => setTimeout(resolve, rest));
    }
  }

  get(key: string): LoggedRequest | undefined {
    return this.#requests.get(key);
  }

  /** Something is asked for. */
  start(key: string, request: New): void {
    this.#lastActivity = performance.now();
    if (this.#requests.size >= CAP) this.#dropped++;
    else {
      const held = this.#silent !== null && this.#isSilent(request.address);
      this.#requests.set(key, { ...NEW, acted: this.#acted, held, ...request });
    }
  }

  /** An answer sends the browser elsewhere: what it goes on to is a request of the same chain. */
  redirect(key: string, before: LoggedRequest): void {
    before.done = true;
    this.#requests.set(`${key} ${this.#requests.size}`, before);
  }

  /** Its answer begins: by that it may turn out to be a line that stays open. */
  answer(request: LoggedRequest, told: Partial<LoggedRequest>): void {
    Object.assign(request, told);
    this.#tellIdle();
  }

  finish(request: LoggedRequest | undefined, endedAt: number | null = null): void {
    if (!request) return;
    request.done = true;
    request.endedAt = endedAt;
    this.#lastActivity = performance.now();
    this.#tellIdle();
  }

  #tellIdle(): void {
    if (this.pending > 0) return;
    for (const resolve of this.#idleWaiters.splice(0)) resolve();
  }
}
