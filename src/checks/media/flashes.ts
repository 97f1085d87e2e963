import { defineCheck, makeSeen, type Case, type Fact } from '../../core/check.js';
import type { FlashFact } from '../../core/evidence.js';
import { flatMap } from '../../core/lists.js';
import { isScript } from '../../core/markup/traits.js';
import { atSpan, atTag, blameElement, getHead, type Blame } from '../../core/measure/blame.js';
import { formatPixels } from '../../core/measure/units.js';
import { tell } from '../../core/tell.js';

interface Data {
  /** px. */
  width: number;
  height: number;
  red: boolean;
}

export default defineCheck({
  id: 'flashes',
  subject: 'media',
  level: 'blocker',
  title: 'Something flashes more than three times a second',
  decided:
    'As it is painted, more than a quarter of a field of 341 × 256 px becomes lighter and darker again, by a tenth of the greatest relative luminance and to under 0.8 of it, or a saturated red and another colour, together and more than three times within a second. Watched in the narrowest and the widest window of each slot: as it loads, until nothing is painted for 0.2 s, and where something is painted within the first minute or on the way down to what lies below. What moves across is no flash. Films are seen as far as they play meanwhile; not what flashes only after a click.',
  standard: 'WCAG 2.2, 2.3.1 Three Flashes or Below Threshold',
  needs: ['flashing'],
  markup: false,
  published: true,
  judge: (c): Fact<Data, { size: string }>[] =>
    flatMap(c.renders, (render) =>
      render.flashing.map((flash) => {
        const { width, height } = flash.box;
        const size = `${Math.round(width)} × ${formatPixels(height)}`;
        return tell.seen(
          blame(c, flash),
          { width, height, red: flash.red },
          makeSeen(render, { size }),
        );
      }),
    ),
  says: ({ width, height, red }) => ({
    message: `${Math.round(width)} × ${Math.round(height)} px flash${red ? ' in red' : ''} more than three times within a second.`,
    notice: 'Flashes like these can bring on a seizure in people who are sensitive to light.',
    cure: 'Let it change more slowly, by less, or in a smaller place (under about 145 × 145 px); a film or a picture that flashes needs another file.',
  }),
  measures: ({ size }: { size: string }) => `${size} flash`,
  samples: [
    { width: 304, height: 304, red: false },
    { width: 640, height: 360, red: true },
  ],
  examples: {
    faulty: [
      {
        name: 'a sign that blinks as long as one looks',
        code: '<style>@keyframes blink { 50% { background: #fff } } .sign { width: 240px; height: 200px; background: #123; animation: blink .2s steps(1) 20 }</style><div class="sign"></div><p>Sow in May.</p>',
      },
      {
        name: 'code that blinks, some seconds later',
        code: '<div id="sign" style="width: 240px; height: 200px; background: #123"></div><p>Sow in May.</p><script>setTimeout(() => { let dark = true; const blink = setInterval(() => { dark = !dark; document.getElementById("sign").style.background = dark ? "#123" : "#fff" }, 100); setTimeout(() => clearInterval(blink), 40000) }, 5000)</script>',
      },
      {
        name: 'a picture that flashes for some seconds',
        code: '<img src="https://static.rootcellar.example/storm.gif" alt="Lightning over the glasshouse" width="240" height="200"><p>Sow in May.</p>',
      },
    ],
    sound: [
      {
        name: 'by next to nothing',
        code: '<style>@keyframes blink { 50% { background: #fff } } .sign { width: 240px; height: 200px; background: #f0f2ef; animation: blink .2s steps(1) 20 }</style><div class="sign"></div><p>Sow in May.</p>',
      },
      {
        name: 'slowly enough',
        code: '<style>@keyframes blink { 50% { background: #fff } } .sign { width: 240px; height: 200px; background: #123; animation: blink .5s steps(1) 8 }</style><div class="sign"></div><p>Sow in May.</p>',
      },
      {
        name: 'small enough',
        code: '<style>@keyframes blink { 50% { background: #fff } } .sign { width: 140px; height: 140px; background: #123; animation: blink .2s steps(1) 20 }</style><div class="sign"></div><p>Sow in May.</p>',
      },
    ],
  },
});

/** What holds it; else what could make the page do so: code, or styles. */
function blame({ markup }: Case<never>, { from, selector }: FlashFact): Blame {
  if (from) return blameElement(markup, { from, selector });
  const { elements } = markup;
  const maker = elements.find(isScript) ?? elements.find(({ name }) => name === 'style');
  return maker ? atTag(maker) : atSpan(getHead(markup));
}
