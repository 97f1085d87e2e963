import {
  request as plainRequest,
  type ClientRequest,
  type IncomingMessage,
  type RequestOptions,
  type ServerResponse,
} from 'node:http';
import type { Http2ServerRequest, Http2ServerResponse } from 'node:http2';
import { request as secureRequest } from 'node:https';
import { isIP } from 'node:net';
import type { Duplex } from 'node:stream';
import { connect as startTls } from 'node:tls';
import type { Refusal } from '../../core/evidence.js';
import { flatMap } from '../../core/lists.js';
import { getPath } from './address.js';
import type { Take } from './recorder.js';
import { getTrust } from './trusted.js';
import {
  askProxy,
  getRefusalFault,
  getSilenceFault,
  openTunnel,
  PROXY_REFUSES,
  ProxyFault,
  type Proxy,
} from './upstream.js';

/** A request and its answer as the gate meets them: over HTTP/1.1 or HTTP/2. */
export type Ask = IncomingMessage | Http2ServerRequest;
export type Answer = ServerResponse | Http2ServerResponse;

/** Counts bytes that came in; why no more is let through, null where there is room. */
export type Count = (piece: Buffer) => Refusal | null;

/** What is said of a host that does not answer. */
export const SILENT: Refusal = { kind: 'unreachable', words: 'the host did not answer' };

/** Headers that belong to one connection (RFC 9110, 7.6.1) and must not be passed on. */
const HOP_BY_HOP = new Set([
  'connection',
  'keep-alive',
  'proxy-connection',
  'proxy-authorization',
  'proxy-authenticate',
  'te',
  'trailer',
  'transfer-encoding',
  'upgrade',
  'http2-settings',
]);

/** Where a request is passed on to. */
export interface Onward {
  scheme: 'http:' | 'https:';
  host: string;
  port: number;
  /** The proxy that leads there; null where none is gone through. */
  via: Proxy | null;
}

/**
 * Passes a request on to another origin under the name the page asked for, and its answer back.
 * @param take follows both, for a recording
 * @param count told of each piece of the answer
 * @param onFailure told when there is no answer, and why
 */
export async function forward(
  ask: Ask,
  answer: Answer,
  to: Onward,
  realHost: string,
  take: Take | null,
  count: Count,
  onFailure: (refusal: Refusal) => void,
): Promise<void> {
  let closed = false;
  const fail = (error: unknown) => {
    // The page gave up: that says nothing of the host.
    if (closed) return;
    const refusal = explain(error, to);
    take?.end(refusal);
    onFailure(refusal);
    refuse(answer, 502);
  };
  let onward: ClientRequest | null = null;
  // From the start: a page may give up while the way there is still being opened.
  answer.on('close', () => {
    closed = true;
    onward?.destroy();
    take?.end();
  });
  const headers = { ...keepHeaders(ask.headers), host: realHost };
  try {
    onward = await open(to, realHost, { method: ask.method, path: getPath(ask), headers });
    onward.on('error', fail);
    if (answer.destroyed) return void onward.destroy();
    onward.on('response', (back) => {
      const refused = to.via && back.statusCode === PROXY_REFUSES;
      if (refused) onward!.destroy(getRefusalFault(to.via!, PROXY_REFUSES, back.statusMessage));
      else attempt(() => passBack(back, answer, take, count, fail), fail);
    });
    if (take) ask.on('data', (chunk: Buffer) => take.sent(chunk));
    (ask as NodeJS.ReadableStream).pipe(onward);
  } catch (error) {
    fail(error);
  }
}

function passBack(
  back: IncomingMessage,
  answer: Answer,
  take: Take | null,
  count: Count,
  fail: (error: unknown) => void,
): void {
  const { statusCode = 502 } = back;
  if (statusCode > LAST_STATUS) throw new Withheld(describeOdd(statusCode));
  const headers = keepHeaders(back.headers);
  take?.answered(statusCode, headers);
  answer.writeHead(statusCode, headers as Record<string, string>);
  back.on('data', (chunk: Buffer) => {
    const over = count(chunk);
    if (!over) return void take?.got(chunk);
    fail(new Withheld(over));
    back.destroy();
  });
  back.pipe(answer as NodeJS.WritableStream);
  back.on('end', () => take?.end());
  back.on('error', () => answer.destroy());
}

