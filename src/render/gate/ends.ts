import type { IncomingMessage, Server } from 'node:http';
import { createSecureServer, type Http2SecureServer } from 'node:http2';
import { isIP, type Socket } from 'node:net';
import type { Duplex } from 'node:stream';
import { connect as startTls } from 'node:tls';
import type { GateCertificate } from './certificate.js';
import type { Answer, Ask } from './exchange.js';
import { getTrust } from './trusted.js';

/** What an end of TLS hands on. */
export interface EndHandlers {
  onRequest(ask: Ask, answer: Answer): void;
  onUpgrade(ask: IncomingMessage, socket: Duplex): void;
}

/** First byte of a TLS record that carries a handshake (RFC 8446, 5.1). */
const HANDSHAKE = 22;

/** An end of TLS of the gate's own. */
export function makeEnd(
  { key, cert }: Pick<GateCertificate, 'key' | 'cert'>,
  handlers: EndHandlers,
): Http2SecureServer {
  // A table of headers would make an answer's size depend on those before it.
  const end = createSecureServer({ key, cert, allowHTTP1: true, maxDeflateDynamicTableSize: 0 });
  end.on('request', (ask, answer) => handlers.onRequest(ask, answer));
  end.on('upgrade', (ask: IncomingMessage, socket: Duplex) => handlers.onUpgrade(ask, socket));
  end.on('sessionError', () => undefined);
  end.on('tlsClientError', () => undefined);
  return end;
}

/** Whether what comes first on a tunnel is TLS: it may carry plain HTTP too (ws: to port 80). Null where nothing comes. */
export function isSecure(socket: Socket): Promise<boolean | null> {
  return new Promise((resolve) => {
    socket.once('close', () => resolve(null));
    socket.once('readable', () => {
      const first = socket.read(1) as Buffer | null;
      if (!first) return resolve(null);
      socket.unshift(first);
      resolve(first[0] === HANDSHAKE);
    });
  });
}

/** Holds the other side's certificate against its host; resolves to what is wrong with it, or null. */
export function checkCertificate(onward: Socket, host: string): Promise<string | null> {
  return new Promise((resolve) => {
    const name = { ...(isIP(host) ? {} : { servername: host }), ...getTrust() };
    const secure = startTls({ socket: onward, host, ...name, ALPNProtocols: ['h2', 'http/1.1'] });
    secure.once('secureConnect', () => {
      secure.destroy();
      resolve(null);
    });
    secure.once('error', (error: NodeJS.ErrnoException) => resolve(error.code ?? error.message));
  });
}

/** Hands a tunnel to the server that is to speak on it. */
export function hand(socket: Socket, server: Http2SecureServer | Server): void {
  server.emit('connection', socket);
}
