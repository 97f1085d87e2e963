import { defineCheck, makeSeen, type Fact } from '../../core/check.js';
import { flatMap } from '../../core/lists.js';
import { blameWidth, SAMPLE_WIDTH_BLAME, type WidthBlame } from '../../core/measure/blame-width.js';
import { tell } from '../../core/tell.js';
import { settleCures } from '../../core/trial/settle.js';
import { aimAtFrame, findCause } from '../../core/trial/targets.js';
import { cureWidth } from '../../core/words/width.js';
import { listWideFrames } from '../../core/measure/sticking.js';
import { formatPixels } from '../../core/measure/units.js';
import { capitalize, formatWindows, getWorstSeen, nameElement } from '../../core/words/list.js';
import { listRanges } from '../../core/search/ranges.js';

interface Data {
  blame: WidthBlame;
}

type Measured = Record<'frameWidth' | 'slotWidth' | 'overhang', number>;

export default defineCheck({
  id: 'frame-wider-than-slot',
  subject: 'frames',
  level: 'blocker',
  title: 'A frame is wider than the slot it stands in',
  decided:
    'The frame’s box, borders included, is measured wider than the slot’s content box, by more than 1 px.',
  standard: 'WCAG 2.2, 1.4.10 Reflow',
  needs: ['frames', 'slot', 'causes', 'widths'],
  markup: false,
  explains: [{ findings: ['slot-overflow'] }],
  tooWide: () => true,
  judge({ markup, renders }): Fact<Data, Measured>[] {
    const sighted = flatMap(renders, (render) => {
      const { slot, causes } = render;
      return listWideFrames(render).map((frame) => {
        const cause = findCause(causes, aimAtFrame(frame, slot));
        const blame = blameWidth(markup, frame, { causes, cause, room: 0 });
        const measured = {
          frameWidth: frame.box.width,
          slotWidth: slot.box.width,
          overhang: Math.round((frame.box.width - slot.box.width) * 100) / 100,
        };
        const seen = makeSeen(render, measured);
        const ranges = listRanges(renders, render.at, 'frame', frame);
        const fact = tell.seen(blame, { blame }, seen, { ranges });
        return { fact, causes, cause };
      });
    });
    const tried = renders.map(({ causes }) => causes);
    return settleCures(markup, sighted, tried);
  },
  says(data, fact) {
    const { frame, slot } = formatWorst(fact);
    const what = nameElement(data.blame.tag, fact.culprit);
    return {
      message: `${capitalize(what)} is ${frame} wide in a slot of ${slot} (${formatWindows(fact)}).`,
      notice:
        'The frame runs out of its column: its right side is cut off or lies over other content.',
      cure: cureWidth(data.blame),
    };
  },
  measures: ({ frameWidth, slotWidth }) =>
    `${formatPixels(frameWidth)} wide in a slot of ${formatPixels(slotWidth)}`,
  mend: ({ blame }) => blame.cure,
  brief({ blame }, fact) {
    const { frame, slot } = formatWorst(fact);
    return `<${blame.tag}> ${frame} wide in ${slot}`;
  },
  samples: [{ blame: { ...SAMPLE_WIDTH_BLAME, tag: 'iframe' } }],
  examples: {
    faulty: [
      {
        name: 'a frame a little too wide',
        code: '<iframe title="Map of the glasshouse" src="https://maps.fernmap.example/embed/glasshouse" style="border: 0; width: calc(100% + 10px); height: 300px"></iframe>',
      },
      {
        name: 'a padding’s worth too wide',
        code: '<iframe title="Map of the glasshouse" src="https://maps.fernmap.example/embed/glasshouse" style="width: calc(100% + 12px); height: 300px; border: 0"></iframe>',
      },
    ],
    sound: [
      {
        name: 'a frame that fills its slot',
        code: '<iframe title="Map of the glasshouse" src="https://maps.fernmap.example/embed/glasshouse" style="border: 0; width: 100%; height: 300px"></iframe>',
      },
      {
        name: 'a wide frame that may shrink',
        code: '<iframe title="Map of the glasshouse" src="https://maps.fernmap.example/embed/glasshouse" width="900" height="300" style="border: 0; max-width: 100%"></iframe>',
      },
    ],
  },
});

/** How wide frame and slot are where it sticks out farthest. */
function formatWorst({ seen }: Fact<Data, Measured>): Record<'frame' | 'slot', string> {
  const { frameWidth = 0, slotWidth = 0 } = getWorstSeen(seen, 'overhang')?.measured ?? {};
  return { frame: formatPixels(frameWidth), slot: formatPixels(slotWidth) };
}
