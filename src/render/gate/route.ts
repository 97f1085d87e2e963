import { lookup } from 'node:dns/promises';
import { isIP } from 'node:net';
import type { RefusalKind } from '../../core/evidence.js';
import {
  getPrivateAddressKind,
  getPrivateHostKind,
  isSpecialName,
} from '../../core/measure/private-address.js';
import { matchesHost } from '../../core/measure/site.js';

/** What a gate lets through and where to. */
export interface GateRules {
  /** The origin the host page seems to have. */
  origin: string;
  /** Host pattern to origin: sent there, while the page still sees the real name. */
  reroute: Record<string, string>;
  offline: boolean;
}

export type Route =
  | { kind: 'page' }
  | { kind: 'reroute'; to: URL }
  | { kind: 'tunnel'; address: string; port: number }
  | { kind: 'refuse'; reason: RefusalKind; words: string };

/**
 * Where traffic for a host and port goes. Names are looked up here, once, and what is dialled is an
 * address that was checked: a second answer of the name server can change nothing.
 */
export async function getRoute(rules: GateRules, host: string, port: number): Promise<Route> {
  const origin = new URL(rules.origin);
  if (host === origin.hostname && port === getPort(origin)) return { kind: 'page' };
  const to = Object.entries(rules.reroute).find(([pattern]) => matchesHost(pattern, host))?.[1];
  if (to) return { kind: 'reroute', to: new URL(to) };
  const closed = getPrivateHostKind(host);
  if (closed) return { kind: 'refuse', reason: 'private-address', words: closed };
  if (rules.offline) return { kind: 'refuse', reason: 'offline', words: 'the run is offline' };
  if (isSpecialName(host))
    return { kind: 'refuse', reason: 'unknown-name', words: 'a name set aside by the standards' };
  return resolve(host, port);
}

async function resolve(host: string, port: number): Promise<Route> {
  const bare = host.replace(/^\[|\]$/g, '');
  if (isIP(bare)) return { kind: 'tunnel', address: bare, port };
  const found = await lookup(bare, { all: true }).catch(() => []);
  for (const { address } of found) {
    const closed = getPrivateAddressKind(address);
    if (closed)
      return { kind: 'refuse', reason: 'private-address', words: `${closed} (${address})` };
  }
  const first = found[0];
  if (!first)
    return { kind: 'refuse', reason: 'unknown-name', words: 'no address is known for the name' };
  return { kind: 'tunnel', address: first.address, port };
}

/** The port of a URL, the scheme's own where none is written. */
export function getPort(url: URL): number {
  if (url.port) return Number(url.port);
  return url.protocol === 'https:' || url.protocol === 'wss:' ? 443 : 80;
}