function attempt(work: () => void, onFault: (error: unknown) => void): void {
  try {
    work();
  } catch (error) {
    onFault(error);
  }
}

/** The highest status that an answer over HTTP/2 can have here. */
const LAST_STATUS = 599;

/** An answer that is not passed on. */
class Withheld extends Error {
  readonly refusal: Refusal;

  constructor(refusal: Refusal) {
    super(refusal.words);
    this.refusal = refusal;
  }
}

/** Some vendors turn programs away with statuses of their own. */
function describeOdd(status: number): Refusal {
  const words = `it answers with ${status}, which no standard knows: visitors may see more`;
  return { kind: 'odd-status', words };
}

function explain(error: unknown, { via, scheme }: Onward): Refusal {
  if (error instanceof ProxyFault || error instanceof Withheld) return error.refusal;
  // Over plain HTTP it is the proxy itself that was asked.
  return via && scheme === 'http:' ? getSilenceFault(via, error).refusal : SILENT;
}

/** Passes a WebSocket handshake on, then its bytes both ways. */
export async function forwardUpgrade(
  ask: IncomingMessage,
  socket: Duplex,
  to: Onward,
  realHost: string,
): Promise<void> {
  const headers = { ...ask.headers, host: realHost };
  const onward = await open(to, realHost, { path: getPath(ask), headers }).catch(() => null);
  if (!onward) return void socket.destroy();
  onward.on('upgrade', (back, other) => {
    const lines = flatMap(back.rawHeaders, (text, i) =>
      i % 2 ? [] : [`${text}: ${back.rawHeaders[i + 1]}`],
    );
    socket.write(`HTTP/1.1 101 Switching Protocols\r\n${lines.join('\r\n')}\r\n\r\n`);
    join(socket, other);
  });
  onward.on('response', () => socket.destroy());
  onward.on('error', () => socket.destroy());
  onward.end();
}

/**
 * A request on its way: straight, or through the proxy. What is not encrypted the proxy is asked for
 * itself, unless the name that the page sees is another than the one that is dialled.
 * @throws ProxyFault
 */
async function open(to: Onward, realHost: string, more: RequestOptions): Promise<ClientRequest> {
  const { scheme, host, port, via } = to;
  const start = scheme === 'https:' ? secureRequest : plainRequest;
  const name = realHost.replace(/:\d+$/, '');
  // The certificate is held against the name the page asked for, whatever address is dialled.
  const named = {
    ...(isIP(name) ? {} : { servername: name }),
    ...(scheme === 'https:' && getTrust()),
  };
  if (!via) return start({ ...more, host, port, ...named } as RequestOptions);
  if (scheme === 'http:' && host === name && !isUpgrade(more))
    return askProxy(via, { ...more, path: `http://${realHost}${more.path}` });
  const tunnel = await openTunnel(via, host, port);
  const createConnection = () =>
    scheme === 'https:' ? startTls({ socket: tunnel, ...named }) : tunnel;
  return start({ ...more, host, port, createConnection });
}

function isUpgrade({ headers }: RequestOptions): boolean {
  return 'upgrade' in (headers ?? {});
}

/** Joins two streams both ways; when one ends or breaks, so does the other. */
export function join(a: Duplex, b: Duplex): void {
  for (const [from, to] of [
    [a, b],
    [b, a],
  ] as const) {
    from.pipe(to);
    from.on('error', () => to.destroy());
    from.on('close', () => to.destroy());
  }
}

/** Answers with a bare status. */
export function refuse(answer: Answer, status: number): void {
  if (answer.headersSent) return void answer.destroy();
  answer.writeHead(status, { 'content-type': 'text/plain', 'cache-control': 'no-store' });
  answer.end();
}

/** The headers that are for the other end, not for one connection. */
export function keepHeaders(headers: Ask['headers']): Record<string, string | string[]> {
  const kept = Object.entries(headers).filter(
    ([name, value]) => value !== undefined && !name.startsWith(':') && !HOP_BY_HOP.has(name),
  );
  return Object.fromEntries(kept) as Record<string, string | string[]>;
}
