import type { StoredFact } from '../../core/evidence.js';
import { within } from '../bounds/limit.js';
import type { Connection, Session } from './connection.js';
import type { Door } from '../page/visitor.js';
import { UNSEEN } from './viewport.js';

/** How long the end of a page may take, ms. */
const END_LIMIT = 3000;

/** A page alone in its context. */
export interface OpenedPage {
  contextId: string;
  targetId: string;
  session: Session;
  /** How large its window is on the outside, px. */
  setBounds(bounds: { width: number; height: number }): void;
}

/** Opens a page in a new context that goes through a proxy on 127.0.0.1. */
export async function openContext(connection: Connection, proxy: Door): Promise<OpenedPage> {
  const { root } = connection;
  const { browserContextId } = await root.send('Target.createBrowserContext', {
    proxyServer: `http://127.0.0.1:${proxy.port}`,
    proxyBypassList: '<-loopback>',
    disposeOnDetach: true,
  });
  root.tell('Browser.setDownloadBehavior', { behavior: 'deny', browserContextId });
  const { targetId } = await root.send('Target.createTarget', {
    url: 'about:blank',
    browserContextId,
    ...UNSEEN,
  });
  const [{ sessionId }, { windowId }] = await Promise.all([
    root.send('Target.attachToTarget', { targetId, flatten: true }),
    root.send('Browser.getWindowForTarget', { targetId }),
  ]);
  const session = connection.session(sessionId);
  // A visitor has it before them, also where several are open.
  session.tell('Emulation.setFocusEmulationEnabled', { enabled: true });
  return {
    ...{ contextId: browserContextId, targetId, session },
    setBounds: (bounds) => root.tell('Browser.setWindowBounds', { windowId, bounds }),
  };
}

/** Ends a page and all that is stored of it. Never throws, also where the page hangs. */
export async function closeContext(
  connection: Connection,
  { contextId, targetId, session }: OpenedPage,
): Promise<void> {
  const { root } = connection;
  await within(root.send('Target.closeTarget', { targetId }), END_LIMIT).catch(() => null);
  connection.drop(session.id);
  const disposing = root.send('Target.disposeBrowserContext', { browserContextId: contextId });
  await within(disposing, END_LIMIT).catch(() => null);
}

/** Seconds of a day. */
const DAY = 86_400;

/** The cookies that are kept in a context. */
export async function listCookies(
  { root }: Connection,
  { contextId: browserContextId }: Pick<OpenedPage, 'contextId'>,
): Promise<StoredFact[]> {
  const { cookies } = await root.send('Storage.getCookies', { browserContextId });
  const now = Date.now() / 1000;
  return cookies.map(({ name, domain, session, expires }) => ({
    kind: 'cookie',
    host: domain.replace(/^\./, ''),
    name,
    days: session ? null : Math.max(0, Math.round((expires - now) / DAY)),
  }));
}
