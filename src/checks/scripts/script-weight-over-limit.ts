import { defineCheck, makeSeen, type Case, type Fact, type RenderOf } from '../../core/check.js';
import type { RequestFact } from '../../core/evidence.js';
import { getSourceOffset } from '../../core/measure/blame.js';
import { isThirdParty } from '../../core/measure/site.js';
import { formatBytes } from '../../core/measure/units.js';
import { getElementAt, getTagSpan, type Markup } from '../../core/markup/markup.js';
import { countWords, joinWords } from '../../core/words/list.js';

interface Data {
  limit: number;
  wire: number;
  unpacked: number;
  hosts: { host: string; wire: number; unpacked: number }[];
}

type Needs = 'traffic';

export default defineCheck({
  id: 'script-weight-over-limit',
  subject: 'scripts',
  level: 'concern',
  title: 'Third-party scripts weigh more than the house allows',
  decided:
    'The bytes on the wire of all scripts from other sites than the page’s, those in frames and workers too, are over the limit `scriptBytes`.',
  standard: null,
  needs: ['traffic'],
  markup: false,
  judge(c): Fact<Data>[] {
    const weighed = c.renders.map((render) => ({
      render,
      scripts: listScripts(render, c.house.origin),
    }));
    const over = weighed.filter(({ scripts }) => sum(scripts, 'wire') > c.house.limits.scriptBytes);
    const heaviest = over.reduce<(typeof over)[number] | null>(
      (most, one) => (most && sum(most.scripts, 'wire') >= sum(one.scripts, 'wire') ? most : one),
      null,
    );
    if (!heaviest) return [];
    const data = weigh(heaviest.scripts, c);
    return [
      {
        where: findHeaviestTag(c.markup, heaviest.scripts),
        culprit: { at: 'snippet', what: 'scripts' },
        confirmed: true,
        data,
        seen: over.map(({ render, scripts }) =>
          makeSeen(render, {
            wireBytes: sum(scripts, 'wire'),
            unpackedBytes: sum(scripts, 'unpacked'),
            requests: scripts.length,
            limitBytes: c.house.limits.scriptBytes,
          }),
        ),
      },
    ];
  },
  says({ limit, wire, unpacked, hosts }) {
    const shares = hosts.map(
      (one) => `${one.host} ${formatBytes(one.wire)} (${formatBytes(one.unpacked)} unpacked)`,
    );
    return {
      message: `Third-party scripts weigh ${formatBytes(wire)} on the wire, ${formatBytes(unpacked)} unpacked; the house allows ${formatBytes(limit)}. By host: ${joinWords(shares)}.`,
      notice: 'The page takes longer to answer, most of all on phones and slow lines.',
      cure: 'Ask the vendor for a lighter code, load it only when it is used, or do without it.',
    };
  },
  measures: ({ wireBytes, unpackedBytes, requests }) =>
    `${formatBytes(Number(wireBytes))} on the wire, ${formatBytes(Number(unpackedBytes))} unpacked, in ${countWords(Number(requests), 'request')}`,
  brief: ({ wire, limit }) => `scripts of ${formatBytes(wire)}, ${formatBytes(limit)} allowed`,
  samples: [{ limit: 0, wire: 0, unpacked: 0, hosts: [] }],
  examples: {
    faulty: [
      {
        name: 'a counter that pulls in others',
        code: '<script async src="https://tally.example/heavy.js"></script>',
      },
      {
        name: 'a heavy script',
        code: '<script async src="https://cdn.tallyroot.example/charts.js"></script>',
      },
    ],
    sound: [
      {
        name: 'a small script',
        code: '<script async src="https://book.trellis.example/loader.js"></script><div data-trellis-desk="workshops" style="min-height: 120px"></div>',
      },
      {
        name: 'large pictures are no scripts',
        code: '<img src="https://static.rootcellar.example/beans.png" width="160" height="120" alt="Runner beans drying on a rack">',
      },
    ],
  },
});

function listScripts({ traffic }: RenderOf<Needs>, origin: string): RequestFact[] {
  return traffic.filter(({ type, host }) => type === 'Script' && isThirdParty(host, origin));
}

function sum(requests: readonly RequestFact[], what: 'wire' | 'unpacked'): number {
  return requests.reduce((total, request) => total + request[what], 0);
}

function weigh(scripts: readonly RequestFact[], c: Case<Needs>): Data {
  const hosts = [...new Set(scripts.map(({ host }) => host))].map((host) => {
    const own = scripts.filter((script) => script.host === host);
    return { host, wire: sum(own, 'wire'), unpacked: sum(own, 'unpacked') };
  });
  hosts.sort((a, b) => b.wire - a.wire);
  return {
    limit: c.house.limits.scriptBytes,
    wire: sum(scripts, 'wire'),
    unpacked: sum(scripts, 'unpacked'),
    hosts,
  };
}

/** The tag that, with all it pulled in, brought most bytes. */
function findHeaviestTag(markup: Markup, scripts: readonly RequestFact[]) {
  const bytes = new Map<number, number>();
  for (const { from, wire } of scripts) {
    const offset = getSourceOffset(from);
    const element = offset === null ? null : getElementAt(markup, offset);
    if (element) bytes.set(element.index, (bytes.get(element.index) ?? 0) + wire);
  }
  const heaviest = [...bytes].sort((a, b) => b[1] - a[1])[0];
  const element =
    markup.elements[heaviest?.[0] ?? -1] ??
    markup.elements.find(({ name }) => name === 'script') ??
    markup.elements[0];
  return element ? getTagSpan(element) : { offset: 0, endOffset: 0 };
}
