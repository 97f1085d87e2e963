import { getDomain } from 'tldts';
import type { RequestFact } from '../evidence.js';

/** The registrable domain of a host, or the host itself (addresses, single labels). */
export function getSite(host: string): string {
  return getDomain(host, { allowPrivateDomains: true }) ?? host;
}

/** Whether a host belongs to somebody else than the page: another registrable domain. */
export function isThirdParty(host: string, pageOrigin: string): boolean {
  return getSite(host) !== getSite(new URL(pageOrigin).hostname);
}

/** Whether a request went out to somebody else than the page. */
export function leavesSite({ host, refused }: RequestFact, pageOrigin: string): boolean {
  return isThirdParty(host, pageOrigin) && refused?.kind !== 'private-address';
}

/** Whether a host matches a pattern of the house: `*` all, `*.x` every subdomain of x, else the name. */
export function matchesHost(pattern: string, host: string): boolean {
  const wanted = pattern.toLowerCase();
  const name = host.toLowerCase();
  if (wanted === '*') return true;
  return wanted.startsWith('*.') ? name.endsWith(wanted.slice(1)) : name === wanted;
}

/** Whether something at such an address is asked of a host. */
export function hasHost({ protocol }: URL): boolean {
  return /^(https?|wss?):$/.test(protocol);
}

/** A part of an address with its escapes taken out, where they are whole: a percent sign may stand for itself. */
export function decodePart(text: string): string {
  try {
    return decodeURIComponent(text);
  } catch {
    return text;
  }
}

/** The address of a URL text, or null where it is none. */
export function parseAddress(text: string, base?: string): URL | null {
  try {
    return new URL(text, base);
  } catch {
    return null;
  }
}
