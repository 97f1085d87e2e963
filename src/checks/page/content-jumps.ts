import {
  defineCheck,
  makeSeen,
  type Case,
  type Fact,
  type RenderOf,
  type Seen,
} from '../../core/check.js';
import type { ShiftsFact } from '../../core/evidence.js';
import { flatMap } from '../../core/lists.js';
import { blameElement, getHead } from '../../core/measure/blame.js';
import { getElementKey } from '../../core/search/spans.js';
import { tell } from '../../core/tell.js';
import { capitalize, formatWidths, nameElement, getMost } from '../../core/words/list.js';

type Cause = ShiftsFact['causes'][number];

interface Data {
  limit: number;
  tag: string | null;
  how: Cause['how'] | null;
}

type Measured = Record<'score' | 'limit', number>;

export default defineCheck({
  id: 'content-jumps',
  subject: 'page',
  level: 'concern',
  title: 'The page jumps while it loads',
  decided:
    'The sum of all layout shift scores after the first paint, less what the page has by itself, is over the limit `contentJump`. It is put down to what stands in the room that the jump made. Not what pictures and films without a size do: whether they come before the first paint is chance.',
  standard: 'Layout Instability API, 2.2; HTML Living Standard, dimension attributes',
  needs: ['shifts'],
  markup: false,
  judge(c): Fact<Data, Measured>[] {
    const limit = c.house.limits.contentJump;
    const over = c.renders
      .map((render) => ({ render, score: getScore(render) }))
      .filter(({ score }) => score > limit);
    if (over.length === 0) return [];
    const cause = findMain(over.map(({ render }) => render));
    const blame = cause ? blameElement(c.markup, cause) : null;
    return [
      tell.seen(
        {
          where: blame?.where ?? getHead(c.markup),
          culprit: blame?.culprit ?? { at: 'snippet', what: 'jumps' },
        },
        { limit, tag: cause?.tag ?? null, how: cause?.how ?? null },
        over.map(({ render, score }) => makeSeen(render, { score, limit })),
        { group: '' },
      ),
    ];
  },
  says({ limit, tag, how }, { seen, culprit }) {
    const score = formatWorst(seen, limit);
    const sum = `The layout shifts add up to ${score}; the house allows ${limit} (${formatWidths(seen)}).`;
    const name = tag === null ? null : capitalize(nameElement(tag, culprit));
    return {
      message: name === null ? sum : `${sum} ${name} ${HOW[how ?? 'moved']}.`,
      notice: 'What visitors read or are about to press moves away under them.',
      cure: CURES[how ?? 'moved'],
    };
  },
  measures: ({ score, limit }) => `layout shifts of ${formatScore(score, limit)}`,
  brief: ({ limit }, { seen }) => `layout shifts of ${formatWorst(seen, limit)}`,
  samples: [
    { limit: 0.1, tag: 'div', how: 'put-in' },
    { limit: 0.1, tag: 'img', how: 'sized-late' },
    { limit: 0.1, tag: null, how: null },
  ],
  examples: {
    faulty: [
      {
        name: 'a notice that comes in late',
        code: '<div id="news"></div><script>setTimeout(() => { document.querySelector("#news").innerHTML = "<p style=\'height: 300px; margin: 0\'>Seed swap on Saturday</p>" }, 600)</script>',
      },
    ],
    sound: [
      {
        name: 'a notice with room kept for it',
        code: '<div id="news" style="min-height: 300px"></div><script>setTimeout(() => { document.querySelector("#news").innerHTML = "<p style=\'height: 300px; margin: 0\'>Seed swap on Saturday</p>" }, 600)</script>',
      },
    ],
  },
});

const HOW: Record<Cause['how'], string> = {
  'put-in': 'is put in when the rest is there already',
  'sized-late': 'gets its height only when the rest is there already',
  moved: 'moves',
};

const CURES: Record<Cause['how'], string> = {
  'put-in': 'Keep its room from the beginning: a `min-height` on what it is put into.',
  'sized-late': 'Say its size from the beginning: `width` and `height`, or `aspect-ratio`.',
  moved: 'Keep the room of what comes late, and move things by `transform` alone.',
};

/** Less what the page has by itself. */
function getScore({ shifts, baseline }: RenderOf<'shifts'>): number {
  return Math.max(0, Math.round((shifts.score - (baseline?.jumps ?? 0)) * 1000) / 1000);
}

/** What makes most of it, over all. */
function findMain(renders: Case<'shifts'>['renders']): Cause | null {
  const sums = new Map<string, Cause>();
  for (const cause of flatMap(renders, ({ shifts }) => shifts.causes)) {
    const key = getElementKey(cause);
    sums.set(key, { ...cause, score: cause.score + (sums.get(key)?.score ?? 0) });
  }
  return [...sums.values()].sort((a, b) => b.score - a.score)[0] ?? null;
}

function formatWorst(seen: readonly Seen<Measured>[], limit: number): string {
  return formatScore(getMost(seen, 'score'), limit);
}

/** To two places, or to as many more as tell it from the limit. */
function formatScore(sum: number, limit: number): string {
  const places = [2, 3, 4].find((one) => Number(sum.toFixed(one)) !== limit) ?? 2;
  return sum.toFixed(places);
}
