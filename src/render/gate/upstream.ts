import { request as plainRequest, type ClientRequest, type RequestOptions } from 'node:http';
import { request as secureRequest } from 'node:https';
import { connect, type Socket } from 'node:net';
import { getProxyForUrl } from 'proxy-from-env';
import { ToolError } from '../../core/errors.js';
import type { Refusal } from '../../core/evidence.js';
import { flatMap } from '../../core/lists.js';
import { isSpecialName } from '../../core/measure/private-address.js';
import { decodePart } from '../../core/measure/site.js';
import { describeFault } from '../../core/words/fault.js';
import { joinAuthority, stripBrackets } from './address.js';
import { getTrust } from './trusted.js';

/** A forward proxy of the network that this machine is in. */
export interface Proxy {
  scheme: 'http:' | 'https:';
  host: string;
  port: number;
  /** What `Proxy-Authorization` says (RFC 7617); null where the address has no credentials. */
  authorization: string | null;
  /** The address without credentials. */
  shown: string;
}

/** The proxy let nothing through: that says nothing of the host that was asked for. */
export class ProxyFault extends Error {
  readonly refusal: Refusal;

  constructor(words: string, kind: Refusal['kind'] = 'proxy') {
    super(words);
    this.refusal = { kind, words };
  }
}

/** Said of names such as `x.example`: they are looked up by nobody, unless a proxy knows them. */
export const SET_ASIDE = 'a name set aside by the standards';
/** Proxy Authentication Required: it is the proxy's answer, and no host's (RFC 9110, 15.5.8). */
export const PROXY_REFUSES = 407;

const VARIABLES = flatMap(['https_proxy', 'http_proxy', 'all_proxy'], (name) => [
  name,
  name.toUpperCase(),
]);
/** How long a proxy may take to answer, ms: less than a page has to load, so that it can be told. */
const LIMIT = 10_000;

/** The proxy that leads to a host, as HTTPS_PROXY, HTTP_PROXY, ALL_PROXY and NO_PROXY say; null for none. */
export function getProxy(scheme: 'http:' | 'https:', host: string, port: number): Proxy | null {
  const given = getProxyForUrl(`${scheme}//${joinAuthority(host, port)}`);
  return given ? parseProxy(getWritten(given)) : null;
}

/**
 * Looks whether the variables name proxies that can be gone through.
 * @throws ToolError `bad-proxy`
 */
export function checkProxies(): void {
  for (const name of VARIABLES) {
    const given = process.env[name];
    if (!given || parseProxy(given)) continue;
    throw new ToolError(
      'bad-proxy',
      `${name} names "${hideCredentials(given)}", which Mivket cannot go through: it must be an http or https address, such as http://proxy.example:3128.`,
    );
  }
}

/** An address as it may be shown. */
export function hideCredentials(address: string): string {
  return address.replace(/^(\w+:\/\/)?.*@/, '$1');
}

/** Where no scheme was written, the library puts in that of the request; a proxy is asked by http. */
function getWritten(given: string): string {
  const written = VARIABLES.some((name) => process.env[name] === given);
  return written ? given : given.replace(/^\w+:/, 'http:');
}

/** The proxy of an address; null where it is no http or https address. Without a scheme it is http. */
export function parseProxy(given: string): Proxy | null {
  const address = given.includes('://') ? given : `http://${given}`;
  if (!URL.canParse(address)) return null;
  const url = new URL(address);
  if (url.protocol !== 'http:' && url.protocol !== 'https:') return null;
  const said = [url.username, url.password].map(decodePart).join(':');
  return {
    scheme: url.protocol,
    host: stripBrackets(url.hostname),
    port: Number(url.port) || (url.protocol === 'https:' ? 443 : 80),
    authorization: url.username ? `Basic ${Buffer.from(said).toString('base64')}` : null,
    shown: url.host,
  };
}

/** A request to the proxy itself, which does not answer for ever. */
export function askProxy(proxy: Proxy, options: RequestOptions, limit = LIMIT): ClientRequest {
  const open = proxy.scheme === 'https:' ? secureRequest : plainRequest;
  const { host, port, authorization } = proxy;
  const trust = proxy.scheme === 'https:' ? getTrust() : {};
  const ask = open({ ...options, ...trust, host, port, timeout: limit });
  if (authorization) ask.setHeader('proxy-authorization', authorization);
  ask.once('timeout', () => ask.destroy(Object.assign(new Error(), { code: 'ETIMEDOUT' })));
  return ask;
}

/**
 * A connection to a host through a proxy (CONNECT; RFC 9110, 9.3.6).
 * @param onSocket told of the connection as soon as there is one
 * @throws ProxyFault
 */
export function openTunnel(
  proxy: Proxy,
  host: string,
  port: number,
  onSocket: (socket: Socket) => void = () => undefined,
  limit = LIMIT,
): Promise<Socket> {
  const authority = joinAuthority(host, port);
  const headers = { host: authority };
  const options = { method: 'CONNECT', path: authority, headers, agent: false };
  const ask = askProxy(proxy, options, limit);
  ask.once('socket', onSocket);
  return new Promise((resolve, reject) => {
    ask.once('connect', ({ statusCode = 0, statusMessage }, socket: Socket, head: Buffer) => {
      socket.setTimeout(0);
      if (head.length > 0) socket.unshift(head);
      if (statusCode === 200) return resolve(socket);
      socket.destroy();
      const unknown = isSpecialName(host) && statusCode !== PROXY_REFUSES;
      if (unknown) reject(new ProxyFault(SET_ASIDE, 'unknown-name'));
      else reject(getRefusalFault(proxy, statusCode, statusMessage));
    });
    ask.once('error', (error) => reject(getSilenceFault(proxy, error)));
    ask.end();
  });
}

/**
 * A connection to an address, or by name through a proxy.
 * @param onSocket told of it as soon as there is one
 * @throws ProxyFault, or Error where it cannot be had
 */
export function dial(
  { address, port, via }: { address: string; port: number; via: Proxy | null },
  onSocket: (socket: Socket) => void,
): Promise<Socket> {
  if (via) return openTunnel(via, address, port, onSocket);
  const onward = connect({ host: address, port });
  onSocket(onward);
  return new Promise((resolve, reject) => {
    onward.once('connect', () => resolve(onward));
    onward.once('error', reject);
  });
}

/** The proxy answered, and said no. */
export function getRefusalFault({ shown }: Proxy, status: number, words = ''): ProxyFault {
  return new ProxyFault(`the proxy ${shown} refused (${`${status} ${words}`.trim()})`);
}

/** The proxy itself could not be reached. */
export function getSilenceFault({ shown }: Proxy, error: unknown): ProxyFault {
  return new ProxyFault(`the proxy ${shown} did not answer (${describeFault(error)})`);
}
