import { createServer, type IncomingMessage, type Server } from 'node:http';
import { createSecureServer, type Http2SecureServer } from 'node:http2';
import { connect, type AddressInfo, type Socket } from 'node:net';
import type { Duplex } from 'node:stream';
import type { Refusal } from '../../core/evidence.js';
import type { GateCertificate } from './certificate.js';
import { forward, forwardUpgrade, join, refuse, type Answer, type Ask } from './exchange.js';
import { servePage, type PageSource } from './page-server.js';
import { getPort, getRoute, type GateRules, type Route } from './route.js';

/** Something the gate did not let through, or could not get. */
export interface GateRefusal extends Refusal {
  host: string;
  /** The path, for a file of the page's own origin that nobody here has. */
  path: string | null;
}

const REFUSED = 'HTTP/1.1 403 Forbidden\r\ncontent-length: 0\r\nconnection: close\r\n\r\n';
const UNREACHED = 'HTTP/1.1 502 Bad Gateway\r\ncontent-length: 0\r\nconnection: close\r\n\r\n';

/**
 * The one way in and out for all traffic of a snippet: a forward proxy on loopback. It answers for
 * the host page, sends rerouted hosts elsewhere, tunnels the rest to addresses it has checked.
 */
export class Gate {
  #rules: GateRules;
  #page: PageSource = { html: '', headers: {}, root: null };
  #proxy: Server;
  #secure: Http2SecureServer;
  #sockets = new Set<Duplex>();
  #refusals: GateRefusal[] = [];

