import { defineCheck, makeSeen, type Fact } from '../../core/check.js';
import type { Markup } from '../../core/markup/markup.js';
import { getTraits } from '../../core/markup/traits.js';
import { findCall, findLine } from '../../core/measure/calls.js';
import type { Span } from '../../core/snippet.js';
import { atSnippet } from '../../core/measure/blame.js';
import { tell } from '../../core/tell.js';

interface Data {
  /** How long it had not answered; null where it broke down. */
  seconds: number | null;
  functionName: string | null;
  /** Where the script comes from; null where it stands in the snippet. */
  address: string | null;
}

/** Of a page that crashed nobody can be asked where its code was. */
const BROKE = {
  message: 'The page broke down, twice, and stands without scripts: the code takes it down.',
  notice: 'The page is gone; the browser offers to load it again.',
  cure: 'Look for what grows without an end, such as a list that is never emptied, or do without the code.',
};

export default defineCheck({
  id: 'page-hangs',
  subject: 'page',
  level: 'blocker',
  title: 'The snippet stops the page',
  decided:
    'Its code keeps the page from answering beyond the time limit, at load, from a timer or on scrolling, or takes it down: it breaks down twice, and stands with scripts switched off.',
  standard: 'WCAG 2.2, 2.2.4 Interruptions',
  needs: ['scripts'],
  markup: false,
  published: true,
  judge(c) {
    // Of several on a page one that has no code does not do it.
    const hanging = getTraits(c.markup).live ? c.renders.filter(({ scripts }) => scripts.hung) : [];
    // Where it breaks down the place is not known: it is the one that is known of another width.
    const from = hanging.map(({ scripts }) => scripts.hung!.from).find((one) => one !== null);
    const where =
      from && 'offset' in from ? findLoop(c.markup, from.offset) : findCall(c.markup, LOOP);
    return hanging.map((render): Fact<Data> => {
      const { seconds, functionName, address } = render.scripts.hung!;
      const seen = makeSeen(render, { seconds });
      const data = { seconds, functionName, address };
      return tell.seen(atSnippet('page', where), data, seen);
    });
  },
  says({ seconds, functionName, address }) {
    const where = `${functionName ? ` in ${functionName}()` : ''}${address ? ` of ${address}` : ''}`;
    if (seconds === null) return BROKE;
    return {
      message: `The page stopped answering for over ${seconds} s: the code runs on${where} and does not end.`,
      notice: 'Nothing on the page reacts any more; the browser offers to close it.',
      cure: address
        ? 'Ask its maker for a code that ends, or do without it.'
        : 'Give the loop an end, or do the work in small pieces.',
    };
  },
  samples: [
    { seconds: 5, functionName: null, address: null },
    { seconds: 5, functionName: null, address: 'https://tally.example/a.js' },
    { seconds: null, functionName: null, address: null },
  ],
  examples: {
    faulty: [
      {
        name: 'a loop without end',
        code: '<p>Sowing calendar</p><script>for (let week = 1; week > 0; ) { week = (week % 52) + 1; }</script>',
      },
      {
        name: 'a list without end',
        code: '<p>Sowing calendar</p><script>const weeks = []; for (;;) weeks.push(new Array(1e6).fill(Math.random()));</script>',
      },
      {
        name: 'a loop that begins late',
        code: '<p>Sowing calendar</p><script>setTimeout(() => { while (true) {} }, 1500)</script>',
      },
    ],
    sound: [
      {
        name: 'a loop that ends',
        code: '<p>Sowing calendar</p><script>for (let week = 1; week < 52; week++) { Math.sqrt(week); }</script>',
      },
    ],
  },
});

const LOOP = /\b(while|for)\s*\(/;

/** The loop in the line that an offset is in, or all of that. */
function findLoop(markup: Markup, offset: number): Span {
  const line = findLine(markup, offset);
  const match = LOOP.exec(markup.text.slice(line.offset, line.endOffset));
  if (!match) return line;
  const start = line.offset + match.index;
  return { offset: start, endOffset: start + match[0].length };
}
