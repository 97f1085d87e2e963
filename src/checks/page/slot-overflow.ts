import { defineCheck, makeSeen, type Fact } from '../../core/check.js';
import { blameWidth, mendWidth, type Blame } from '../../core/measure/blame.js';
import { findCulprits, TOLERANCE } from '../../core/measure/culprits.js';
import { formatPixels } from '../../core/measure/units.js';
import { formatWidths, getWorstSeen, nameElement } from '../../core/words/list.js';

interface Data {
  tag: string;
  blame: Blame;
}

export default defineCheck({
  id: 'slot-overflow',
  subject: 'page',
  level: 'concern',
  title: 'The snippet is wider than its slot',
  decided:
    'A visible part of the snippet reaches beyond the slot’s content box by more than 1 px, although the page does not scroll sideways.',
  standard: 'WCAG 2.2, 1.4.10 Reflow',
  needs: ['slot', 'elements', 'page'],
  markup: false,
  judge(c): Fact<Data>[] {
    return c.renders.flatMap(({ render, slot, elements, page }) => {
      const { x, width } = slot.box;
      if (width === 0) return [];
      const wish = { left: x, right: x + width, direction: page.direction, shownOnly: true };
      const wide = elements.filter((element) => !isParked(element.box, page.atLoad.clientWidth));
      return findCulprits(wide, wish).map(({ element, overhang, by }) => {
        const blame = blameWidth(c.markup, element, { by, room: width });
        const measured = { overhang, slotWidth: width, elementWidth: element.box.width };
        const { where, subject, made } = blame;
        const seen = [makeSeen(render, measured)];
        return {
          where,
          subject,
          group: '',
          ...(made !== undefined && { made }),
          confirmed: true,
          data: { tag: element.tag, blame },
          seen,
        };
      });
    });
  },
  says(data, fact) {
    const worst = getWorstSeen(fact.seen, 'overhang');
    const by = formatPixels(Number(worst?.measured.overhang ?? 0));
    return {
      message: `${upper(nameElement(data.tag, fact.made))} reaches up to ${by} beyond its slot ${formatWidths(fact.seen)}.`,
      notice: 'It runs over what stands beside the column, or over the page’s edge.',
      cure: 'Let it shrink with its slot: max-width: 100%, and no fixed width.',
    };
  },
  mend: (data) => mendWidth(data.blame),
  sample: {
    tag: 'div',
    blame: { where: { offset: 0, endOffset: 0 }, subject: '', element: null, declaration: null },
  },
  examples: {
    faulty: [
      {
        name: 'a box a little too wide',
        code: '<div style="width: calc(100% + 10px)">Seed swap in May</div>',
      },
      {
        name: 'padding on top of the full width',
        code: '<style>.swap { width: 100%; padding: 0 6px; }</style><div class="swap">Seed swap in May</div>',
      },
    ],
    sound: [
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

/** Parked where nobody sees it: wholly outside the window. */
function isParked(box: { x: number; width: number }, windowWidth: number): boolean {
  return box.x + box.width <= TOLERANCE || box.x >= windowWidth;
}

function upper(text: string): string {
  return text.charAt(0).toUpperCase() + text.slice(1);
}
