import { makeSeen, type RenderOf, type Seen } from '../check.js';
import type { RequestFact } from '../evidence.js';
import { listAddresses } from '../markup/addresses.js';
import { getElementAt, getTagSpan, type Markup } from '../markup/markup.js';
import { countWords } from '../words/list.js';
import type { Span } from '../snippet.js';
import { getSourceOffset } from './blame.js';
import { formatBytes } from './units.js';

/** What came from one host, bytes on the wire and unpacked. */
export interface HostWeight {
  host: string;
  wire: number;
  unpacked: number;
}

/** The sum of requests, bytes. */
export function sumBytes(requests: readonly RequestFact[], what: 'wire' | 'unpacked'): number {
  return requests.reduce((total, request) => total + request[what], 0);
}

/** What came from each host, the heaviest first. */
export function weighHosts(requests: readonly RequestFact[]): HostWeight[] {
  const hosts = [...new Set(requests.map(({ host }) => host))].map((host) => {
    const own = requests.filter((request) => request.host === host);
    return { host, wire: sumBytes(own, 'wire'), unpacked: sumBytes(own, 'unpacked') };
  });
  return hosts.sort((a, b) => b.wire - a.wire);
}

/**
 * The heaviest requests of all renders, and every place where they weigh more than a limit; null where they do
 * nowhere.
 * @param list which requests of a render count
 */
export function findTooHeavy(
  renders: readonly RenderOf<'traffic'>[],
  limit: number,
  list: (render: RenderOf<'traffic'>) => RequestFact[],
): { requests: RequestFact[]; seen: Seen<Weighed>[] } | null {
  const over = renders
    .map((render) => ({ render, requests: list(render) }))
    .map((one) => ({ ...one, wire: sumBytes(one.requests, 'wire') }))
    .filter(({ wire }) => wire > limit);
  const [heaviest] = [...over].sort((a, b) => b.wire - a.wire);
  if (!heaviest) return null;
  const seen = over.map((one) => makeSeen(one.render, measureBytes(one.requests, limit)));
  return { requests: heaviest.requests, seen };
}

/** What was weighed in one place. */
type Weighed = Record<'wireBytes' | 'unpackedBytes' | 'requests' | 'limitBytes', number>;

function measureBytes(requests: readonly RequestFact[], limitBytes: number): Weighed {
  return {
    wireBytes: sumBytes(requests, 'wire'),
    unpackedBytes: sumBytes(requests, 'unpacked'),
    requests: requests.length,
    limitBytes,
  };
}

/** The same in words. */
export function describeBytes({ wireBytes, unpackedBytes, requests }: Weighed): string {
  return `${formatBytes(wireBytes)} on the wire, ${formatBytes(unpackedBytes)} unpacked, in ${countWords(requests, 'request')}`;
}

/** The tag that, with all it pulled in, brought most bytes; null where none is known to have brought any. */
export function findHeaviestTag(
  markup: Markup,
  requests: readonly RequestFact[],
  origin: string,
): Span | null {
  const bytes = new Map<number, number>();
  const named = new Map(
    listAddresses(markup, origin).map(({ url, element }) => [url.href, element]),
  );
  for (const { from, first, wire } of requests) {
    const offset = getSourceOffset(from);
    // The browser does not always say where in the page it found what it asks for.
    const element = offset === null ? (named.get(first) ?? null) : getElementAt(markup, offset);
    if (element) bytes.set(element.index, (bytes.get(element.index) ?? 0) + wire);
  }
  const heaviest = [...bytes].sort((a, b) => b[1] - a[1])[0];
  const element = heaviest && markup.elements[heaviest[0]];
  return element ? getTagSpan(element) : null;
}
