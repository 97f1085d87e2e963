import { defineCheck, makeSeen, type Fact } from '../../core/check.js';
import { mendWidth } from '../../core/mend/width.js';
import {
  blameWidth,
  SAMPLE_WIDTH_BLAMES,
  type WidthBlame,
} from '../../core/measure/blame-width.js';
import { cureWidth } from '../../core/words/width.js';
import type { ElementFact } from '../../core/evidence.js';
import { findCulprits, TOLERANCE, type Culprit } from '../../core/measure/culprits.js';
import { formatPixels } from '../../core/measure/units.js';
import { capitalize, formatWidths, getWorstSeen, nameElement } from '../../core/words/list.js';

interface Data {
  blame: WidthBlame;
}

export default defineCheck({
  id: 'slot-overflow',
  subject: 'page',
  level: 'concern',
  title: 'The snippet is wider than its slot',
  decided:
    'A visible part of the snippet (a painted box, or text with the room it has) reaches beyond the slot’s content box by more than 1 px, on either side, although the page does not scroll sideways.',
  standard: 'WCAG 2.2, 1.4.10 Reflow',
  needs: ['slot', 'elements', 'page'],
  markup: false,
  tooWide: () => true,
  judge(c): Fact<Data>[] {
    return c.renders.flatMap((render) => {
      const { slot, elements, page } = render;
      const { x, width } = slot.box;
      if (width === 0) return [];
      const wide = elements.filter((element) => !isParked(element.box, page.atLoad.clientWidth));
      return findOutside(wide, { left: x, right: x + width }).map((culprit) => {
        const { element, overhang, side, by } = culprit;
        const window = render.viewport.width;
        const blame = blameWidth(c.markup, element, { by, side, room: width, window });
        const measured = { overhang, side, slotWidth: width, elementWidth: element.box.width };
        const { where, culprit: to } = blame;
        const seen = [makeSeen(render, measured)];
        return {
          where,
          culprit: to,
          group: '',
          confirmed: true,
          byContent: blame.reason === 'content' || blame.reason === 'text',
          data: { blame },
          seen,
        };
      });
    });
  },
  says(data, fact) {
    const worst = getWorstSeen(fact.seen, 'overhang');
    const by = formatPixels(Number(worst?.measured.overhang ?? 0));
    return {
      message: `${capitalize(nameElement(data.blame.tag, fact.culprit))} reaches up to ${by} beyond its slot ${formatWidths(fact.seen)}.`,
      notice: 'It runs over what stands beside the column, or over the page’s edge.',
      cure: cureWidth(data.blame),
    };
  },
  measures: ({ overhang, side, slotWidth }) =>
    `${formatPixels(Number(overhang))} beyond the slot of ${formatPixels(Number(slotWidth))}, on the ${String(side)}`,
  mend: ({ blame }, _fact, markup) => mendWidth(markup, blame),
  brief({ blame }, { seen }) {
    const by = formatPixels(Number(getWorstSeen(seen, 'overhang')?.measured.overhang ?? 0));
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
        code: '<span style="position: absolute; left: -9999px">Opens in a new window</span>',
      },
    ],
  },
});

type Outside = Culprit & { side: 'left' | 'right' };

/** Who reaches beyond either edge; who reaches beyond both is told of the side where it is farther out. */
function findOutside(
  elements: readonly ElementFact[],
  edges: { left: number; right: number },
): Outside[] {
  const sides = [
    ['right', 'ltr'],
    ['left', 'rtl'],
  ] as const;
  const found = new Map<number, Outside>();
  for (const [side, direction] of sides) {
    for (const culprit of findCulprits(elements, { ...edges, direction, shownOnly: true })) {
      const known = found.get(culprit.element.id);
      if (!known || known.overhang < culprit.overhang)
        found.set(culprit.element.id, { ...culprit, side });
    }
  }
  return [...found.values()];
}

/** Parked where nobody sees it: wholly outside the window. */
function isParked(box: { x: number; width: number }, windowWidth: number): boolean {
  return box.x + box.width <= TOLERANCE || box.x >= windowWidth;
}
