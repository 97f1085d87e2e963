import { defineCheck, makeSeen, type Fact } from '../../core/check.js';
import { flatMap } from '../../core/lists.js';
import { blameElement, getBlamed } from '../../core/measure/blame.js';
import { listOffCentre } from '../../core/measure/centre.js';
import { formatPixels } from '../../core/measure/units.js';
import { tell } from '../../core/tell.js';
import { capitalize, formatWidths, getWorstSeen, nameElement } from '../../core/words/list.js';

interface Data {
  tag: string;
  /** How the slot is aligned. */
  align: 'start' | 'center' | 'end';
  /** Automatic margins put it elsewhere for sure. */
  movable: boolean;
  /** It is a block already. */
  block: boolean;
}

type Measured = Record<'before' | 'after' | 'width' | 'apart', number>;

export default defineCheck({
  id: 'off-centre',
  subject: 'page',
  level: 'advice',
  title: 'A block stands to one side of its slot',
  decided:
    'A block is narrower than the slot, and the gaps beside it differ by more than a quarter of the free space. In a slot that is aligned to its start that counts for frames and players only that are wider than half of it; in one aligned to its center, or its end, for whatever stands elsewhere.',
  standard: null,
  needs: ['slot', 'elements', 'frames', 'media', 'page'],
  markup: false,
  judge: ({ markup, house, renders }) =>
    flatMap(renders, (render) => {
      const align = house.slots.find(({ name }) => name === render.at.slot)?.align ?? 'start';
      return listOffCentre(render, align).map(
        ({ block, movable, before, after }): Fact<Data, Measured> => {
          const blame = blameElement(markup, block);
          const measured = {
            before,
            after,
            width: block.box.width,
            apart: Math.abs(before - after),
          };
          const isBlock = !/^inline/.test(block.style.display);
          return tell.seen(
            blame,
            { tag: block.tag, align, movable, block: isBlock },
            makeSeen(render, measured),
            { group: '' },
          );
        },
      );
    }),
  says({ tag, align, block }, { seen, culprit }) {
    const worst = getWorstSeen(seen, 'apart')?.measured;
    const [before, after] = [worst?.before, worst?.after].map((px = 0) => formatPixels(px));
    const place = align === 'end' ? 'at the end' : 'in the middle';
    const name = nameElement(tag, culprit);
    return {
      message: `${capitalize(name)} does not stand ${place} of its slot: ${before} are free before it and ${after} behind it (${formatWidths(seen)}).`,
      notice: 'It stands to one side, as if something were missing beside it.',
      cure: block
        ? `Let its margins share what is free: \`${getMargins(align)}\`.`
        : `Make it a block whose margins share what is free: \`display: block; ${getMargins(align)}\`.`,
    };
  },
  mend({ align, movable, block }, { culprit }, markup) {
    if (!movable) return null;
    const element = getBlamed(markup, { culprit });
    if (!element) return null;
    const margins = { 'margin-left': 'auto', 'margin-right': align === 'end' ? '0' : 'auto' };
    const declarations = { ...(!block && { display: 'block' }), ...margins };
    return [{ do: 'set-style', element: element.offset, declarations }];
  },
  measures: ({ before, after }) =>
    `${formatPixels(before)} free before it, ${formatPixels(after)} behind it`,
  samples: [
    { tag: 'iframe', align: 'start', movable: true, block: false },
    { tag: 'div', align: 'end', movable: true, block: true },
  ],
  examples: {
    faulty: [
      {
        name: 'a map of three quarters of the width',
        code: '<iframe title="Map of beds" src="https://maps.fernmap.example/embed/glasshouse" style="border: 0; width: 75%; height: 300px"></iframe>',
      },
    ],
    sound: [
      {
        name: 'the same in the middle',
        code: '<iframe title="Map of beds" src="https://maps.fernmap.example/embed/glasshouse" style="display: block; margin: 0 auto; border: 0; width: 75%; height: 300px"></iframe>',
      },
      {
        name: 'a narrow text at the start of its column',
        code: '<p style="width: 75%; height: 40px; margin: 0">Sow thinly and wait.</p>',
      },
    ],
  },
});

function getMargins(align: Data['align']): string {
  return align === 'end' ? 'margin-left: auto; margin-right: 0' : 'margin: 0 auto';
}
