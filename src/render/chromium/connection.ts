import type { Readable, Writable } from 'node:stream';
import { EventEmitter } from 'node:events';
import type { ProtocolMapping } from 'devtools-protocol/types/protocol-mapping.js';
import { setAlarm } from '../bounds/awake.js';
import { Breakdown } from '../bounds/breakdown.js';

export type Commands = ProtocolMapping.Commands;
export type ProtocolEvents = ProtocolMapping.Events;
type Params<M extends keyof Commands> = Commands[M]['paramsType'][0];
type Result<M extends keyof Commands> = Commands[M]['returnType'];

/** How long any call may take, ms: what hangs in the browser hangs nothing here. */
const CALL_LIMIT = 30_000;
/** The longest message that is read, bytes: a page may log any length of text. */
const MESSAGE_LIMIT = 64_000_000;
/** From so many bytes on a message takes its time. */
const LONG = 1_000_000;
/** As much of a message as says what it answers. */
const HEAD = 200;

interface Pending {
  putOff: () => void;
  resolve: (result: unknown) => void;
  reject: (error: Error) => void;
  session: string;
}

/** A call the browser answered with an error, or never will because the session is gone. */
export class ProtocolError extends Breakdown {
  override name = 'ProtocolError';
}

/**
 * The DevTools protocol over the browser's pipe (NUL-separated JSON), with flat sessions.
 * A pipe rather than a socket: no port is opened, and the browser ends itself when we are gone.
 */
export class Connection {
  #last = 0;
  #pending = new Map<number, Pending>();
  #sessions = new Map<string, Session>();
  #rest: Buffer[] = [];
  #size = 0;
  readonly #limits: { call: number; message: number };
  #write: Writable;
  #closed = false;
  readonly root: Session;

