import type { RequestFact } from '../evidence.js';
import type { RenderReport } from '../run.js';

/** What was asked of each host and came from it, the heaviest first. */
export function sumByHost(traffic: readonly RequestFact[]): RenderReport['traffic'] {
  const hosts = new Map<string, RenderReport['traffic'][number]>();
  for (const { host, wire, unpacked, failed, refused } of traffic) {
    const sum = hosts.get(host) ?? { host, requests: 0, wire: 0, unpacked: 0, failed: 0 };
    sum.requests++;
    // What was refused, or broke off, weighs nothing of its own.
    if (failed !== null || refused !== null) sum.failed++;
    else {
      sum.wire += wire;
      sum.unpacked += unpacked;
    }
    hosts.set(host, sum);
  }
  return [...hosts.values()].sort(compareWeight);
}

/** The heavier first, those of one weight by their names. */
export function compareWeight(
  a: { host: string; wire: number },
  b: { host: string; wire: number },
): number {
  return b.wire - a.wire || a.host.localeCompare(b.host);
}
