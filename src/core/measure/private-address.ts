import ipaddr from 'ipaddr.js';

/** Why an address is not open to a page of the public web; the registries are IANA's special-purpose ones. */
const WORDS: Record<string, string> = {
  loopback: 'a loopback address',
  private: 'a private address',
  linkLocal: 'a link-local address',
  uniqueLocal: 'a private address',
  carrierGradeNat: 'a carrier-internal address',
  multicast: 'a multicast address',
  broadcast: 'a broadcast address',
  unspecified: 'an unspecified address',
  benchmarking: 'a benchmark address',
  reserved: 'a reserved address',
};

/** Names that the standards set aside: they never lead to a host of the public web. */
const SPECIAL_NAMES = /(^|\.)(example|test|invalid|localhost)\.?$/i;

/**
 * What kind of closed address a literal IP address is, in words, or null for a public one or a name.
 * @param host a URL's host name: `[::1]` and `::1` alike.
 */
export function getPrivateAddressKind(host: string): string | null {
  const text = host.replace(/^\[|\]$/g, '');
  // A name is no address, and to find that out the long way costs much.
  if (!/^\d|:/.test(text) || !ipaddr.isValid(text)) return null;
  return nameRange(ipaddr.parse(text));
}

/** The same for a host as a page may write it: `localhost` is the loopback by its name. */
export function getPrivateHostKind(host: string): string | null {
  if (/(^|\.)localhost\.?$/i.test(host)) return 'a loopback address';
  return getPrivateAddressKind(host);
}

/** Whether two literal addresses are one, however they are written. */
export function isSameAddress(a: string, b: string): boolean {
  const read = (text: string) => ipaddr.process(text.replace(/%.*$/, '')).toNormalizedString();
  return ipaddr.isValid(a) && ipaddr.isValid(b) && read(a) === read(b);
}

/** Whether a name is one that must never be looked up. */
export function isSpecialName(host: string): boolean {
  return SPECIAL_NAMES.test(host);
}

function nameRange(address: ipaddr.IPv4 | ipaddr.IPv6): string | null {
  if (address.kind() === 'ipv6') {
    const inner = unwrap(address as ipaddr.IPv6);
    if (inner) return nameRange(inner);
  } else if (/^198\.1[89]\./.test(address.toString())) {
    return WORDS.benchmarking!;
  }
  const range = address.range();
  return range === 'unicast' ? null : (WORDS[range] ?? WORDS.reserved!);
}

/** The IPv4 address inside a v4-mapped, v4-compatible, NAT64 or 6to4 one. */
function unwrap(address: ipaddr.IPv6): ipaddr.IPv4 | null {
  if (address.isIPv4MappedAddress()) return address.toIPv4Address();
  const bytes = address.toByteArray();
  if (address.range() === 'rfc6052') return new ipaddr.IPv4(bytes.slice(12));
  // IPv4-compatible addresses (RFC 4291, 2.5.5.1): deprecated, and still dialled by some.
  const low = bytes.slice(12);
  if (bytes.slice(0, 12).every((byte) => byte === 0) && low.slice(0, 3).some((byte) => byte > 0))
    return new ipaddr.IPv4(low);
  if (address.range() === '6to4') return new ipaddr.IPv4(bytes.slice(2, 6));
  return null;
}