  constructor(
    write: Writable,
    read: Readable,
    limits: { call: number; message: number } = { call: CALL_LIMIT, message: MESSAGE_LIMIT },
  ) {
    this.#limits = limits;
    this.#write = write;
    this.root = new Session(this, '');
    this.#sessions.set('', this.root);
    read.on('data', (chunk: Buffer) => this.#receive(chunk));
    read.on('close', () => this.close('the browser is gone'));
    read.on('error', () => this.close('the browser is gone'));
    write.on('error', () => this.close('the browser is gone'));
  }

  /** Whether a long message is on its way, whosever it is: all others wait behind it. */
  get isJammed(): boolean {
    return this.#size > LONG;
  }

  get closed(): boolean {
    return this.#closed;
  }

  session(id: string): Session {
    let session = this.#sessions.get(id);
    if (!session) this.#sessions.set(id, (session = new Session(this, id)));
    return session;
  }

  call(session: string, method: string, params: unknown): Promise<unknown> {
    if (this.#closed) return Promise.reject(new ProtocolError(`${method}: the browser is gone`));
    const id = ++this.#last;
    const message = { id, method, params, ...(session && { sessionId: session }) };
    return new Promise((resolve, reject) => {
      const over = () => this.#settle({ id, error: { message: `${method}: no answer in time` } });
      const putOff = setAlarm(this.#limits.call, over);
      this.#pending.set(id, { putOff, resolve, reject, session });
      this.#post(`${JSON.stringify(message)}\0`);
    });
  }

  /** What is said in one turn goes out in one piece: each alone would wake the browser, and wait for it. */
  #post(text: string): void {
    if (this.#write.writableCorked === 0) {
      this.#write.cork();
      process.nextTick(() => this.#write.uncork());
    }
    this.#write.write(text);
  }

  /** Ends a session on our side: what still waits for an answer is refused, so nothing waits for ever. */
  drop(sessionId: string): void {
    this.#sessions.get(sessionId)?.end();
    this.#sessions.delete(sessionId);
    for (const [id, pending] of this.#pending) {
      if (pending.session !== sessionId) continue;
      this.#settle({ id, error: { message: 'the session is gone' } });
    }
  }

  /** What a listener threw is the fault of whoever works with that session, and costs nobody else anything. */
  fail(session: Session): void {
    if (session === this.root) this.close('what the browser told could not be taken in');
    else this.drop(session.id);
  }

  close(why: string): void {
    if (this.#closed) return;
    this.#closed = true;
    for (const id of [...this.#pending.keys()]) this.#settle({ id, error: { message: why } });
    for (const session of this.#sessions.values()) session.end();
  }

  #receive(chunk: Buffer): void {
    let start = 0;
    for (let end = chunk.indexOf(0); end >= 0; end = chunk.indexOf(0, start)) {
      this.#take(chunk.subarray(start, end));
      this.#finish();
      start = end + 1;
    }
    if (start < chunk.length) this.#take(chunk.subarray(start));
  }

  /** Of a message that is too long only the head is kept. */
  #take(piece: Buffer): void {
    this.#size += piece.length;
    if (this.#size <= this.#limits.message) this.#rest.push(piece);
    else this.#rest = [Buffer.from(Buffer.concat([...this.#rest, piece]).subarray(0, HEAD))];
  }

  #finish(): void {
    const text = Buffer.concat(this.#rest).toString('utf8');
    const whole = this.#size <= this.#limits.message;
    this.#rest = [];
    this.#size = 0;
    if (whole) return this.#dispatch(JSON.parse(text) as Incoming);
    const id = Number(/^\{"id":(\d+)/.exec(text)?.[1]);
    this.#settle({ id, error: { message: 'the answer is too long' } });
  }

  #dispatch(message: Incoming): void {
    if (message.id !== undefined) return this.#settle(message);
    if (message.method === 'Target.detachedFromTarget') {
      this.drop((message.params as { sessionId: string }).sessionId);
    }
    this.#sessions.get(message.sessionId ?? '')?.emit(message.method ?? '', message.params);
  }

  #settle(message: Incoming): void {
    const pending = this.#pending.get(message.id!);
    if (!pending) return;
    this.#pending.delete(message.id!);
    pending.putOff();
    if (message.error) pending.reject(new ProtocolError(message.error.message));
    else pending.resolve(message.result);
  }
}

interface Incoming {
  id?: number;
  method?: string;
  params?: unknown;
  result?: unknown;
  error?: { message: string };
  sessionId?: string;
}

/** One attached target: typed calls and events. */
export class Session {
  readonly id: string;
  #connection: Connection;
  #events = new EventEmitter().setMaxListeners(0);
  ended = false;
  #fault: Error | null = null;
  /** When the target last told of something. */
  heardAt = 0;
  /** What was last asked for by `hold`, for each method. */
  #held = new Map<string, string>();

  constructor(connection: Connection, id: string) {
    this.#connection = connection;
    this.id = id;
  }

  /** @throws what a listener threw over what the target told */
  send<M extends keyof Commands>(method: M, params?: Params<M>): Promise<Result<M>> {
    if (this.#fault) return Promise.reject(this.#fault);
    return this.#connection.call(this.id, method, params) as Promise<Result<M>>;
  }

  /** Sends what then holds for the target until something else is sent, unless it holds already. */
  async hold<M extends keyof Commands>(method: M, params: Params<M>): Promise<void> {
    const wish = JSON.stringify(params);
    if (this.#held.get(method) === wish) return;
    this.#held.delete(method);
    await this.send(method, params);
    this.#held.set(method, wish);
  }

  /** Sends and does not care for the answer: for set-up calls whose failure shows elsewhere. */
  tell<M extends keyof Commands>(method: M, params?: Params<M>): void {
    this.send(method, params).catch(() => undefined);
  }

  on<E extends keyof ProtocolEvents>(
    event: E,
    listener: (params: ProtocolEvents[E][0]) => void,
  ): void {
    this.#events.on(event, listener);
  }

  off<E extends keyof ProtocolEvents>(
    event: E,
    listener: (params: ProtocolEvents[E][0]) => void,
  ): void {
    this.#events.off(event, listener);
  }

  /** @returns what takes the listener back */
  onEnd(listener: () => void): () => void {
    this.#events.once('end', listener);
    return () => this.#events.off('end', listener);
  }

  emit(event: string, params: unknown): void {
    this.heardAt = performance.now();
    try {
      this.#events.emit(event, params);
    } catch (error) {
      this.#fault = error as Error;
      this.#connection.fail(this);
    }
  }

  child(id: string): Session {
    return this.#connection.session(id);
  }

  /** Nothing more comes of it: what waits for an answer is refused. */
  drop(): void {
    this.#connection.drop(this.id);
  }

  end(): void {
    if (this.ended) return;
    this.ended = true;
    this.#events.emit('end');
    this.#events.removeAllListeners();
  }
}