  constructor(rules: GateRules, certificate: GateCertificate) {
    this.#rules = rules;
    this.#secure = createSecureServer({
      key: certificate.key,
      cert: certificate.cert,
      allowHTTP1: true,
    });
    this.#secure.on('request', (ask, answer) => void this.#serve(ask, answer, 'https:'));
    this.#secure.on(
      'upgrade',
      (ask: IncomingMessage, socket: Duplex) => void this.#upgrade(ask, socket, 'https:'),
    );
    this.#secure.on('sessionError', () => undefined);
    this.#secure.on('tlsClientError', () => undefined);
    this.#proxy = createServer((ask, answer) => void this.#serve(ask, answer, 'http:'));
    this.#proxy.on(
      'connect',
      (ask: IncomingMessage, socket: Socket, head: Buffer) => void this.#connect(ask, socket, head),
    );
    this.#proxy.on(
      'upgrade',
      (ask: IncomingMessage, socket: Duplex) => void this.#upgrade(ask, socket, 'http:'),
    );
    this.#proxy.on('connection', (socket) => this.#keep(socket));
    this.#proxy.on('clientError', (_error, socket) => socket.destroy());
  }

  /** Opens the gate; resolves to its port on 127.0.0.1. */
  open(): Promise<number> {
    return new Promise((resolve, reject) => {
      this.#proxy.once('error', reject);
      this.#proxy.listen(0, '127.0.0.1', () =>
        resolve((this.#proxy.address() as AddressInfo).port),
      );
    });
  }

  /** What the host page's origin answers from now on. */
  setPage(page: PageSource): void {
    this.#page = page;
  }

  /** What was refused since the last call. */
  takeRefusals(): GateRefusal[] {
    return this.#refusals.splice(0);
  }

  async close(): Promise<void> {
    for (const socket of this.#sockets) socket.destroy();
    this.#secure.close();
    await new Promise((resolve) => this.#proxy.close(resolve));
  }

  async #connect(ask: IncomingMessage, socket: Socket, head: Buffer): Promise<void> {
    socket.on('error', () => socket.destroy());
    const { hostname, port } = splitAuthority(ask.url ?? '');
    const route = await getRoute(this.#rules, hostname, port);
    if (route.kind === 'tunnel') return this.#tunnel(route, hostname, socket, head);
    if (route.kind === 'refuse') {
      this.#refuse(route, hostname);
      return void socket.end(route.reason === 'private-address' ? REFUSED : UNREACHED);
    }
    socket.write('HTTP/1.1 200 Connection Established\r\n\r\n');
    if (head.length > 0) socket.unshift(head);
    // A tunnel may carry plain HTTP too (ws: to port 80): a TLS record starts with byte 22.
    socket.once('readable', () => {
      const first = socket.read(1) as Buffer | null;
      if (!first) return void socket.destroy();
      socket.unshift(first);
      (first[0] === 22 ? this.#secure : this.#proxy).emit('connection', socket);
    });
  }

  #tunnel(
    route: Extract<Route, { kind: 'tunnel' }>,
    host: string,
    socket: Socket,
    head: Buffer,
  ): void {
    const onward = connect({ host: route.address, port: route.port });
    this.#keep(onward);
    onward.once('connect', () => {
      socket.write('HTTP/1.1 200 Connection Established\r\n\r\n');
      if (head.length > 0) onward.write(head);
      join(socket, onward);
    });
    onward.once('error', () => {
      this.#note({ kind: 'unreachable', words: 'the host did not answer', host, path: null });
      socket.end(UNREACHED);
    });
  }

  async #serve(ask: Ask, answer: Answer, scheme: string): Promise<void> {
    answer.on('error', () => answer.destroy());
    const url = getTarget(ask, scheme);
    if (!url) return refuse(answer, 400);
    const route = await getRoute(this.#rules, url.hostname, getPort(url));
    if (route.kind === 'refuse') {
      this.#refuse(route, url.hostname);
      return refuse(answer, route.reason === 'private-address' ? 403 : 502);
    }
    if (route.kind === 'page') return this.#answerForPage(ask, answer, url);
    const to =
      route.kind === 'reroute'
        ? route.to
        : new URL(`http://${bracket(route.address)}:${route.port}`);
    forward(ask, answer, to, url.host, () =>
      this.#note({
        kind: 'unreachable',
        words: 'the host did not answer',
        host: url.hostname,
        path: null,
      }),
    );
  }

  async #answerForPage(ask: Ask, answer: Answer, url: URL): Promise<void> {
    if (await servePage(this.#page, ask, answer)) return;
    const words = 'the host page’s site is not here, only the page';
    this.#note({ kind: 'unknown-name', words, host: url.hostname, path: url.pathname });
    refuse(answer, 404);
  }

  async #upgrade(ask: IncomingMessage, socket: Duplex, scheme: string): Promise<void> {
    socket.on('error', () => socket.destroy());
    const url = getTarget(ask, scheme);
    const route = url && (await getRoute(this.#rules, url.hostname, getPort(url)));
    if (url && route?.kind === 'reroute') return forwardUpgrade(ask, socket, route.to, url.host);
    if (url && route?.kind === 'refuse') this.#refuse(route, url.hostname);
    socket.destroy();
  }

  #refuse(route: Extract<Route, { kind: 'refuse' }>, host: string): void {
    this.#note({ kind: route.reason, words: route.words, host, path: null });
  }

  #note(refusal: GateRefusal): void {
    this.#refusals.push(refusal);
  }

  #keep(socket: Duplex): void {
    this.#sockets.add(socket);
    socket.on('close', () => this.#sockets.delete(socket));
    socket.on('error', () => socket.destroy());
  }
}

/** The address a request is for: absolute in a plain proxy request, else by its host header. */
function getTarget(ask: Ask, scheme: string): URL | null {
  const host = ask.headers[':authority'] ?? ask.headers.host ?? '';
  const url = ask.url ?? '/';
  const text = /^https?:\/\//.test(url) ? url : `${scheme}//${String(host)}${url}`;
  return URL.canParse(text) ? new URL(text) : null;
}

function splitAuthority(authority: string): { hostname: string; port: number } {
  const at = authority.lastIndexOf(':');
  return { hostname: authority.slice(0, at), port: Number(authority.slice(at + 1)) };
}

function bracket(address: string): string {
  return address.includes(':') ? `[${address}]` : address;
}
