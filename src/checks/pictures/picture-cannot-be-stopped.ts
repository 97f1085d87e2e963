import { defineCheck, makeSeen, type Fact } from '../../core/check.js';
import { blameElement } from '../../core/measure/blame.js';
import { listMoving } from '../../core/measure/motion.js';
import { tell } from '../../core/tell.js';

interface Data {
  tag: string;
  /** s; null where it has no end. */
  seconds: number | null;
}

type Measured = { seconds: number | null };

export default defineCheck({
  id: 'picture-cannot-be-stopped',
  subject: 'pictures',
  level: 'concern',
  title: 'A picture moves by itself and cannot be stopped',
  decided:
    'A picture of several frames, or a drawing that animates itself, moves for over 5 s, or without an end; of what styles or code animate, what is over 48 px square. Not where the snippet has code and something to press, or styles that stop it when something is done.',
  standard: 'WCAG 2.2, 2.2.2 Pause, Stop, Hide',
  needs: ['motions'],
  markup: false,
  judge: (c): Fact<Data, Measured>[] =>
    listMoving(c)
      .filter(({ motion }) => motion.pictured)
      .map(({ render, motion }) => {
        const { seconds } = motion;
        const tag = motion.how === 'picture' ? 'img' : 'svg';
        const seen = makeSeen(render, { seconds });
        return tell.seen(blameElement(c.markup, motion), { tag, seconds }, seen);
      }),
  says: ({ tag, seconds }) => ({
    message: `The ${tag === 'img' ? 'picture' : 'drawing'} moves by itself ${seconds === null ? 'without an end' : `for ${Math.round(seconds)} s`}, and nothing stops it.`,
    notice: 'People whom moving pictures distract cannot read what stands beside it.',
    cure: 'Show a still one, or a film with controls in its place; or let it end within 5 s.',
  }),
  samples: [{ tag: 'img', seconds: null }],
  examples: {
    faulty: [
      {
        name: 'a drawing that turns for ever',
        code: '<svg width="64" height="64" viewBox="0 0 64 64" aria-hidden="true"><circle r="9" cx="20" cy="32" fill="#246b35"><animate attributeName="cx" values="20;44;20" dur="2s" repeatCount="indefinite" /></circle></svg><p>Sow in May.</p>',
      },
      {
        name: 'a picture of several frames',
        code: '<img src="https://static.rootcellar.example/rain.gif" width="64" height="64" alt="Rain on the glasshouse"><p>Sow in May.</p>',
      },
    ],
    sound: [
      {
        name: 'a drawing that comes to rest',
        code: '<svg width="64" height="64" viewBox="0 0 64 64" aria-hidden="true"><circle r="9" cx="20" cy="32" fill="#246b35"><animate attributeName="cx" values="20;44;20" dur="2s" repeatCount="2" /></circle></svg><p>Sow in May.</p>',
      },
      {
        name: 'a still picture',
        code: '<img src="https://static.rootcellar.example/still.gif" width="64" height="64" alt="Rain on the glasshouse"><p>Sow in May.</p>',
      },
    ],
  },
});
