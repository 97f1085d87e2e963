import type { Protocol } from 'devtools-protocol';
import { observe, watchPlay, watchTimers } from './collect/observe.js';
import type { Viewport } from '../core/house/house.js';
import { USER } from './gate/doorman.js';
import type { GateRefusal } from './gate/gate.js';
import { followHappenings, Happenings } from './happenings.js';
import { getIdentity } from './identity.js';
import { within } from './limit.js';
import { ProtocolError, type Connection, type Session } from './protocol/connection.js';
import { SoundLog } from './sound.js';
import { TrafficLog } from './traffic.js';

const WORLD = 'mivket';
const START = `(${observe.toString()})()`;
const IN_PAGE = [watchTimers, watchPlay].map((watch) => `(${watch.toString()})()`).join(';');
const BLANK_LIMIT = 3000;

/** Who the visitor's browser is: its version, and the language of the visitor. */
export interface Visitor {
  version: string;
  language: string;
}

/** The proxy that a page goes through, and what it asks to be shown. */
export interface Door {
  port: number;
  password: string;
}

/** The gate knows us; what a host asks to be shown nobody here has. Asked once a context: the browser keeps it. */
function answerChallenge(
  session: Session,
  { requestId, authChallenge }: Protocol.Fetch.AuthRequiredEvent,
  password: string,
): void {
  const ours = authChallenge.source === 'Proxy';
  const authChallengeResponse: Protocol.Fetch.AuthChallengeResponse = ours
    ? { response: 'ProvideCredentials', username: USER, password }
    : { response: 'CancelAuth' };
  session.tell('Fetch.continueWithAuth', { requestId, authChallengeResponse });
}

/** A page of its own context, its traffic going through one gate. */
export class Tab {
  readonly traffic = new TrafficLog();
  readonly session: Session;
  readonly targetId: string;
  #connection: Connection;
  #contextId: string;
  #worlds = new Map<string, { session: Session; context: number }>();
  #planned: string | null = null;
  /** The address of the page that was last loaded. */
  address = '';
  #onLoad: (() => void) | null = null;
  happened: Happenings;
  /** What the gate refused the page that stands here. */
  refusals: GateRefusal[] = [];
  /** The browser keeps in mind who makes elements. */
  traced = false;
  readonly sound = new SoundLog();
  #visitor: Visitor;
  #identity: Protocol.Emulation.SetUserAgentOverrideRequest | null = null;

  /** Opens a page in a new context that goes through a proxy on 127.0.0.1. */
  static async open(connection: Connection, proxy: Door, visitor: Visitor): Promise<Tab> {
    const { browserContextId } = await connection.root.send('Target.createBrowserContext', {
      proxyServer: `http://127.0.0.1:${proxy.port}`,
      proxyBypassList: '<-loopback>',
      disposeOnDetach: true,
    });
    connection.root.tell('Browser.setDownloadBehavior', { behavior: 'deny', browserContextId });
    const { targetId } = await connection.root.send('Target.createTarget', {
      url: 'about:blank',
      browserContextId,
    });
    const { sessionId } = await connection.root.send('Target.attachToTarget', {
      targetId,
      flatten: true,
    });
    const session = connection.session(sessionId);
    const tab = new Tab(connection, browserContextId, targetId, session, visitor);
    await tab.#setUpPage(proxy.password);
    return tab;
  }

  private constructor(
    connection: Connection,
    contextId: string,
    targetId: string,
    session: Session,
    visitor: Visitor,
  ) {
    this.#connection = connection;
    this.#contextId = contextId;
    this.targetId = targetId;
    this.session = session;
    this.#visitor = visitor;
    this.happened = new Happenings('', targetId);
  }

