import CachePolicy from 'http-cache-semantics';

/**
 * For how long a visitor's browser may use an answer again without asking, s (RFC 9111, 4.2.1); 0: not at all; null
 * where its headers do not say.
 */
export function readFreshness(status: number, given: Record<string, string>): number | null {
  const headers = Object.fromEntries(
    Object.entries(given).map(([name, value]) => [name.toLowerCase(), value]),
  );
  if (headers['cache-control'] === undefined && headers['expires'] === undefined) return null;
  const own = { shared: false, cacheHeuristic: 0 };
  const policy = new CachePolicy({ headers: {} }, { status, headers }, own);
  return policy.storable() ? Math.round(policy.maxAge()) : 0;
}
