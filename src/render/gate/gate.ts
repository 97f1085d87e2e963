import { createServer, type IncomingMessage, type Server } from 'node:http';
import type { Http2SecureServer } from 'node:http2';
import type { AddressInfo, Socket } from 'node:net';
import type { Duplex } from 'node:stream';
import type { Refusal } from '../../core/evidence.js';
import type { Load } from '../../core/recording/exchange.js';
import type { Recording } from '../../core/recording/recording.js';
import { getAskedUrl, parseAuthority, splitAuthority } from './address.js';
import type { GateCertificate } from './certificate.js';
import { checkCertificate, hand, isSecure, makeEnd } from './ends.js';
import {
  forward,
  forwardUpgrade,
  join,
  refuse,
  SILENT,
  type Answer,
  type Ask,
} from './exchange.js';
import { isPage, servePage, type PageSource } from './page-server.js';
import type { Recorder } from './recorder.js';
import { Replay } from './replay.js';
import { CHALLENGE, Doorman, guard } from './doorman.js';
import { ESTABLISHED, REFUSED, UNKNOWN_USER, UNREACHED } from './tunnel-answers.js';
import { RequestBook, type GateLog } from './log.js';
import { lookUp, type Lookup } from './lookup.js';
import { Meter, MOST_BYTES } from './meter.js';
import { getOnward, getPort, getRoute, type GateRules, type Route, type Tunnel } from './route.js';
import { Silence } from './silence.js';
import { dial, ProxyFault } from './upstream.js';

/** What all gates of a run share. */
export interface GateMeans {
  certificate: GateCertificate;
  /** Shown where the real host's own certificate is bad: the browser does not let it through. */
  distrusted?: GateCertificate;
  recorder?: Recorder;
  recording?: Recording;
  /** How names are looked up; left out: as the system does it. */
  look?: Lookup;
  /** How much may come in during one load, bytes; left out: as much as no page needs. */
  mostBytes?: number;
}

const NO_LOAD: Load = { snippet: '', view: '' };

/**
 * The one way in and out for all traffic of a snippet: a forward proxy on loopback. It answers for
 * the host page, replays a recording, sends rerouted hosts elsewhere, and tunnels the rest to
 * addresses it has checked; while it records, it ends their TLS itself.
 */
export class Gate {
  #rules: GateRules;
  #doorman: Doorman;
  #look: Lookup;
  #meter: Meter;
  #page: PageSource = { html: '', headers: {}, root: null };
  #load: Load = NO_LOAD;
  #recorder: Recorder | null;
  #replay: Replay | null;
  #proxy: Server;
  #secure: Http2SecureServer;
  #distrusted: Http2SecureServer | null;
  #sockets = new Set<Duplex>();
  #book = new RequestBook();
  #silence = new Silence();

