import { defineCheck, makeSeen, type Fact } from '../../core/check.js';
import { blameElement } from '../../core/measure/blame.js';
import { listMoving } from '../../core/measure/motion.js';
import { tell } from '../../core/tell.js';
import { joinWords } from '../../core/words/list.js';

interface Data {
  /** s; null where it has no end. */
  seconds: number | null;
  changes: string[];
}

type Measured = { seconds: number | null };

export default defineCheck({
  id: 'motion-cannot-be-stopped',
  subject: 'page',
  level: 'concern',
  title: 'Something moves by itself and cannot be stopped',
  decided:
    'An element wider than 48 px that shows is animated, by styles or by code, for over 5 s or without an end, or is a marquee. Not where the snippet has code and something to press, or styles that stop it when something is done. Films, pictures and drawings have findings of their own; what code moves step by step is not judged.',
  standard: 'WCAG 2.2, 2.2.2 Pause, Stop, Hide',
  needs: ['motions'],
  markup: false,
  published: true,
  judge: (c): Fact<Data, Measured>[] =>
    listMoving(c)
      .filter(({ motion }) => !motion.pictured)
      .map(({ render, motion }) => {
        const { seconds, changes } = motion;
        const seen = makeSeen(render, { seconds });
        return tell.seen(blameElement(c.markup, motion), { seconds, changes }, seen);
      }),
  says: ({ seconds, changes }) => ({
    message: `It moves by itself ${seconds === null ? 'without an end' : `for ${Math.round(seconds)} s`}, and nothing stops it${changes.length > 0 ? ` (${joinWords(changes)})` : ''}.`,
    notice: 'People whom moving things distract cannot read what stands beside it.',
    cure: 'Let it come to rest within 5 s, or add a button that stops it; leave it out for those who wish for less motion.',
  }),
  samples: [{ seconds: null, changes: ['transform'] }],
  examples: {
    faulty: [
      {
        name: 'a line that swings for ever',
        code: '<style>@keyframes swing { 50% { transform: translateX(16px) } } .swap { animation: swing 3s infinite; width: 200px }</style><p class="swap">Seed swap on Saturday</p><p>Sow in May.</p>',
      },
    ],
    sound: [
      {
        name: 'a line that swings twice',
        code: '<style>@keyframes swing { 50% { transform: translateX(16px) } } .swap { animation: swing 2s 2; width: 200px }</style><p class="swap">Seed swap on Saturday</p><p>Sow in May.</p>',
      },
      {
        name: 'small wheels',
        code: '<style>@keyframes turn { to { transform: rotate(1turn) } } .wheel { animation: turn 1s linear infinite; width: 24px; height: 24px; border: 3px solid #246b35; border-top-color: transparent; border-radius: 50%; box-sizing: border-box } .late { animation-delay: -0.125s }</style><div class="wheel"></div><div class="wheel late"></div><p>Sow in May.</p>',
      },
      {
        name: 'a box to check stops it',
        code: '<style>@keyframes swing { 50% { transform: translateX(16px) } } .swap { animation: swing 3s infinite; width: 200px } #still:checked ~ .swap { animation-play-state: paused }</style><input type="checkbox" id="still"><label for="still">Keep it still</label><p class="swap">Seed swap on Saturday</p>',
      },
    ],
  },
});
