import type { Protocol } from 'devtools-protocol';
import type { Box } from '../../core/evidence.js';
import type { Viewport } from '../../core/render.js';
import type { PageCalls } from '../reader/calls.js';
import type { PutIn } from '../in-page/put-in.js';
import { getWatcherScript } from '../page-scripts.js';
import { within, withinTalk } from '../bounds/limit.js';
import type {
  PageAnswer,
  BrowserPage,
  FrameAnswer,
  Hottest,
  PageCall,
  Preparation,
  Pulse,
} from '../page/browser-page.js';
import { Happenings } from '../page/happenings.js';
import { RequestLog, type CallFrame } from '../page/request-log.js';
import { Admission, ALL_ATTACHED } from './admission.js';
import { Clock } from './clock.js';
import { ProtocolError, type Connection, type Session } from './connection.js';
import { followConsole, followHappenings } from './happenings.js';
import { watchHeart, type Heart } from './heart.js';
import { closeContext, listCookies, openContext, type OpenedPage } from './context.js';
import { Hand } from './hand.js';
import { getWork } from './processes.js';
import { getIdentity, introduce } from './identity.js';
import { layIn } from './lay.js';
import { BLANK_LIMIT, leaveBehind } from './leave.js';
import { findOwner } from './owners.js';
import { listMakers, traceMakers } from './makers.js';
import { openClosedRoots } from './shadow.js';
import { listFiles, readPictureFile } from './files.js';
import { draw, shoot, takeSteady } from './shoot.js';
import { RunningCode } from './running.js';
import { Screencast } from './screencast.js';
import { SoundLog } from './sound.js';
import { startProfile, stopProfile, stopScripts } from './stop.js';
import { followTraffic } from './traffic.js';
import { Window } from './viewport.js';
import type { Door, Visitor } from '../page/visitor.js';
import { Worlds } from './worlds.js';

/** How lately something must have come from a page that talks, ms. */
const TALKS = 1000;

