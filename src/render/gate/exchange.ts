import {
  request as plainRequest,
  type IncomingMessage,
  type RequestOptions,
  type ServerResponse,
} from 'node:http';
import type { Http2ServerRequest, Http2ServerResponse } from 'node:http2';
import { request as secureRequest } from 'node:https';
import { isIP } from 'node:net';
import type { Duplex } from 'node:stream';
import type { Refusal } from '../../core/evidence.js';
import type { Take } from './recorder.js';

/** A request and its answer as the gate meets them: over HTTP/1.1 or HTTP/2. */
export type Ask = IncomingMessage | Http2ServerRequest;
export type Answer = ServerResponse | Http2ServerResponse;

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
}

/**
 * Passes a request on to another origin under the name the page asked for, and its answer back.
 * @param take follows both, for a recording
 * @param onFailure told when the other side does not answer
 */
export function forward(
  ask: Ask,
  answer: Answer,
  to: Onward,
  realHost: string,
  take: Take | null,
  onFailure: () => void,
): void {
  const path = new URL(ask.url ?? '/', `http://${realHost}`);
  const options = {
    ...getTarget(to, realHost),
    method: ask.method,
    path: path.pathname + path.search,
    headers: { ...keepHeaders(ask.headers), host: realHost },
  };
  const onward = getOpener(to)(options, (back) => {
    const headers = keepHeaders(back.headers);
    take?.answered(back.statusCode ?? 502, headers);
    answer.writeHead(back.statusCode ?? 502, headers as Record<string, string>);
    if (take) back.on('data', (chunk: Buffer) => take.got(chunk));
    back.pipe(answer as NodeJS.WritableStream);
    back.on('end', () => take?.end());
    back.on('error', () => answer.destroy());
  });
  onward.on('error', () => {
    take?.end(SILENT);
    onFailure();
    refuse(answer, 502);
  });
  answer.on('close', () => {
    onward.destroy();
    take?.end();
  });
  if (take) ask.on('data', (chunk: Buffer) => take.sent(chunk));
  (ask as NodeJS.ReadableStream).pipe(onward);
}

/** Passes a WebSocket handshake on, then its bytes both ways. */
export function forwardUpgrade(
  ask: IncomingMessage,
  socket: Duplex,
  to: Onward,
  realHost: string,
): void {
  const onward = getOpener(to)({
    ...getTarget(to, realHost),
    path: ask.url,
    headers: { ...ask.headers, host: realHost },
  });
  onward.on('upgrade', (back, other) => {
    const lines = back.rawHeaders.flatMap((text, i) =>
      i % 2 ? [] : [`${text}: ${back.rawHeaders[i + 1]}`],
    );
    socket.write(`HTTP/1.1 101 Switching Protocols\r\n${lines.join('\r\n')}\r\n\r\n`);
    join(socket, other);
  });
  onward.on('response', () => socket.destroy());
  onward.on('error', () => socket.destroy());
  onward.end();
}

function getOpener({ scheme }: Onward): typeof plainRequest {
  return scheme === 'https:' ? secureRequest : plainRequest;
}

/** The certificate is held against the name the page asked for, whatever address is dialled. */
function getTarget({ host, port }: Onward, realHost: string): RequestOptions {
  const name = realHost.replace(/:\d+$/, '');
  return { host, port, ...(!isIP(name) && { servername: name }) } as RequestOptions;
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
