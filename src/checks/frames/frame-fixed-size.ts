import {
  defineCheck,
  makeSeen,
  type Case,
  type Fact,
  type RenderOf,
  type MarkupFact,
} from '../../core/check.js';
import type { CauseFact } from '../../core/evidence.js';
import { flatMap, groupBy } from '../../core/lists.js';
import { getSlotRange, type House } from '../../core/house/house.js';
import { blameElement, type Blame } from '../../core/measure/blame.js';
import { blameWidth, SAMPLE_WIDTH_BLAME, type WidthBlame } from '../../core/measure/blame-width.js';
import type { Intent } from '../../core/mend/intent.js';
import { shrinkStated } from '../../core/mend/width.js';
import { isFixed, listSized, type Sized } from '../../core/measure/sized.js';
import { formatPixels } from '../../core/measure/units.js';
import {
  getAttribute,
  getValue,
  listAround,
  type Markup,
  type MarkupElement,
} from '../../core/markup/markup.js';
import { describeElement } from '../../core/markup/names.js';
import { FRAMES, isPlayer } from '../../core/standards/elements.js';
import { findDeclaration, type StyleDeclaration } from '../../core/markup/styles.js';
import { getElementKey } from '../../core/search/spans.js';
import { tell } from '../../core/tell.js';
import { isFound } from '../../core/trial/cause.js';
import { settleCures, type Sighted } from '../../core/trial/settle.js';
import { aimAtSized, findCause } from '../../core/trial/targets.js';
import { findStated } from '../../core/trial/stated.js';
import { listOnTag, listSuspects, type Suspect } from '../../core/trial/suspects.js';
import { formatWidths } from '../../core/words/list.js';
import { cureWidth } from '../../core/words/width.js';

interface Data {
  width: number;
  blame: WidthBlame;
}

type Measured = Record<'width' | 'height' | 'slotWidth', number>;

type Needs = 'frames' | 'media' | 'slot' | 'causes';

export default defineCheck({
  id: 'frame-fixed-size',
  subject: 'frames',
  level: 'concern',
  title: 'A frame or player has a fixed width',
  decided:
    'Its width is given in px, and it is measured equally wide at every width; withdrawn where CSS lets it shrink. Players always, other frames from half the narrowest slot on.',
  standard: 'WCAG 2.2, 1.4.10 Reflow',
  needs: ['frames', 'media', 'slot', 'causes'],
  markup: true,
  explains: [{ findings: ['too-small-on-phone'] }],
  judge: judgeRenders,
  unrendered: tellStatedWidths,
  says(data, fact) {
    return {
      message: `The <${data.blame.tag}> ${describeWidth(data.width, fact)}.`,
      notice:
        'It does not adapt: too wide for a phone, or small and to one side on a large screen.',
      cure: cureWidth(data.blame),
    };
  },
  measures: ({ width, slotWidth }) =>
    `${formatPixels(width)} wide in a slot of ${formatPixels(slotWidth)}`,
  brief: ({ blame, width }) => `<${blame.tag}> with a fixed width of ${formatPixels(width)}`,
  mend: ({ blame }) => blame.cure,
  samples: [
    { width: 640, blame: { ...SAMPLE_WIDTH_BLAME, tag: 'iframe', attribute: 'width="640"' } },
  ],
  examples: {
    faulty: [
      {
        name: 'a map of 280 px',
        code: '<iframe title="Map of the glasshouse" src="https://maps.fernmap.example/embed/glasshouse" width="280" height="200" style="border: 0"></iframe>',
      },
      {
        name: 'a width in the style sheet',
        code: '<style>.map { border: 0; width: 280px; height: 200px; }</style><iframe class="map" title="Map of the glasshouse" src="https://maps.fernmap.example/embed/glasshouse"></iframe>',
      },
    ],
    sound: [
      {
        name: 'the same, free to shrink',
        code: '<iframe title="Map of the glasshouse" src="https://maps.fernmap.example/embed/glasshouse" width="280" height="200" style="border: 0; max-width: 100%"></iframe>',
      },
      {
        name: 'a small badge',
        code: '<iframe title="Seed swap badge" src="https://maps.fernmap.example/embed/badge" width="88" height="31" style="border: 0"></iframe>',
      },
    ],
  },
});

type Sighting = { render: RenderOf<Needs>; sized: Sized };

function judgeRenders(c: Case<Needs>): Fact<Data, Measured>[] {
  const narrowest = Math.min(...c.renders.map(({ slot }) => slot.box.width || Infinity));
  const all = flatMap(c.renders, (render) =>
    listSized(render).map((sized): Sighting => ({ render, sized })),
  );
  const sightings = groupBy(all, ({ sized }) => getElementKey(sized));
  const sighted = flatMap(sightings.values(), (seen) => judgeOne(c.markup, seen, narrowest));
  return settleCures(
    c.markup,
    sighted,
    c.renders.map(({ causes }) => causes),
  );
}