/** A page of its own context, its traffic going through one gate. */
export class Tab implements BrowserPage {
  readonly requests = new RequestLog();
  readonly mainFrame: string;
  readonly hand: Hand;
  readonly running: RunningCode;
  readonly screen: Screencast;
  #session: Session;
  #connection: Connection;
  #opened: OpenedPage;
  #worlds = new Worlds();
  #admission: Admission;
  address = '';
  #onLoad: (() => void) | null = null;
  happened = new Happenings('');
  /** The browser keeps in mind who makes elements. */
  #traced = false;
  #sounds = new SoundLog();
  #clock = new Clock({
    requests: this.requests,
    showFrame: () => this.read('showFrame'),
    tellFrame: () => this.read('tellFrame'),
  });
  #visitor: Visitor;
  #window: Window;
  #identity: Protocol.Emulation.SetUserAgentOverrideRequest | null = null;

  /** Opens a page in a new context that goes through a proxy on 127.0.0.1. */
  static async open(connection: Connection, proxy: Door, visitor: Visitor): Promise<Tab> {
    const tab = new Tab(connection, await openContext(connection, proxy), visitor);
    await tab.#setUpPage(proxy.password);
    return tab;
  }

  private constructor(connection: Connection, opened: OpenedPage, visitor: Visitor) {
    const { session, targetId } = opened;
    this.#connection = connection;
    this.#opened = opened;
    this.mainFrame = targetId;
    this.#session = session;
    this.hand = new Hand(session, () => this.#window.reveal());
    this.#window = new Window(opened);
    this.running = new RunningCode(session);
    this.screen = new Screencast(session, () => this.#window.reveal());
    this.#visitor = visitor;
    this.#admission = new Admission(session, targetId, () => this.happened);
  }

  async close(): Promise<void> {
    this.#connection.root.off('Target.attachedToTarget', this.#takeUp);
    this.#clock.stop();
    await closeContext(this.#connection, this.#opened);
  }

  async prepare(wish: Preparation): Promise<void> {
    const { viewport, variant, before, cold, traced, profiled, covered, scripted, watched } = wish;
    const session = this.#session;
    const { glides } = this.happened;
    const waysOut = { clearAway: () => this.read('clearAway'), goBlank: () => this.#goBlank() };
    await Promise.all([
      this.#window.set(viewport, variant),
      this.hand.rest(),
      this.#introduce(viewport),
      ...(before === null ? [] : [leaveBehind(session, { before, cold, glides }, waysOut)]),
    ]);
    if (traced) await traceMakers(session);
    this.#traced = traced;
    await this.running.keep(covered);
    if (watched) await this.screen.watch(viewport);
    if (profiled) await startProfile(session);
    if (!scripted) await session.hold('Emulation.setScriptExecutionDisabled', { value: true });
  }

  /** Says of the browser, from the next load on, what it says to a visitor with such a window. */
  async #introduce(viewport: Viewport): Promise<void> {
    const { version, language } = this.#visitor;
    this.#identity = getIdentity(viewport, version, language);
    await this.#session.hold('Emulation.setUserAgentOverride', this.#identity);
  }

  /** To an empty page, which no code is in: there the window loses the name that the old one gave it. */
  async #goBlank(): Promise<void> {
    // What happens from here on is ours, and no part of what was seen.
    this.happened = new Happenings('');
    const loaded = new Promise<void>((resolve) => (this.#onLoad = resolve));
    await this.#session.send('Page.navigate', { url: 'about:blank' });
    await within(loaded, BLANK_LIMIT);
    await this.#session.send('Runtime.evaluate', { expression: "name = ''", userGesture: false });
  }

  /** Goes to the planned page. */
  async load(address: string, ms: number): Promise<true | null> {
    this.requests.reset();
    this.happened = new Happenings(address);
    this.#admission.planned = this.address = address;
    const loaded = new Promise<true>((resolve) => (this.#onLoad = () => resolve(true)));
    const gone = new Promise<never>((_, reject) => {
      this.#session.onEnd(() => reject(new ProtocolError('the page is gone')));
    });
    gone.catch(() => undefined);
    const { errorText } = await Promise.race([
      this.#session.send('Page.navigate', { url: address }),
      gone,
    ]);
    if (errorText) throw new ProtocolError(`the host page could not be loaded: ${errorText}`);
    const done = await withinTalk(this, Promise.race([loaded, gone]), ms);
    if (this.#window.noteDensity()) this.read('renewLetters').catch(() => undefined);
    return done;
  }

  endLoad = (): void => this.#onLoad?.();

  putIn(wish: PutIn): Promise<void> {
    return layIn(this.#session, this.#worlds, this.mainFrame, wish);
  }

  async resize(viewport: Viewport): Promise<void> {
    const [alike] = await Promise.all([this.#window.become(viewport), this.#introduce(viewport)]);
    const wish = this.#window.noteDensity() || !alike ? 'renewBoxes' : 'scrollBack';
    // Not waited for: what is read is asked for behind it.
    this.read(wish).catch(() => undefined);
  }

  read<N extends PageCall>(name: N, ...args: Parameters<PageCalls[N]>): Promise<PageAnswer<N>> {
    return this.#worlds.call(this.mainFrame, name, args);
  }

  readFrames<N extends PageCall>(
    name: N,
    ms: number,
    ...args: Parameters<PageCalls[N]>
  ): Promise<FrameAnswer<PageAnswer<N>>[]> {
    const frames = this.#worlds.frames.filter((frame) => frame !== this.mainFrame);
    return this.#worlds.callAll(frames, ms, name, args);
  }

  findOwner(frame: string): Promise<number | null> {
    return findOwner(this.#session, this.#worlds.get(this.mainFrame).context, frame);
  }

  async openClosedRoots(): Promise<void> {
    await openClosedRoots(this.#session, this.#worlds.get(this.mainFrame).context);
    if (!this.#traced) this.#session.tell('DOM.disable');
  }

  listMakers(id: number): Promise<CallFrame[]> {
    return listMakers(this.#session, this.#worlds.get(this.mainFrame).context, id);
  }

  learnSounds: BrowserPage['learnSounds'] = (...asked) => this.#sounds.learn(...asked);

  hasSound: BrowserPage['hasSound'] = (address) => this.#sounds.get(address);

  pass: BrowserPage['pass'] = (...asked) => this.#clock.pass(...asked);

  get aged(): boolean {
    return this.#clock.moved;
  }

  watchHeart(ms: number): Pulse {
    return watchHeart(() => this.#heart, ms);
  }

  get gone(): boolean {
    return this.#connection.closed;
  }

  get talks(): boolean {
    const silence = performance.now() - this.#session.heardAt;
    return this.#connection.isJammed || silence < TALKS;
  }

  get #heart(): Heart {
    return {
      ended: this.#session.ended,
      talks: this.talks,
      insists: this.happened.insists,
      answers: (ms) => this.#answers(ms),
      getWork: () => getWork(this.#connection),
    };
  }

  async contain(profiled: boolean): Promise<Hottest> {
    await stopScripts(this.#session);
    await this.#answers(3000);
    return profiled ? stopProfile(this.#session) : null;
  }

  shoot(region: Box, density: number, ms: number): Promise<Buffer | null> {
    const take = () => shoot(this.#session, region, density, ms);
    return this.#worlds.frames.length > 1 ? takeSteady(take) : take();
  }

  readPicture: BrowserPage['readPicture'] = (url) =>
    readPictureFile(this.#session, this.mainFrame, url);

  listCookies: BrowserPage['listCookies'] = () => listCookies(this.#connection, this.#opened);

  listFiles: BrowserPage['listFiles'] = () => listFiles(this.#session);

  draw: BrowserPage['draw'] = (...asked) => draw(this.#session, this.mainFrame, ...asked);

  /** Whether the page answers within `ms`. */
  async #answers(ms: number): Promise<boolean> {
    const call = this.#session.send('Runtime.evaluate', { expression: '1', userGesture: false });
    return (await within(call, ms).catch(() => null)) !== null;
  }

  /** Of all targets that the browser tells of, the shared workers of this context. */
  #takeUp = ({ sessionId, targetInfo }: Protocol.Target.AttachedToTargetEvent): void => {
    const { type, browserContextId } = targetInfo;
    if (type !== 'shared_worker' || browserContextId !== this.#opened.contextId) return;
    const session = this.#connection.session(sessionId);
    this.#setUp(session, type, this.#session).catch(() => undefined);
  };

  async #setUpPage(password: string): Promise<void> {
    const session = this.#session;
    this.#connection.root.on('Target.attachedToTarget', this.#takeUp);
    session.on('Page.loadEventFired', () => this.#onLoad?.());
    // A navigation that was answered with nothing ends the load without its event.
    session.on('Page.frameStoppedLoading', ({ frameId }) => {
      if (frameId === this.mainFrame && this.happened.navigations.length > 0) this.#onLoad?.();
    });
    followHappenings(session, this.mainFrame, () => this.happened);
    const ready = this.#setUp(session, 'page');
    this.#admission.start(password);
    await ready;
  }

  /** Sent without waiting in between: the target is held until the last one. @param type of the target */
  #setUp(session: Session, type: string, owner = session): Promise<unknown> {
    followTraffic(session, this.requests);
    followConsole(session, () => this.happened);
    this.#sounds.follow(session);
    // The page tells of a service worker, and it lives where its frame does.
    this.#clock.follow(session, owner, type === 'service_worker');
    session.on('Target.attachedToTarget', ({ sessionId, targetInfo }) => {
      const [child, { type }] = [session.child(sessionId), targetInfo];
      this.#setUp(child, type, type === 'iframe' ? child : owner).catch(() => undefined);
    });
    session.tell('Network.enable', { maxTotalBufferSize: 0, maxResourceBufferSize: 0 });
    session.tell('Page.enable');
    this.#worlds.follow(session);
    if (type === 'page')
      session.tell('Page.addScriptToEvaluateOnNewDocument', { source: getWatcherScript() });
    session.tell('Runtime.enable');
    introduce(session, this.#identity, this.#visitor.language);
    session.tell('Target.setAutoAttach', ALL_ATTACHED);
    return session.send('Runtime.runIfWaitingForDebugger');
  }
}
