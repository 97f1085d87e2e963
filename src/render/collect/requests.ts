import type { FrameFact, RequestFact, Source } from '../../core/evidence.js';
import { flatMap } from '../../core/lists.js';
import type { GateLog, GateRefusal } from '../gate/log.js';
import type { ServedPage } from '../page/served-page.js';
import type { BrowserPage } from '../page/browser-page.js';
import type { CallFrame, Initiator, LoggedRequest } from '../page/request-log.js';

/** What requests are explained by. */
export interface PageAbout {
  page: ServedPage;
  /** Which of the render's snippets is meant. */
  of: number;
  pageAddress: string;
  mainFrame: string;
  frames: readonly FrameFact[];
  /** What the gate saw, whatever the browser tells. */
  log: GateLog;
  /** Addresses that the page without the snippet asks for too. */
  hostRequests: ReadonlySet<string>;
  /** The page without the snippet has code, which may ask for other things each time. */
  hostChanges: boolean;
  /** So has the snippet. */
  changes: boolean;
}

/** The snippet's requests: those of the page without it, and what that page's own code asks for, are left out. */
export function toRequestFacts(logged: readonly LoggedRequest[], around: PageAbout): RequestFact[] {
  const askers = new Askers(logged, around);
  const pageHosts = listHosts(around.hostChanges ? around.hostRequests : []);
  const films = around.log.entries.filter(
    ({ container, pictured, moving }) => container !== null || pictured || moving,
  );
  const facts = logged
    .filter((request) => isOwn(request, askers, pageHosts, around))
    .map((request): RequestFact => {
      const { hostname, pathname } = new URL(request.address);
      const refusal = around.log.refusals.find(
        ({ host, path }) => host === hostname && (path === null || path === pathname),
      );
      return {
        address: request.address.slice(0, 2000),
        first: request.first.slice(0, 2000),
        host: hostname,
        type: request.type,
        status: request.status,
        wire: request.wire,
        unpacked: request.unpacked,
        failed: request.failed,
        contentType: request.contentType,
        ...tellFilm(request.address, films),
        refused: refusal ? { kind: refusal.kind, words: refusal.words } : null,
        from: getSource(askers, request),
        by: getAsker(request.initiator),
        forbidsFrames: request.forbidsFrames,
        sharedWith: request.sharedWith,
        fresh: request.fresh,
        waited: getWait(request),
        acted: request.acted,
        inFrame: request.frame !== null && request.frame !== around.mainFrame,
      };
    });
  const hosts = listHosts(logged.map(({ address }) => address));
  return [
    ...facts,
    ...listRefused(around.log.refusals, hosts),
    ...listPassed(around, new Set([...hosts, ...listHosts(around.hostRequests)])),
  ];
}

/** What the first bytes say of a file, and any of its pieces. */
function tellFilm(asked: string, films: GateLog['entries']) {
  const all = films.filter(({ address }) => address === asked);
  const container = all.find((one) => one.container !== null)?.container ?? null;
  return {
    container,
    pictured: all.some((one) => one.pictured),
    moving: all.some((one) => one.moving),
  };
}

function listHosts(addresses: Iterable<string>): Set<string> {
  return new Set([...addresses].map((address) => new URL(address).hostname));
}

/** @param pageHosts the hosts that the page without the snippet asks */
function isOwn(
  request: LoggedRequest,
  askers: Askers,
  pageHosts: ReadonlySet<string>,
  around: PageAbout,
): boolean {
  const { pageAddress, hostRequests, hostChanges, changes, page, of } = around;
  if (request.address === pageAddress || hostRequests.has(request.address)) return false;
  // A page without code asks for the same each time: all else is the snippet's.
  if ((!hostChanges && page.hasOne) || page.mentions(of, request.first)) return true;
  const owner = askers.find(request);
  if (owner) return owner.to === 'snippet' && owner.snippet === of;
  return page.hasOne && changes && !pageHosts.has(new URL(request.address).hostname);
}

/** What the gate refused although the protocol told of no request: it came some other way. */
function listRefused(refusals: readonly GateRefusal[], seen: ReadonlySet<string>): RequestFact[] {
  const hosts = new Map(
    refusals
      .filter(({ host, path }) => path === null && !seen.has(host))
      .map((one) => [one.host, one]),
  );
  return [...hosts.values()].map(({ host, kind, words }) => ({
    ...{ ...UNTOLD, address: `https://${host}/`, first: `https://${host}/`, host },
    ...{ failed: 'refused', refused: { kind, words } },
  }));
}

/** What is known of a request of which the browser told nothing. */
const UNTOLD: Omit<RequestFact, 'address' | 'first' | 'host'> = {
  type: 'other',
  status: null,
  wire: 0,
  unpacked: 0,
  failed: null,
  contentType: null,
  container: null,
  pictured: false,
  moving: false,
  refused: null,
  from: null,
  by: null,
  forbidsFrames: null,
  sharedWith: null,
  fresh: null,
  waited: null,
  acted: false,
  inFrame: false,
};