function judgeOne(
  markup: Markup,
  seen: readonly Sighting[],
  narrowest: number,
): Sighted<Data, Measured>[] {
  const { sized } = seen[0]!;
  const { width } = sized.box;
  const same = seen.every((one) => Math.abs(one.sized.box.width - width) <= 1);
  const fixed = seen.every((one) => isFixed(one.sized));
  const counts = sized.player || width > narrowest / 2;
  if (!same || !fixed || !counts) return [];
  // One width alone cannot show that it stays the same.
  const doubtful = new Set(seen.map(({ render }) => render.slot.box.width)).size < 2;
  // What makes it so is the same everywhere: the place where it was found counts.
  const known = seen.map(findFixing);
  const at = Math.max(
    0,
    known.findIndex((one) => one !== null && isFound(one)),
  );
  const { causes } = seen[at]!.render;
  const blame = blameWidth(markup, sized, { causes, cause: known[at]!, room: 0 });
  return seen.map(({ render, sized: { box } }, i) => {
    const measured = { width: box.width, height: box.height, slotWidth: render.slot.box.width };
    const data = { width, blame };
    const fact = tell.seen(blame, data, makeSeen(render, measured), { doubtful });
    return { fact, causes: render.causes, cause: known[i]! };
  });
}

/** What keeps it from shrinking, in one render. */
function findFixing({ render: { causes, slot }, sized }: Sighting): CauseFact | null {
  return findCause(causes, aimAtSized(sized, slot));
}

function tellStatedWidths(c: Case<Needs>): MarkupFact<Data>[] {
  const narrowest = getNarrowestSlot(c.house);
  return flatMap(
    c.markup.elements.filter(({ name }) => FRAMES.has(name) || name === 'video'),
    (element): MarkupFact<Data>[] => {
      const declared = findDeclaration(c.markup, element, ['width']);
      const bound = findDeclaration(c.markup, element, ['max-width']);
      const written = declared?.value ?? getValue(element, 'width') ?? '';
      const width = /^[\d.]+(px)?$/.test(written.trim()) ? parseFloat(written) : null;
      if (width === null || width === 0 || (bound && /%|vw|min\(|calc\(/.test(bound.value)))
        return [];
      const player = element.name === 'video' || isPlayer(describeElement(element));
      if (!player && width <= narrowest / 2) return [];
      const blame = blameElement(c.markup, { from: { offset: element.offset }, selector: null });
      const where = declared ?? getAttribute(element, 'width') ?? blame.where;
      const found = { ...blame, where: { offset: where.offset, endOffset: where.endOffset } };
      const read = toWidthBlame(c.markup, element, found, declared);
      const data = { width, blame: { ...read, cure: mendUnseen(c.markup, element) } };
      const { culprit } = found;
      return [tell.markup({ where: found.where, culprit }, data)];
    },
  );
}

/**
 * What cannot be tried, for nothing is rendered, is certain only where nothing else of the frame's, or of what
 * it stands in, bears on its size.
 */
function mendUnseen(markup: Markup, element: MarkupElement): Intent[] | null {
  const bears = listSuspects(markup, []).length > 0;
  const around = element.parent !== null && listOnTags(markup, element).length > 0;
  const own = listOnTag(markup, element);
  const [stated, ...others] = own.filter(({ property }) => !/^(height|border.*)$/.test(property));
  if (bears || around || !stated || others.length > 0) return null;
  const found = findStated(markup, stated);
  return (found && shrinkStated(markup, element, { ...found, outer: null }).at(-1)) ?? null;
}

function listOnTags(markup: Markup, { parent }: MarkupElement): Suspect[] {
  return flatMap(listAround(parent), (at) => listOnTag(markup, at));
}

function getNarrowestSlot(house: House): number {
  const widths = flatMap(house.slots, (slot) =>
    flatMap(house.viewports, ({ width }) => {
      const range = getSlotRange(slot, width);
      if (!range) return [];
      const room = width - 2 * range.inset;
      return [range.width === 'full' ? room : Math.min(range.width, room)];
    }),
  );
  return Math.min(...widths);
}

/** From one width alone nobody can tell. */
function describeWidth(measured: number, { doubtful, seen }: Fact<Data, Measured>): string {
  const width = formatPixels(measured);
  if (seen.length > 0 && !doubtful)
    return `stays ${width} wide, whatever room it has (seen ${formatWidths(seen)})`;
  return seen.length > 0
    ? `is ${width} wide ${formatWidths(seen)}; one width only: cannot tell whether it adapts`
    : `has a fixed width of ${width} in the markup`;
}

function toWidthBlame(
  { text }: Markup,
  { name }: MarkupElement,
  blame: Blame,
  declaration: StyleDeclaration | null,
): WidthBlame {
  const { offset, endOffset } = blame.where;
  const attribute = declaration ? null : text.slice(offset, endOffset);
  return { ...SAMPLE_WIDTH_BLAME, ...blame, declaration, attribute, tag: name };
}
