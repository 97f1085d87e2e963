import { defineCheck, makeSeen, type Fact, type RenderOf } from '../../core/check.js';
import type { RequestFact } from '../../core/evidence.js';
import { mapPresent } from '../../core/lists.js';
import { atSpan, findRequestTag } from '../../core/measure/blame.js';
import { leavesSite, parseAddress } from '../../core/measure/site.js';
import { tell } from '../../core/tell.js';
import { countWords } from '../../core/words/list.js';

interface Data {
  limit: number;
  count: number;
  /** Who asks whom, a line a host, the deeper ones set in. */
  tree: string;
}

type Measured = { hosts: number; limit: number };

export default defineCheck({
  id: 'script-pulls-in-others',
  subject: 'scripts',
  level: 'concern',
  title: 'Scripts load from more hosts than the house allows',
  decided:
    'More hosts of other sites than the limit `hosts` are asked for something, and a script of the snippet’s, or one that it loads, asks some of them. Not what documents in frames ask for.',
  standard: null,
  needs: ['traffic'],
  markup: false,
  judge({ markup, house, renders }): Fact<Data, Measured>[] {
    const limit = house.limits.hosts;
    const all = renders.map((render) => ({ render, asked: listAsked(render, house.origin) }));
    const over = all
      .map((one) => ({ ...one, hosts: new Set(one.asked.map(({ host }) => host)) }))
      .filter(
        ({ hosts, asked }) => hosts.size > limit && asked.some((one) => isPulled(one, asked)),
      );
    const [most] = over.toSorted((a, b) => b.hosts.size - a.hosts.size);
    if (!most) return [];
    const data = { limit, count: most.hosts.size, tree: drawTree(most.asked) };
    const seen = over.map(({ render, hosts }) => makeSeen(render, { hosts: hosts.size, limit }));
    const first = most.asked.find((one) => isPulled(one, most.asked))!;
    return [tell.seen(atSpan(findRequestTag(markup, first)), data, seen, { group: '' })];
  },
  says: ({ limit, count, tree }) => ({
    message: `The snippet contacts ${countWords(count, 'host')} of other sites; the house allows ${limit}. Who asks whom: ${tree}.`,
    notice: 'Each of them sees the visitor, can change the page, and makes it wait.',
    cure: 'Ask the vendor which of them are needed, and for a code without the others.',
  }),
  measures: ({ hosts, limit }) => `${countWords(hosts, 'host')}, ${limit} allowed`,
  brief: ({ count, limit }) => `${countWords(count, 'host')}, ${limit} allowed`,
  samples: [{ limit: 4, count: 6, tree: 'tally.example → cdn.tallyroot.example' }],
  examples: {
    faulty: [
      {
        name: 'a counter that asks others',
        code: '<p>Visits</p><script async src="https://tally.example/heavy.js"></script>',
        under: { limits: { hosts: 2, scriptBytes: '9MB' } },
      },
    ],
    sound: [
      {
        name: 'no more than the house allows',
        code: '<p>Visits</p><script async src="https://tally.example/heavy.js"></script>',
        under: { limits: { hosts: 3, scriptBytes: '9MB' } },
      },
      {
        name: 'pictures of many hosts, and no script',
        code: '<img src="https://static.rootcellar.example/beans.png" width="160" height="120" alt="Runner beans drying on a rack"><img src="https://beacon.tallyroot.example/hit.gif" width="1" height="1" alt="">',
        under: { limits: { hosts: 1 } },
      },
    ],
  },
});

function listAsked({ traffic }: RenderOf<'traffic'>, origin: string): RequestFact[] {
  return traffic.filter((one) => !one.inFrame && leavesSite(one, origin));
}

/** A script asked for it: one of the snippet’s, or one that came. */
function isPulled({ by, from }: RequestFact, asked: readonly RequestFact[]): boolean {
  if (from !== null && 'script' in from) return true;
  return asked.some(({ type, address }) => type === 'script' && address === by);
}

function getHost(address: string): string | null {
  return parseAddress(address)?.hostname ?? null;
}

/** Each host once, under the one whose script asked for it first. */
function drawTree(asked: readonly RequestFact[]): string {
  const asker = new Map<string, string | null>();
  for (const { host, by } of asked)
    if (!asker.has(host)) asker.set(host, by === null ? null : getHost(by));
  const draw = (host: string): string => {
    const under = mapPresent(asker, ([one, by]) => (by === host && one !== host ? one : null));
    return under.length > 0 ? `${host} → (${under.map(draw).join(', ')})` : host;
  };
  const roots = mapPresent(asker, ([host, by]) =>
    by === null || by === host || !asker.has(by) ? host : null,
  );
  return roots.map(draw).join('; ');
}