  /** Ends the page and forgets its context. Never throws, also where the page hangs. */
  async close(): Promise<void> {
    const { root } = this.#connection;
    root.off('Target.attachedToTarget', this.#takeUp);
    await within(root.send('Target.closeTarget', { targetId: this.targetId }), 3000).catch(
      () => null,
    );
    this.#connection.drop(this.session.id);
    await within(
      root.send('Target.disposeBrowserContext', { browserContextId: this.#contextId }),
      3000,
    ).catch(() => null);
  }

  /** Says of the browser, from the next load on, what it says to a visitor with such a window. */
  async introduce(viewport: Viewport): Promise<void> {
    const { version, language } = this.#visitor;
    this.#identity = getIdentity(viewport, version, language);
    await this.session.send('Emulation.setUserAgentOverride', this.#identity);
  }

  /**
   * Makes the next load a visitor's first: nothing is stored, the window has no name and no past.
   * @param leave what stands there has code, which could still store something when it is left
   */
  async makeCold(leave: boolean): Promise<void> {
    if (leave) await this.#goBlank();
    await Promise.all([
      this.session.send('Storage.clearDataForOrigin', { origin: '*', storageTypes: 'all' }),
      this.session.send('Network.clearBrowserCache'),
      this.session.send('Page.resetNavigationHistory'),
    ]);
  }

  /** To an empty page, which no code is in: there the window loses the name that the old one gave it. */
  async #goBlank(): Promise<void> {
    // What happens from here on is ours, and no part of what was seen.
    this.happened = new Happenings('', this.targetId);
    const loaded = new Promise<void>((resolve) => (this.#onLoad = resolve));
    await this.session.send('Page.navigate', { url: 'about:blank' });
    await within(loaded, BLANK_LIMIT);
    await this.session.send('Runtime.evaluate', { expression: "name = ''", userGesture: false });
  }

  /** Goes to the planned page; resolves when it has loaded, or null after `ms` without. */
  async load(address: string, ms: number): Promise<true | null> {
    this.traffic.reset();
    this.happened = new Happenings(address, this.targetId);
    this.#planned = this.address = address;
    const loaded = new Promise<true>((resolve) => (this.#onLoad = () => resolve(true)));
    const gone = new Promise<never>((_, reject) => {
      this.session.onEnd(() => reject(new ProtocolError('the page is gone')));
    });
    gone.catch(() => undefined);
    const { errorText } = await Promise.race([
      this.session.send('Page.navigate', { url: address }),
      gone,
    ]);
    if (errorText) throw new ProtocolError(`the host page could not be loaded: ${errorText}`);
    return within(Promise.race([loaded, gone]), ms);
  }

  /** Runs a function in the page's isolated world, without giving the page a user's gesture. */
  async read<A extends unknown[], R>(work: (...args: A) => R, ...args: A): Promise<Awaited<R>> {
    const { result, exceptionDetails } = await this.session.send('Runtime.evaluate', {
      expression: `(${work.toString()})(...${JSON.stringify(args)})`,
      contextId: this.world,
      returnByValue: true,
      awaitPromise: true,
      userGesture: false,
    });
    if (exceptionDetails)
      throw new ProtocolError(exceptionDetails.exception?.description ?? exceptionDetails.text);
    return result.value as Awaited<R>;
  }

  /** The isolated world of the page's document. */
  get world(): number {
    const world = this.#worlds.get(this.session.id);
    if (!world) throw new ProtocolError('the page has no document to read');
    return world.context;
  }

  /** Whether the page answers within `ms`. */
  async answers(ms: number): Promise<boolean> {
    const call = this.session.send('Runtime.evaluate', { expression: '1', userGesture: false });
    return (await within(call, ms).catch(() => null)) !== null;
  }

  /** Whether the page told of anything in the last `ms`, or what it tells is still on its way. */
  isHeard(ms: number): boolean {
    return this.#connection.isJammed || performance.now() - this.session.heardAt < ms;
  }

  /** Of all targets that the browser tells of, the shared workers of this context. */
  #takeUp = ({ sessionId, targetInfo }: Protocol.Target.AttachedToTargetEvent): void => {
    if (targetInfo.type !== 'shared_worker' || targetInfo.browserContextId !== this.#contextId)
      return;
    this.#setUp(this.#connection.session(sessionId), false).catch(() => undefined);
  };

  async #setUpPage(password: string): Promise<void> {
    const { session } = this;
    this.#connection.root.on('Target.attachedToTarget', this.#takeUp);
    session.on('Page.loadEventFired', () => this.#onLoad?.());
    // A navigation that was answered with nothing ends the load without its event.
    session.on('Page.frameStoppedLoading', ({ frameId }) => {
      if (frameId === this.targetId && this.happened.navigations.length > 0) this.#onLoad?.();
    });
    followHappenings(session, () => this.happened);
    session.on('Inspector.targetCrashed', () => {
      this.happened.crashed = true;
      this.#connection.drop(session.id);
    });
    session.on('Fetch.requestPaused', (event) => this.#admit(event));
    session.on('Fetch.authRequired', (event) => answerChallenge(session, event, password));
    const ready = this.#setUp(session, true);
    session.tell('Fetch.enable', {
      patterns: [{ resourceType: 'Document', requestStage: 'Request' }],
      handleAuthRequests: true,
    });
    await ready;
  }

  /** A document may come in a frame; in the page itself only the planned one does. */
  #admit({ requestId, frameId, request }: Protocol.Fetch.RequestPausedEvent): void {
    const ours = frameId !== this.targetId || request.url === this.#planned;
    if (ours) {
      if (frameId === this.targetId) this.#planned = null;
      return this.session.tell('Fetch.continueRequest', { requestId });
    }
    this.happened.leave(request.url);
    // An empty answer leaves the page as it stands.
    this.session.tell('Fetch.fulfillRequest', { requestId, responseCode: 204 });
  }

  /** Sent without waiting in between: the target is held until the last one. */
  #setUp(session: Session, isPage: boolean): Promise<unknown> {
    this.traffic.follow(session);
    session.on('Runtime.executionContextCreated', ({ context }) => {
      const aux = context.auxData as { frameId?: string } | undefined;
      const top = !isPage || aux?.frameId === this.targetId;
      if (context.name === WORLD && top)
        this.#worlds.set(session.id, { session, context: context.id });
    });
    session.on('Runtime.consoleAPICalled', ({ type, args }) => {
      if (type === 'error')
        this.happened.note(args.map((arg) => String(arg.value ?? arg.description ?? '')).join(' '));
    });
    session.on('Runtime.exceptionThrown', ({ exceptionDetails }) => {
      this.happened.note(exceptionDetails.exception?.description ?? exceptionDetails.text);
    });
    this.sound.follow(session);
    session.on('Target.attachedToTarget', ({ sessionId }) => {
      const child = session.child(sessionId);
      child.onEnd(() => this.#worlds.delete(sessionId));
      this.#setUp(child, false).catch(() => undefined);
    });
    session.tell('Network.enable', { maxTotalBufferSize: 0, maxResourceBufferSize: 0 });
    session.tell('Page.enable');
    session.tell('Page.addScriptToEvaluateOnNewDocument', {
      source: START,
      worldName: WORLD,
      runImmediately: true,
    });
    if (isPage) session.tell('Page.addScriptToEvaluateOnNewDocument', { source: IN_PAGE });
    session.tell('Runtime.enable');
    if (this.#identity) session.tell('Emulation.setUserAgentOverride', this.#identity);
    // For browsers that have no texts of their own in that language: how days and numbers are written.
    session.tell('Emulation.setLocaleOverride', { locale: this.#visitor.language });
    session.tell('Target.setAutoAttach', {
      autoAttach: true,
      waitForDebuggerOnStart: true,
      flatten: true,
    });
    return session.send('Runtime.runIfWaitingForDebugger');
  }
}
