import type { Protocol } from 'devtools-protocol';
import type { Session } from './protocol/connection.js';

/** A request as the protocol tells of it, over all its sessions. */
export interface LoggedRequest {
  address: string;
  type: string;
  status: number | null;
  wire: number;
  unpacked: number;
  failed: string | null;
  /** The frame it was made for. */
  frame: string | null;
  initiator: Protocol.Network.Initiator;
  /** The address before redirects. */
  first: string;
  forbidsFrames: string | null;
  startedAt: number;
  endedAt: number | null;
  done: boolean;
}

/** Kinds that may stay open for as long as the page lives. */
const OPEN_ENDED = new Set(['Media', 'EventSource', 'WebSocket', 'Ping']);
const CAP = 2000;
const EMPTY = {
  status: null,
  wire: 0,
  unpacked: 0,
  failed: null,
  frame: null,
  forbidsFrames: null,
  startedAt: 0,
  endedAt: null,
  done: false,
};

/** All requests of a page, its frames and its workers, counted from the protocol. */
export class TrafficLog {
  #requests = new Map<string, LoggedRequest>();
  #dropped = 0;
  #idleWaiters: (() => void)[] = [];
  #lastActivity = 0;

  /** Follows one session; call it for every frame and worker that is attached. */
  follow(session: Session): void {
    const keyOf = (id: string) => (/^[0-9A-F]{32}$/.test(id) ? id : `${session.id} ${id}`);
    const at = (id: string) => this.#requests.get(keyOf(id));
    session.on('Network.requestWillBeSent', (event) => this.#start(keyOf(event.requestId), event));
    session.on('Network.webSocketCreated', ({ requestId, url, initiator }) => {
      this.#add(keyOf(requestId), {
        ...EMPTY,
        address: url,
        first: url,
        type: 'WebSocket',
        initiator: initiator ?? { type: 'other' },
      });
    });
    session.on('Network.responseReceived', ({ requestId, response, type }) => {
      const request = at(requestId);
      if (request) Object.assign(request, { status: response.status, type });
    });
    session.on('Network.responseReceivedExtraInfo', ({ requestId, headers }) => {
      const request = at(requestId);
      if (request?.type === 'Document') request.forbidsFrames = getFrameRule(headers);
    });
    session.on('Network.dataReceived', ({ requestId, dataLength }) => {
      const request = at(requestId);
      if (request) request.unpacked += dataLength;
    });
    session.on('Network.loadingFinished', ({ requestId, encodedDataLength, timestamp }) => {
      const request = at(requestId);
      if (request) request.wire += encodedDataLength;
      this.#finish(request, timestamp);
    });
    session.on('Network.loadingFailed', ({ requestId, errorText, blockedReason, canceled }) => {
      const request = at(requestId);
      if (request) request.failed = blockedReason ?? (canceled ? 'cancelled' : errorText);
      this.#finish(request);
    });
    session.on('Network.requestServedFromCache', ({ requestId }) => this.#finish(at(requestId)));
  }

  /** Forgets everything: a new load begins. */
  reset(): void {
    this.#requests.clear();
    this.#dropped = 0;
  }

  get requests(): LoggedRequest[] {
    return [...this.#requests.values()];
  }

  get dropped(): number {
    return this.#dropped;
  }

  /** How many requests are under way, those left out that may never end. */
  get pending(): number {
    return this.requests.filter((request) => !request.done && !OPEN_ENDED.has(request.type)).length;
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

  #start(key: string, event: Protocol.Network.RequestWillBeSentEvent): void {
    if (/^(data|blob|about|chrome-error|chrome):/.test(event.request.url)) return;
    this.#lastActivity = performance.now();
    const before = this.#requests.get(key);
    if (before && event.redirectResponse) {
      before.status = event.redirectResponse.status;
      before.wire += event.redirectResponse.encodedDataLength;
      before.done = true;
      this.#requests.set(`${key} ${this.#requests.size}`, before);
    }
    if (before && !event.redirectResponse) return;
    const { request, type = 'Other', frameId: frame = null } = event;
    this.#add(key, {
      ...EMPTY,
      address: request.url,
      first: before ? before.first : request.url,
      startedAt: before ? before.startedAt : event.timestamp,
      type,
      frame,
      initiator: before ? before.initiator : event.initiator,
    });
  }

  #add(key: string, request: LoggedRequest): void {
    if (this.#requests.size >= CAP) this.#dropped++;
    else this.#requests.set(key, request);
  }

  #finish(request: LoggedRequest | undefined, endedAt: number | null = null): void {
    if (!request) return;
    request.done = true;
    request.endedAt = endedAt;
    this.#lastActivity = performance.now();
    if (this.pending > 0) return;
    for (const resolve of this.#idleWaiters.splice(0)) resolve();
  }
}

/** How an answer's headers forbid framing, in words. A policy that names ancestors outdoes X-Frame-Options. */
function getFrameRule(headers: Record<string, string>): string | null {
  const of = (name: string) =>
    Object.entries(headers).find(([key]) => key.toLowerCase() === name)?.[1];
  const ancestors = /frame-ancestors\s+([^;,\n]*)/i.exec(of('content-security-policy') ?? '')?.[1];
  if (ancestors !== undefined)
    return `Content-Security-Policy: frame-ancestors ${ancestors.trim()}`;
  const option = of('x-frame-options');
  return option === undefined ? null : `X-Frame-Options: ${option}`;
}