  /** @param password what the browser must show; null where anybody may use it */
  constructor(rules: GateRules, means: GateMeans, password: string | null = null) {
    this.#rules = rules;
    this.#doorman = new Doorman(password);
    this.#look = means.look ?? lookUp;
    this.#meter = new Meter(means.mostBytes ?? MOST_BYTES);
    this.#recorder = means.recorder ?? null;
    this.#replay = means.recording ? new Replay(means.recording) : null;
    const handlers = {
      onRequest: (ask: Ask, answer: Answer) => this.#onRequest(ask, answer, 'https:'),
      onUpgrade: (ask: IncomingMessage, socket: Duplex) => this.#onUpgrade(ask, socket, 'https:'),
    };
    this.#secure = makeEnd(means.certificate, handlers);
    this.#distrusted = means.distrusted ? makeEnd(means.distrusted, handlers) : null;
    this.#proxy = createServer((ask, answer) => {
      if (this.#doorman.admits(ask)) this.#onRequest(ask, answer, 'http:');
      else answer.writeHead(407, CHALLENGE).end();
    });
    this.#proxy.on('connect', (ask: IncomingMessage, socket: Socket, head: Buffer) => {
      socket.on('error', () => socket.destroy());
      if (!this.#doorman.admits(ask)) return void socket.end(UNKNOWN_USER);
      guard(this.#connect(ask, socket, head), () => socket.destroy());
    });
    this.#proxy.on('upgrade', (ask: IncomingMessage, socket: Duplex) => {
      if (this.#doorman.admits(ask)) this.#onUpgrade(ask, socket, 'http:');
      else socket.destroy();
    });
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

  /** What the host page's origin answers from now on, and the load that what passes belongs to. */
  setPage(page: PageSource, load: Load = NO_LOAD): void {
    this.#recorder?.endLoad(this.#load);
    this.#replay?.begin(load);
    this.#meter.reset();
    this.#load = load;
    this.#page = page;
    this.#silence.begin(page.silent);
  }

  /** A host that was silent answers from now on. */
  endSilence(): void {
    this.#silence.end();
  }

  /** What was refused, and what was asked for, since the last call. */
  takeLog(): GateLog {
    return this.#book.take();
  }

  async close(): Promise<void> {
    this.#recorder?.endLoad(this.#load);
    for (const socket of this.#sockets) socket.destroy();
    this.#secure.close();
    this.#distrusted?.close();
    await new Promise((resolve) => this.#proxy.close(resolve));
  }

  #onRequest(ask: Ask, answer: Answer, scheme: string): void {
    guard(this.#serve(ask, answer, scheme), () => refuse(answer, 502));
  }

  #onUpgrade(ask: IncomingMessage, socket: Duplex, scheme: string): void {
    guard(this.#upgrade(ask, socket, scheme), () => socket.destroy());
  }

  async #connect(ask: IncomingMessage, socket: Socket, head: Buffer): Promise<void> {
    const authority = parseAuthority(ask.url ?? '');
    if (!authority) return void socket.end(REFUSED);
    const { hostname, port } = authority;
    if (await this.#silence.holds(hostname, socket)) return;
    const route = await getRoute(this.#rules, hostname, port, this.#replay, undefined, this.#look);
    if (route.kind === 'tunnel') return this.#reach(route, hostname, socket, head);
    if (route.kind === 'refuse') {
      this.#refuseHost(route.refusal, `${hostname}:${port}`);
      return void socket.end(route.refusal.kind === 'private-address' ? REFUSED : UNREACHED);
    }
    socket.write(ESTABLISHED);
    await this.#speak(socket, head);
  }

  /** Speaks on a tunnel in place of its host. */
  async #speak(socket: Socket, head: Buffer): Promise<void> {
    if (head.length > 0) socket.unshift(head);
    const secure = await isSecure(socket);
    if (secure === null) socket.destroy();
    else this.#hand(socket, secure ? this.#secure : this.#proxy);
  }

  /** What comes in a tunnel has shown who it is when the tunnel was opened. */
  #hand(socket: Socket, server: Http2SecureServer | Server): void {
    this.#doorman.trust(socket);
    hand(socket, server);
  }

  async #reach(route: Tunnel, host: string, socket: Socket, head: Buffer): Promise<void> {
    const authority = `${host}:${route.port}`;
    try {
      const onward = await dial(route, (made) => this.#keep(made));
      socket.write(ESTABLISHED);
      if (this.#recorder) return await this.#standBetween(onward, authority, socket, head);
      if (head.length > 0) onward.write(head);
      onward.on('data', ({ length }: Buffer) => {
        const over = this.#meter.count(length);
        if (!over) return;
        this.#refuseHost(over, authority);
        socket.destroy();
      });
      join(socket, onward);
    } catch (error) {
      this.#refuseHost(error instanceof ProxyFault ? error.refusal : SILENT, authority);
      socket.end(UNREACHED);
    }
  }

  /** While recording, the real host's TLS ends here: its certificate is checked here too. */
  async #standBetween(
    onward: Socket,
    authority: string,
    socket: Socket,
    head: Buffer,
  ): Promise<void> {
    if (head.length > 0) socket.unshift(head);
    const secure = await isSecure(socket);
    const { hostname } = splitAuthority(authority);
    const fault = secure ? await checkCertificate(onward, hostname) : null;
    onward.destroy();
    if (secure === null) return void socket.destroy();
    if (fault === null) return this.#hand(socket, secure ? this.#secure : this.#proxy);
    const words = `its certificate is not trusted (${fault})`;
    this.#recordHost({ kind: 'unreachable', words }, authority);
    if (this.#distrusted) this.#hand(socket, this.#distrusted);
    else socket.destroy();
  }

  async #serve(ask: Ask, answer: Answer, scheme: string): Promise<void> {
    answer.on('error', () => answer.destroy());
    const url = getAskedUrl(ask, scheme);
    if (!url) return refuse(answer, 400);
    if (await this.#silence.holds(url.hostname, ask.socket)) return;
    const route = await this.#findRoute(url, !this.#page.published || isPage(this.#page, ask));
    if (route.kind === 'page') return this.#answerForPage(ask, answer, url);
    const count = this.#book.follow(url, answer);
    if (route.kind === 'replay')
      return this.#replay!.answer(ask, answer, url, (refusal) => this.#note(refusal, url), count);
    const take = this.#recorder?.begin(this.#load, ask.method ?? 'GET', url.href, ask.headers);
    if (route.kind === 'refuse') {
      take?.end(route.refusal);
      this.#note(route.refusal, url, true);
      return refuse(answer, route.refusal.kind === 'private-address' ? 403 : 502);
    }
    await forward(
      ask,
      answer,
      getOnward(route, url),
      url.host,
      take ?? null,
      (piece) => {
        count(piece);
        return this.#meter.count(piece.length);
      },
      (refusal) => this.#note(refusal, url, refusal.kind !== 'too-much'),
    );
  }

  /** @param ours the host page's origin is answered for here */
  #findRoute(url: URL, ours = true): Promise<Route> {
    const { hostname, protocol } = url;
    const scheme = /^(http|ws):$/.test(protocol) ? 'http:' : 'https:';
    const rules = ours ? this.#rules : { ...this.#rules, origin: null };
    return getRoute(rules, hostname, getPort(url), this.#replay, scheme, this.#look);
  }

  async #answerForPage(ask: Ask, answer: Answer, url: URL): Promise<void> {
    if (await servePage(this.#page, ask, answer)) return;
    const words = 'the host page’s site is not here, only the page';
    // With its folder of files it is here: what is not among them, is not there.
    if (this.#page.root === null) this.#note({ kind: 'not-here', words }, url);
    refuse(answer, 404);
  }

  async #upgrade(ask: IncomingMessage, socket: Duplex, scheme: string): Promise<void> {
    socket.on('error', () => socket.destroy());
    const url = getAskedUrl(ask, scheme);
    const route = url && (await this.#findRoute(url, !this.#page.published));
    if (url && (route?.kind === 'reroute' || (route?.kind === 'tunnel' && this.#recorder)))
      return forwardUpgrade(ask, socket, getOnward(route, url), url.host);
    if (url && route?.kind === 'refuse') this.#note(route.refusal, url, true);
    if (url && route?.kind === 'replay')
      this.#note({ kind: 'not-recorded', words: 'a recording keeps no live connection' }, url);
    socket.destroy();
  }

  #refuseHost(refusal: Refusal, authority: string): void {
    this.#recordHost(refusal, authority);
    this.#book.refuse(refusal, splitAuthority(authority).hostname, null);
  }

  #recordHost(refusal: Refusal, authority: string): void {
    if (!URL.canParse(`https://${authority}/`)) return;
    const { href } = new URL(`https://${authority}/`);
    this.#recorder?.begin(this.#load, 'CONNECT', href, {}).end(refusal);
  }

  #note(refusal: Refusal, url: URL, wholeHost = false): void {
    this.#book.refuse(refusal, url.hostname, wholeHost ? null : url.pathname);
  }

  #keep(socket: Duplex): void {
    this.#sockets.add(socket);
    socket.on('close', () => this.#sockets.delete(socket));
    socket.on('error', () => socket.destroy());
  }
}
