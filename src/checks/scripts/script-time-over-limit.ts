import { defineCheck, makeSeen, type Fact, type RenderOf } from '../../core/check.js';
import { flatMap } from '../../core/lists.js';
import type { House } from '../../core/house/house.js';
import { atSnippet } from '../../core/measure/blame.js';
import { atCode } from '../../core/measure/code.js';
import { hasHost, isThirdParty } from '../../core/measure/site.js';
import { formatTime } from '../../core/measure/units.js';
import { tell } from '../../core/tell.js';
import { joinWords } from '../../core/words/list.js';
import type { TimedFact } from '../../core/evidence.js';

interface Script {
  address: string;
  /** At the slow-down of the house, ms. */
  ms: number;
}

interface Data {
  limit: number;
  slowdown: number;
  /** All of them together, ms. */
  ms: number;
  /** The one that takes most first. */
  scripts: Script[];
}

/** So many times the limit it takes to be over it: no two loads take the same time. */
const OVER = 1.2;

export default defineCheck({
  id: 'script-time-over-limit',
  subject: 'scripts',
  level: 'concern',
  title: 'Third-party scripts take more time than the house allows',
  decided:
    'Until the page has come to rest, code from other sites than the page’s has its main thread for longer than the limit `scriptTime`, by more than a fifth of it, on a machine as many times slower as the house’s `slowdown` says: the middle of three loads, as functions run, what it takes to read the scripts left out.',
  standard: null,
  needs: {
    kinds: ['times', 'traffic'],
    variants: ['as-is', 'timed'],
    calls: ({ times: { all }, traffic }, { house: { limits, origin } }) =>
      all !== null &&
      all * limits.slowdown > limits.scriptTime &&
      traffic.some(({ type, host }) => type === 'script' && isThirdParty(host, origin)),
  },
  markup: false,
  published: false,
  judge: ({ markup, house, renders }): Fact<Data>[] =>
    flatMap(renders, (render) => {
      const { scriptTime: limit, slowdown } = house.limits;
      const found = findMiddle(render, house);
      const ms = slowdown * sum(found);
      if (ms <= OVER * limit) return [];
      const scripts = found.map(({ address, ms }) => ({ address: address!, ms: slowdown * ms }));
      const { where } = atCode(markup, found[0]!);
      // The same page, and nothing to be seen in it that is not in that.
      const at = { ...render.at, variant: 'as-is' };
      const seen = makeSeen(
        { ...render, at },
        { took: formatTime(ms), allowed: formatTime(limit) },
      );
      return [tell.seen(atSnippet('scripts', where), { limit, slowdown, ms, scripts }, seen)];
    }),
  says: ({ limit, slowdown, ms, scripts }) => ({
    message: `On a machine ${slowdown} times slower, third-party scripts keep the page’s main thread for ${formatTime(ms)}; the house allows ${formatTime(limit)}. By script: ${joinWords(scripts.map((one) => `${one.address} ${formatTime(one.ms)}`))}.`,
    notice: 'On phones the page does not answer for as long, to a tap or a key.',
    cure: 'Ask the vendor for a lighter code, load it only when it is used, or do without it.',
  }),
  measures: ({ took, allowed }: { took: string; allowed: string }) =>
    `takes ${took}, ${allowed} allowed`,
  brief: ({ ms, limit }) => `scripts take ${formatTime(ms)}, ${formatTime(limit)} allowed`,
  samples: [
    {
      limit: 200,
      slowdown: 4,
      ms: 480,
      scripts: [{ address: 'https://tally.example/sums.js', ms: 480 }],
    },
  ],
  examples: {
    faulty: [
      {
        name: 'much work at once',
        code: '<p>Sow in May.</p><script async src="https://tally.example/sums.js"></script>',
      },
    ],
    sound: [
      {
        name: 'little work',
        code: '<p>Sow in May.</p><script async src="https://tally.example/small.js"></script>',
      },
    ],
  },
});

/** What others' scripts took in the load in which they took neither most nor least, the slowest of them first. */
function findMiddle({ times }: RenderOf<'times'>, { origin }: House): TimedFact[] {
  const loads = times.loads.map((load) => load.filter((one) => isOthers(one, origin)));
  const sorted = loads.sort((a, b) => sum(a) - sum(b));
  const middle = sorted[Math.floor(sorted.length / 2)] ?? [];
  return [...middle].sort((a, b) => b.ms - a.ms);
}

function isOthers({ address }: TimedFact, origin: string): boolean {
  // Code may call itself what it likes.
  const url = address === null || !URL.canParse(address) ? null : new URL(address);
  return url !== null && hasHost(url) && isThirdParty(url.hostname, origin);
}

function sum(load: readonly TimedFact[]): number {
  return load.reduce((all, { ms }) => all + ms, 0);
}
