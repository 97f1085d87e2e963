import { defineCheck, makeSeen, type Fact } from '../../core/check.js';
import { flatMap } from '../../core/lists.js';
import { getTagSpan, type Markup } from '../../core/markup/markup.js';
import { isScript } from '../../core/markup/traits.js';
import { atSpan, getHead } from '../../core/measure/blame.js';
import { atCode } from '../../core/measure/code.js';
import type { Span } from '../../core/snippet.js';
import { tell } from '../../core/tell.js';

interface Data {
  /** null for one that stands in the snippet. */
  address: string | null;
  /** From 1; null where it is not known, or in the snippet. */
  line: number | null;
  /** Of the time, 0 to 1. */
  share: number;
}

/** So much of the time is too much. */
const MOST = 0.1;

export default defineCheck({
  id: 'script-never-rests',
  subject: 'scripts',
  level: 'concern',
  title: 'A script is at work all the time',
  decided:
    'When the page has come to rest, and nobody does anything, code of the snippet takes more than a tenth of the time of the page’s main thread: the middle of three looks at what runs, in a window of a kind.',
  standard: null,
  needs: ['unrest'],
  markup: false,
  judge: (c): Fact<Data>[] =>
    flatMap(c.renders, (render) =>
      render.unrest
        .filter(({ share }) => share > MOST)
        .map(({ share, from, address, line }) =>
          tell.seen(
            from ? atCode(c.markup, { from, address }) : atSpan(findScript(c.markup)),
            { address, line, share },
            makeSeen(render, { busy: describeShare(share) }),
            { group: address ?? 'own' },
          ),
        ),
    ),
  says: ({ address, line, share }) => ({
    message: `${address === null ? 'The snippet’s code' : `The script ${address}${line === null ? '' : ` (line ${line})`}`} is at work ${describeShare(share)} of the time while nobody does anything.`,
    notice: 'Pages answer later, phones grow warm, and their batteries are soon empty.',
    cure: 'Do it when something has changed, or less often; stop what goes on in frames while it is out of sight.',
  }),
  measures: ({ busy }: { busy: string }) => `busy ${busy}`,
  brief: ({ share }) => `at work ${describeShare(share)} of the time`,
  samples: [
    { address: null, line: null, share: 0.34 },
    { address: 'https://tally.example/busy.js', line: 3, share: 0.12 },
  ],
  examples: {
    faulty: [
      {
        name: 'sums in every frame',
        code: '<p>Sow in May.</p><script>let sum = 0; requestAnimationFrame(function count() { for (let i = 0; i < 5e5; i++) sum += Math.sqrt(i + sum); requestAnimationFrame(count) })</script>',
      },
    ],
    sound: [
      {
        name: 'a clock by the second',
        code: '<p>Open till <span id="till">18:00</span></p><script>let ticks = 0; setInterval(() => { ticks++ }, 1000)</script>',
      },
      {
        name: 'much work once',
        code: '<p>Sow in May.</p><script>let sum = 0; for (let i = 0; i < 2e6; i++) sum += Math.sqrt(i)</script>',
      },
    ],
  },
});

/** Where it is not told: the first script. */
function findScript(markup: Markup): Span {
  const script = markup.elements.find(isScript);
  return script ? getTagSpan(script) : getHead(markup);
}

/** In words that do not change with every look: in steps of a tenth. */
function describeShare(share: number): string {
  const tenths = Math.min(Math.max(Math.round(10 * share), 1), 10);
  return tenths === 10 ? 'nearly all' : `about ${tenths}0 %`;
}