/** What the gate answered hosts for of which the protocol told nothing: it is the snippet's where the page has no code of its own. */
function listPassed(
  { log, page, hostChanges, pageAddress }: PageAbout,
  seen: ReadonlySet<string>,
): RequestFact[] {
  if (!page.hasOne || hostChanges) return [];
  const own = new URL(pageAddress).hostname;
  return flatMap(log.entries, (entry) => {
    const { hostname: host } = new URL(entry.address);
    if (entry.status === null || host === own || seen.has(host)) return [];
    return [{ ...UNTOLD, ...entry, first: entry.address, host }];
  });
}

/** Protocol times are seconds. */
function getWait({ startedAt, endedAt }: LoggedRequest): number | null {
  return endedAt === null ? null : Math.round((endedAt - startedAt) * 1e4) / 10;
}

/** Who asked for something, or made it: a place in the snippet, or the page around it. */
export type Owner = { to: 'snippet'; snippet: number; from: Source } | { to: 'host' };

/** Follows who asked for whom, back to a place in the page. */
export class Askers {
  #byAddress = new Map<string, LoggedRequest>();
  #frameOf = new Map<string, LoggedRequest>();
  #around: Pick<PageAbout, 'page' | 'of' | 'pageAddress' | 'mainFrame' | 'frames'>;

  constructor(
    logged: readonly LoggedRequest[],
    around: Pick<PageAbout, 'page' | 'of' | 'pageAddress' | 'mainFrame' | 'frames'>,
  ) {
    this.#around = around;
    for (const request of logged) {
      if (!this.#byAddress.has(request.address)) this.#byAddress.set(request.address, request);
      const opensFrame =
        request.type === 'document' && request.frame && request.frame !== around.mainFrame;
      if (opensFrame && !this.#frameOf.has(request.frame!))
        this.#frameOf.set(request.frame!, request);
    }
  }

  find(request: LoggedRequest, depth = 0): Owner | null {
    if (depth > 12) return null;
    const frame =
      request.type === 'document' &&
      this.#around.frames.find(({ address }) => address === request.first);
    if (frame) return { to: 'snippet', snippet: this.#around.of, from: frame.from };
    const { initiator } = request;
    const own = this.#findInPage(initiator);
    if (own) return own;
    const asker = getAsker(initiator);
    const parent = asker ? this.#byAddress.get(asker) : undefined;
    if (parent && parent !== request && parent.type !== 'document')
      return this.find(parent, depth + 1);
    const opener = request.frame ? this.#frameOf.get(request.frame) : undefined;
    return opener && opener !== request ? this.find(opener, depth + 1) : null;
  }

  /** Who runs the code of a call: the nearest that is known. */
  findRunner(calls: readonly CallFrame[]): Owner | null {
    for (const { url, line, column } of calls) {
      const script = this.#byAddress.get(url);
      const owner =
        url === this.#around.pageAddress ? this.#locate(line, column) : script && this.find(script);
      if (owner) return owner;
    }
    return null;
  }

  /** The place in the page's text that asked, where the page itself did. */
  #findInPage(initiator: Initiator): Owner | null {
    const { pageAddress } = this.#around;
    const { calls } = initiator;
    // A script that was loaded asks for itself, whoever calls it.
    const loaded = calls.find(({ url }) => url && url !== pageAddress && this.#byAddress.has(url));
    const own = calls.find(({ url }) => url === pageAddress);
    if (own && !(loaded && calls.indexOf(loaded) < calls.indexOf(own)))
      return this.#locate(own.line, own.column);
    if (own || initiator.line === null || initiator.url !== pageAddress) return null;
    return this.#locate(initiator.line, initiator.column);
  }

  #locate(line: number, column: number): Owner {
    const place = this.#around.page.locateLine(line, Math.max(column, 0));
    return place.to === 'snippet' ? place : { to: 'host' };
  }
}

function getSource(askers: Askers, request: LoggedRequest): Source | null {
  const owner = askers.find(request);
  return owner?.to === 'snippet' ? owner.from : null;
}

/** The script, sheet or page that asked. */
function getAsker({ calls, url }: Initiator): string | null {
  return calls.find((call) => call.url)?.url ?? url;
}

/** Who asked for what on a page. */
export function getAskers(
  page: Pick<BrowserPage, 'address' | 'mainFrame' | 'requests'>,
  served: ServedPage,
  of: number,
): Askers {
  const { address: pageAddress, mainFrame, requests } = page;
  return new Askers(requests.requests, { page: served, of, pageAddress, mainFrame, frames: [] });
}
