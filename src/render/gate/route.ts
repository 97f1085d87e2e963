import { networkInterfaces } from 'node:os';
import { isIP } from 'node:net';
import type { Refusal } from '../../core/evidence.js';
import { flatMap } from '../../core/lists.js';
import {
  getPrivateHostKind,
  isSameAddress,
  isSpecialName,
} from '../../core/measure/private-address.js';
import { matchesHost } from '../../core/measure/site.js';
import { within } from '../bounds/limit.js';
import { stripBrackets } from './address.js';
import { lookUp, type Lookup } from './lookup.js';
import type { Onward } from './exchange.js';
import type { Replay } from './replay.js';
import { getProxy, SET_ASIDE, type Proxy } from './upstream.js';

/** What a gate lets through and where to. */
export interface GateRules {
  /** The origin the host page seems to have; null for none. */
  origin: string | null;
  /** Host pattern to origin: sent there, while the page still sees the real name. */
  reroute: Record<string, string>;
  offline: boolean;
}

/** Straight to an address that was checked, or by name through a proxy that looks it up itself. */
export interface Tunnel {
  kind: 'tunnel';
  address: string;
  port: number;
  via: Proxy | null;
}

export type Route =
  | { kind: 'page' }
  | { kind: 'replay' }
  | { kind: 'reroute'; to: Onward }
  | Tunnel
  | { kind: 'refuse'; refusal: Refusal };

/**
 * Where traffic for a host and port goes. Names are looked up here, once, and what is dialled is an
 * address that was checked: a second answer of the name server can change nothing.
 */
export async function getRoute(
  rules: GateRules,
  host: string,
  port: number,
  replay: Replay | null = null,
  scheme = port === 80 ? 'http:' : 'https:',
  look: Lookup = lookUp,
): Promise<Route> {
  if (isOrigin(rules.origin, host, port)) return { kind: 'page' };
  const to = Object.entries(rules.reroute).find(([pattern]) => matchesHost(pattern, host))?.[1];
  const closed = to ? null : getClosedKind(host);
  if (closed) return refuse('private-address', closed);
  if (replay) {
    const refusal = replay.getRefusal(getHostKey(host, port));
    return refusal ? { kind: 'refuse', refusal } : { kind: 'replay' };
  }
  if (to) return { kind: 'reroute', to: getRerouted(new URL(to)) };
  if (rules.offline) return refuse('offline', 'the run is offline');
  return resolve(host, port, scheme === 'http:' ? scheme : 'https:', look);
}

function isOrigin(origin: string | null, host: string, port: number): boolean {
  const url = origin === null ? null : new URL(origin);
  return url !== null && host === url.hostname && port === getPort(url);
}

function refuse(kind: Refusal['kind'], words: string): Route {
  return { kind: 'refuse', refusal: { kind, words } };
}

/** How long a name is looked up that a proxy looks up again, ms. */
const LOOKUP_LIMIT = 1000;

/** Host and port as a URL has them: the usual ports are left out, of either scheme. */
function getHostKey(host: string, port: number): string {
  return port === 443 || port === 80 ? host : `${host}:${port}`;
}

function getRerouted(url: URL): Onward {
  const scheme = url.protocol === 'https:' ? 'https:' : 'http:';
  const host = stripBrackets(url.hostname);
  const port = getPort(url);
  // What the house names may be in this machine or its own network: no proxy leads there.
  const via = getPrivateHostKind(host) ? null : getProxy(scheme, host, port);
  return { scheme, host, port, via };
}

/** Why nothing goes there, in words: it is closed for everybody, or it is this machine. */
function getClosedKind(host: string): string | null {
  return getPrivateHostKind(host) ?? (isOfMachine(host) ? 'an address of this machine' : null);
}

function isOfMachine(host: string): boolean {
  const bare = stripBrackets(host);
  if (!isIP(bare)) return false;
  const own = flatMap(Object.values(networkInterfaces()), (all) => all ?? []);
  return own.some(({ address }) => isSameAddress(address, bare));
}

async function resolve(
  host: string,
  port: number,
  scheme: Onward['scheme'],
  look: Lookup,
): Promise<Route> {
  const bare = stripBrackets(host);
  const via = getProxy(scheme, bare, port);
  if (isIP(bare) || (via && isSpecialName(bare)))
    return { kind: 'tunnel', address: bare, port, via };
  if (isSpecialName(bare)) return refuse('unknown-name', SET_ASIDE);
  // Behind a proxy names outside are often not known here: it is not waited for long.
  const found = via ? ((await within(look(bare), LOOKUP_LIMIT)) ?? []) : await look(bare);
  if (found === null) return refuse('no-lookup', `nobody knew the name ${bare} in time`);
  for (const address of found) {
    const closed = getClosedKind(address);
    if (closed) return refuse('private-address', `${closed} (${address})`);
  }
  if (via) return { kind: 'tunnel', address: bare, port, via };
  const first = found[0];
  if (!first) return refuse('unknown-name', 'no address is known for the name');
  return { kind: 'tunnel', address: first, port, via };
}

/** The port of a URL, the scheme's own where none is written. */
export function getPort(url: URL): number {
  if (url.port) return Number(url.port);
  return url.protocol === 'https:' || url.protocol === 'wss:' ? 443 : 80;
}

/** Where a request that is let through is passed on to. */
export function getOnward(route: Tunnel | Extract<Route, { kind: 'reroute' }>, url: URL): Onward {
  if (route.kind === 'reroute') return route.to;
  const scheme = /^(https|wss):$/.test(url.protocol) ? 'https:' : 'http:';
  return { scheme, host: route.address, port: route.port, via: route.via };
}
