import { defineCheck, makeSeen, type Fact } from '../../core/check.js';
import { flatMap } from '../../core/lists.js';
import {
  blameWidth,
  SAMPLE_WIDTH_BLAMES,
  type WidthBlame,
} from '../../core/measure/blame-width.js';
import { tell } from '../../core/tell.js';
import { settleCures } from '../../core/trial/settle.js';
import { aimAt, findCause } from '../../core/trial/targets.js';
import { cureWidth } from '../../core/words/width.js';
import { listSlotCulprits } from '../../core/measure/sticking.js';
import { describeWhen, getWhen, type When } from '../../core/measure/when.js';
import { formatPixels } from '../../core/measure/units.js';
import { capitalize, formatWindows, getMostOver, nameElement } from '../../core/words/list.js';
import { listRanges } from '../../core/search/ranges.js';

interface Data {
  blame: WidthBlame;
}

type Measured = {
  overhang: number;
  side: 'left' | 'right';
  slotWidth: number;
  elementWidth: number;
  at: When;
};

export default defineCheck({
  id: 'slot-overflow',
  subject: 'page',
  level: 'concern',
  title: 'The snippet is wider than its slot',
  decided:
    'A visible part of the snippet (a painted box, or text with the room it has) reaches beyond the slot’s content box by more than 1 px, on either side, although the page does not scroll sideways.',
  standard: 'WCAG 2.2, 1.4.10 Reflow',
  needs: ['slot', 'elements', 'page', 'causes', 'widths'],
  markup: false,
  tooWide: () => true,
  judge({ markup, renders }): Fact<Data, Measured>[] {
    const sighted = flatMap(renders, (render) =>
      listSlotCulprits(render).map((culprit) => {
        const { element, overhang, side } = culprit;
        const cause = findCause(render.causes, aimAt(culprit));
        const { width } = render.slot.box;
        const blame = blameWidth(markup, element, { causes: render.causes, cause, room: width });
        const elementWidth = element.box.width;
        const at = getWhen(culprit, render.page);
        const measured = { overhang, side, slotWidth: width, elementWidth, at };
        const fact = tell.seen(blame, { blame }, makeSeen(render, measured), {
          group: '',
          byContent: blame.reason === 'content' || blame.reason === 'text',
          ranges: listRanges(renders, render.at, 'slot', element),
        });
        return { fact, causes: render.causes, cause };
      }),
    );
    const tried = renders.map(({ causes }) => causes);
    return settleCures(markup, sighted, tried);
  },
  says(data, fact) {
    const by = formatPixels(getMostOver(fact));
    return {
      message: `${capitalize(nameElement(data.blame.tag, fact.culprit))} reaches up to ${by} beyond its slot ${formatWindows(fact)}.`,
      notice: 'It runs over what stands beside the column, or over the page’s edge.',
      cure: cureWidth(data.blame),
    };
  },
  measures: ({ overhang, side, slotWidth, at }) =>
    `${formatPixels(overhang)} beyond the slot of ${formatPixels(slotWidth)}, on the ${side}${describeWhen(at)}`,
  mend: ({ blame }) => blame.cure,
  brief({ blame }, fact) {
    const by = formatPixels(getMostOver(fact));
    return `<${blame.tag}> ${by} beyond its slot`;
  },
  samples: SAMPLE_WIDTH_BLAMES.map((blame) => ({ blame })),
  examples: {
    faulty: [
      {
        name: 'a box a little too wide',
        code: '<div style="width: calc(100% + 10px)">Seed swap in May</div>',
      },
      {
        name: 'out to the left',
        code: '<div style="margin-left: -8px; background: #3d5a73; color: #fff">Seed swap in May</div>',
      },
      {
        name: 'padding on top of the full width',
        code: '<style>.swap { width: 100%; padding: 0 6px; }</style><div class="swap">Seed swap in May</div>',
      },
    ],
    sound: [
      {
        name: 'a row that is wider only for its gaps',
        code: '<style>.row { display: flex; margin: 0 -10px; } .row p { padding: 0 10px; flex: 1; }</style><div class="row"><p>Sow in May</p><p>Water well</p></div>',
      },
      {
        name: 'a part that is closed',
        code: '<details><summary>Beds</summary><div style="width: calc(100% + 10px)">Seed swap in May</div></details>',
      },
      {
        name: 'padding inside the full width',
        code: '<div style="width: 100%; padding: 0 6px; box-sizing: border-box">Seed swap in May</div>',
      },
      {
        name: 'text for screen readers, parked off screen',
        code: '<p>Beds<span style="position: absolute; left: -9999px">, opens in a new window</span></p>',
      },
    ],
  },
});
