import { defineCheck, type Fact } from '../../core/check.js';
import type { FileType, RequestFact } from '../../core/evidence.js';
import { atSnippet, getHead } from '../../core/measure/blame.js';
import {
  describeBytes,
  findHeaviestTag,
  findTooHeavy,
  sumBytes,
  weighHosts,
} from '../../core/measure/bytes.js';
import { formatBytes, formatWire } from '../../core/measure/units.js';
import { tell } from '../../core/tell.js';
import { joinWords } from '../../core/words/list.js';

interface Data {
  limit: number;
  wire: number;
  /** What each kind of file and each host has of it, the heaviest first. */
  kinds: [name: string, wire: number][];
  hosts: [name: string, wire: number][];
}

/** Hosts and kinds beyond these are told together. */
const MOST_NAMED = 4;

export default defineCheck({
  id: 'weight-over-limit',
  subject: 'page',
  level: 'concern',
  title: 'All that it loads weighs more than the house allows',
  decided:
    'The bytes on the wire of all that the page asks for with the snippet, and not without it, are over the limit `totalBytes`: frames, films and workers too.',
  standard: null,
  needs: ['traffic'],
  markup: false,
  judge({ markup, house, renders }): Fact<Data>[] {
    const limit = house.limits.totalBytes;
    const found = findTooHeavy(renders, limit, ({ traffic }) => traffic);
    if (!found) return [];
    const { requests, seen } = found;
    const hosts = weighHosts(requests).map(({ host, wire }): [string, number] => [host, wire]);
    return [
      tell.seen(
        atSnippet('weight', findHeaviestTag(markup, requests, house.origin) ?? getHead(markup)),
        { limit, wire: sumBytes(requests, 'wire'), kinds: weighKinds(requests), hosts },
        seen,
      ),
    ];
  },
  says: ({ limit, wire, kinds, hosts }) => ({
    message: `All that it loads weighs ${formatBytes(wire)} on the wire; the house allows ${formatBytes(limit)}. By kind: ${list(kinds)}. By host: ${list(hosts)}.`,
    notice:
      'On a phone and on slow lines it comes late, and costs visitors part of what they pay for.',
    cure: `Make smaller, or load only when it is asked for, what weighs most: ${kinds[0]?.[0] ?? 'its files'}.`,
  }),
  measures: describeBytes,
  brief: ({ wire, limit }) => `${formatBytes(wire)} in all, ${formatBytes(limit)} allowed`,
  samples: [{ limit: 0, wire: 0, kinds: [['pictures', 0]], hosts: [] }],
  examples: {
    faulty: [
      {
        name: 'a picture of two megabytes',
        code: '<img src="https://static.rootcellar.example/weighty/beans.png" width="160" height="120" alt="Raised beds in May">',
      },
    ],
    sound: [
      {
        name: 'a small picture',
        code: '<img src="https://static.rootcellar.example/beans.png" width="160" height="120" alt="Runner beans drying on a rack">',
      },
    ],
  },
});

const KINDS: Partial<Record<FileType, string>> = {
  script: 'scripts',
  picture: 'pictures',
  film: 'film and sound',
  style: 'styles',
  font: 'fonts',
  document: 'pages in frames',
};

function weighKinds(requests: readonly RequestFact[]): [string, number][] {
  const sums = new Map<string, number>();
  for (const { type, wire } of requests) {
    const name = KINDS[type] ?? 'data';
    sums.set(name, (sums.get(name) ?? 0) + wire);
  }
  return [...sums].sort((a, b) => b[1] - a[1]);
}

function list(shares: readonly [string, number][]): string {
  const named = shares.length > MOST_NAMED ? shares.slice(0, MOST_NAMED - 1) : shares;
  const rest = shares.slice(named.length).reduce((sum, [, wire]) => sum + wire, 0);
  const all = rest > 0 ? [...named, ['others', rest] as const] : named;
  return joinWords(all.map(([name, wire]) => `${name} ${formatWire(wire)}`));
}
