import { defineCheck, makeSeen, type Case, type Fact, type RenderOf } from '../../core/check.js';
import type { Box, ElementStyle, FrameFact, MediaFact, Source } from '../../core/evidence.js';
import { getSlotRange, type House } from '../../core/house/house.js';
import { mendWidth } from '../../core/mend/width.js';
import { blameElement, type Blame } from '../../core/measure/blame.js';
import { blameWidth, SAMPLE_WIDTH_BLAME, type WidthBlame } from '../../core/measure/blame-width.js';
import { formatPixels } from '../../core/measure/units.js';
import {
  getAttribute,
  getValue,
  type Markup,
  type MarkupElement,
} from '../../core/markup/markup.js';
import { describeElement } from '../../core/markup/names.js';
import { FRAMES, isPlayer, type Described } from '../../core/standards/elements.js';
import { findDeclaration, type StyleDeclaration } from '../../core/markup/styles.js';
import { formatWidths } from '../../core/words/list.js';
import { cureWidth } from '../../core/words/width.js';

interface Data {
  width: number;
  blame: WidthBlame;
}

type Needs = 'frames' | 'media' | 'slot';

export default defineCheck({
  id: 'frame-fixed-size',
  subject: 'frames',
  level: 'concern',
  title: 'A frame or player has a fixed width',
  decided:
    'Its width is given in px, and it is measured equally wide at every width; withdrawn where CSS lets it shrink. Players always, other frames from half the narrowest slot on.',
  standard: 'WCAG 2.2, 1.4.10 Reflow',
  needs: ['frames', 'media', 'slot'],
  markup: true,
  judge: (c) => (c.renders.length === 0 ? judgeMarkup(c) : judgeRenders(c)),
  says(data, fact) {
    return {
      message: `The <${data.blame.tag}> ${describe(data.width, fact)}.`,
      notice:
        'It does not adapt: too wide for a phone, or small and to one side on a large screen.',
      cure: cureWidth(data.blame),
    };
  },
  measures: ({ width, slotWidth }) =>
    `${formatPixels(Number(width))} wide in a slot of ${formatPixels(Number(slotWidth))}`,
  brief: ({ blame, width }) => `<${blame.tag}> with a fixed width of ${formatPixels(width)}`,
  mend: ({ blame }, _fact, markup) => mendWidth(markup, blame),
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
        code: '<style>.map { border: 0; width: 260px; height: 200px; }</style><iframe class="map" title="Map of the glasshouse" src="https://maps.fernmap.example/embed/glasshouse"></iframe>',
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

interface Sized {
  from: Source;
  selector: string | null;
  tag: string;
  width: number;
  height: number;
  box: Box;
  style: ElementStyle;
  player: boolean;
}

function judgeRenders(c: Case<Needs>): Fact<Data>[] {
  const narrowest = Math.min(...c.renders.map(({ slot }) => slot.box.width || Infinity));
  const sightings = new Map<string, { render: RenderOf<Needs>; sized: Sized }[]>();
  for (const render of c.renders) {
    for (const sized of listSized(render)) {
      const key = JSON.stringify([sized.from, sized.selector]);
      sightings.set(key, [...(sightings.get(key) ?? []), { render, sized }]);
    }
  }
  return [...sightings.values()].flatMap((seen) => judgeOne(c, seen, narrowest));
}

function judgeOne(
  c: Case<Needs>,
  seen: { render: RenderOf<Needs>; sized: Sized }[],
  narrowest: number,
): Fact<Data>[] {
  const { sized } = seen[0]!;
  const same = seen.every((one) => Math.abs(one.sized.width - sized.width) <= 1);
  const fixed = seen.every((one) => isFixed(one.sized.style));
  const counts = sized.player || sized.width > narrowest / 2;
  if (!same || !fixed || !counts) return [];
  const { slot, viewport } = seen[0]!.render;
  const blame = blameWidth(c.markup, sized, { room: slot.box.width, window: viewport.width });
  const { where, culprit } = blame;
  return [
    {
      where,
      culprit,
      // One width alone cannot show that it stays the same.
      confirmed: new Set(seen.map(({ render }) => render.slot.box.width)).size > 1,
      data: { width: sized.width, blame },
      seen: seen.map(({ render, sized: { width, height } }) =>
        makeSeen(render, { width, height, slotWidth: render.slot.box.width }),
      ),
    },
  ];
}

function listSized({ frames, media }: RenderOf<Needs>): Sized[] {
  const of = (fact: FrameFact | MediaFact, player: boolean): Sized => ({
    from: fact.from,
    selector: fact.selector,
    tag: fact.tag,
    width: fact.box.width,
    height: fact.box.height,
    box: fact.box,
    style: fact.style,
    player,
  });
  return [
    ...frames
      .filter((frame) => frame.shown)
      .map((frame) => of(frame, isPlayer(toDescribed(frame)))),
    ...media.filter((one) => one.shown && one.tag === 'video').map((one) => of(one, true)),
  ].filter(({ width }) => width > 0);
}

/** A width in px that nothing relative bounds. */
function isFixed({ width, maxWidth }: ElementStyle): boolean {
  const bounded = /%|vw|vi|min\(|max\(|clamp\(|calc\(/.test(maxWidth);
  return /^[\d.]+px$/.test(width) && !bounded;
}

function judgeMarkup(c: Case<Needs>): Fact<Data>[] {
  const narrowest = getNarrowestSlot(c.house);
  return c.markup.elements
    .filter(({ name }) => FRAMES.has(name) || name === 'video')
    .flatMap((element): Fact<Data>[] => {
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
      const data = { width, blame: toWidthBlame(c.markup, element, found, declared) };
      const { culprit } = found;
      return [{ where: found.where, culprit, confirmed: false, data, seen: [] }];
    });
}

function getNarrowestSlot(house: House): number {
  const widths = house.slots.flatMap((slot) =>
    house.viewports.flatMap(({ width }) => {
      const range = getSlotRange(slot, width);
      if (!range) return [];
      const room = width - 2 * range.inset;
      return [range.width === 'full' ? room : Math.min(range.width, room)];
    }),
  );
  return Math.min(...widths);
}

/** From one width alone nobody can tell. */
function describe(measured: number, { confirmed, seen }: Fact<Data>): string {
  const width = formatPixels(measured);
  if (confirmed) return `stays ${width} wide, whatever room it has (seen ${formatWidths(seen)})`;
  return seen.length > 0
    ? `is ${width} wide ${formatWidths(seen)}; one width only: cannot tell whether it adapts`
    : `has a fixed width of ${width} in the markup`;
}

function toDescribed({ tag, attributes }: FrameFact): Described {
  return { name: tag, get: (attribute) => attributes[attribute] ?? null };
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
