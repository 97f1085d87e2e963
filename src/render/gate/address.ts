import { isIPv6 } from 'node:net';
import type { Ask } from './exchange.js';

/** The address a request is for: absolute in a plain proxy request, else by its host header. */
export function getAskedUrl(ask: Ask, scheme: string): URL | null {
  const host = ask.headers[':authority'] ?? ask.headers.host ?? '';
  const url = ask.url ?? '/';
  const text = /^https?:\/\//.test(url) ? url : `${scheme}//${String(host)}${url}`;
  return URL.canParse(text) ? new URL(text) : null;
}

/** Host and port of a CONNECT. */
export function splitAuthority(authority: string): { hostname: string; port: number } {
  const at = authority.lastIndexOf(':');
  return { hostname: authority.slice(0, at), port: Number(authority.slice(at + 1)) };
}

/** The same, or null where no host can have it. */
export function parseAuthority(authority: string): { hostname: string; port: number } | null {
  if (!/^[^/?#@\s]+:\d{1,5}$/.test(authority) || !URL.canParse(`https://${authority}/`))
    return null;
  return splitAuthority(authority);
}

/** The path and query of a request, as they were asked for: a path may begin with two slashes. */
export function getPath(ask: Ask): string {
  const url = ask.url ?? '/';
  const path = /^https?:\/\/[^/?#]*(.*)$/i.exec(url)?.[1] ?? url;
  return path.startsWith('/') ? path : `/${path}`;
}

/** A host of a URL as it is dialled: an IPv6 address without its brackets. */
export function stripBrackets(host: string): string {
  return host.replace(/^\[|\]$/g, '');
}

/** A host and port as a URL or a CONNECT has them (RFC 3986, 3.2.2). */
export function joinAuthority(host: string, port: number): string {
  return `${isIPv6(host) ? `[${host}]` : host}:${port}`;
}
