import { atSnippet } from '../../core/measure/blame.js';
import { defineCheck, type Fact, type RenderOf } from '../../core/check.js';
import type { RequestFact } from '../../core/evidence.js';
import {
  describeBytes,
  findHeaviestTag,
  findTooHeavy,
  sumBytes,
  weighHosts,
  type HostWeight,
} from '../../core/measure/bytes.js';
import { isThirdParty } from '../../core/measure/site.js';
import { formatBytes, formatWire } from '../../core/measure/units.js';
import { getTagSpan, type Markup } from '../../core/markup/markup.js';
import { tell } from '../../core/tell.js';
import { joinWords } from '../../core/words/list.js';

interface Data {
  limit: number;
  wire: number;
  unpacked: number;
  hosts: HostWeight[];
}

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
  judge({ markup, house, renders }): Fact<Data>[] {
    const limit = house.limits.scriptBytes;
    const found = findTooHeavy(renders, limit, (render) => listScripts(render, house.origin));
    if (!found) return [];
    const { requests, seen } = found;
    const [wire, unpacked] = [sumBytes(requests, 'wire'), sumBytes(requests, 'unpacked')];
    return [
      tell.seen(
        atSnippet('scripts', findHeaviestTag(markup, requests, house.origin) ?? findScript(markup)),
        { limit, wire, unpacked, hosts: weighHosts(requests) },
        seen,
      ),
    ];
  },
  says({ limit, wire, unpacked, hosts }) {
    const shares = hosts.map(
      (one) => `${one.host} ${formatWire(one.wire)} (${formatBytes(one.unpacked)} unpacked)`,
    );
    return {
      message: `Third-party scripts weigh ${formatBytes(wire)} on the wire, ${formatBytes(unpacked)} unpacked; the house allows ${formatBytes(limit)}. By host: ${joinWords(shares)}.`,
      notice: 'The page takes longer to answer, most of all on phones and slow lines.',
      cure: 'Ask the vendor for a lighter code, load it only when it is used, or do without it.',
    };
  },
  measures: describeBytes,
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

function listScripts({ traffic }: RenderOf<'traffic'>, origin: string): RequestFact[] {
  return traffic.filter(({ type, host }) => type === 'script' && isThirdParty(host, origin));
}

function findScript({ elements }: Markup) {
  const element = elements.find(({ name }) => name === 'script') ?? elements[0];
  return element ? getTagSpan(element) : { offset: 0, endOffset: 0 };
}
