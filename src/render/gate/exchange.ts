import { request as plainRequest, type IncomingMessage, type ServerResponse } from 'node:http';
import type { Http2ServerRequest, Http2ServerResponse } from 'node:http2';
import { request as secureRequest } from 'node:https';
import type { Duplex } from 'node:stream';

/** A request and its answer as the gate meets them: over HTTP/1.1 or HTTP/2. */
export type Ask = IncomingMessage | Http2ServerRequest;
export type Answer = ServerResponse | Http2ServerResponse;

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

/**
 * Passes a request on to another origin under the name the page asked for, and its answer back.
 * @param onFailure told when the other side does not answer.
 */
export function forward(
  ask: Ask,
  answer: Answer,
  to: URL,
  realHost: string,
  onFailure: () => void,
): void {
  const headers = { ...keepHeaders(ask.headers), host: realHost };
  const open = to.protocol === 'https:' ? secureRequest : plainRequest;
  const path = new URL(ask.url ?? '/', `http://${realHost}`);
  const onward = open(
    {
      host: to.hostname,
      port: to.port || undefined,
      method: ask.method,
      path: path.pathname + path.search,
      headers,
    },
    (back) => {
      answer.writeHead(back.statusCode ?? 502, keepHeaders(back.headers) as Record<string, string>);
      back.pipe(answer as NodeJS.WritableStream);
      back.on('error', () => answer.destroy());
    },
  );
  onward.on('error', () => {
    onFailure();
    refuse(answer, 502);
  });
  answer.on('close', () => onward.destroy());
  (ask as NodeJS.ReadableStream).pipe(onward);
}

/** Passes a WebSocket handshake on, then its bytes both ways. */
export function forwardUpgrade(
  ask: IncomingMessage,
  socket: Duplex,
  to: URL,
  realHost: string,
): void {
  const open = to.protocol === 'https:' ? secureRequest : plainRequest;
  const onward = open({
    host: to.hostname,
    port: to.port || undefined,
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

function keepHeaders(headers: Ask['headers']): Record<string, string | string[]> {
  const kept = Object.entries(headers).filter(
    ([name, value]) => value !== undefined && !name.startsWith(':') && !HOP_BY_HOP.has(name),
  );
  return Object.fromEntries(kept) as Record<string, string | string[]>;
}
