import { defineCheck, makeSeen, type Case, type Fact, type RenderOf } from '../../core/check.js';
import type { Box, ElementStyle, FrameFact, MediaFact, Source } from '../../core/evidence.js';
import { getSlotRange, type House } from '../../core/house/house.js';
import { mendStyle, mendWidth } from '../../core/mend/width.js';
import {
  blameElement,
  blameWidth,
  getBlamed,
  SAMPLE_BLAME,
  type Blame,
} from '../../core/measure/blame.js';
import { formatPixels } from '../../core/measure/units.js';
import {
  getAttribute,
  getValue,
  type Markup,
  type MarkupElement,
} from '../../core/markup/markup.js';
import { FRAMES } from '../../core/standards/elements.js';
import { findDeclaration } from '../../core/markup/styles.js';
import { formatWidths } from '../../core/words/list.js';
import type { Intent } from '../../core/mend/intent.js';

interface Data {
  tag: string;
  width: number;
  height: number | null;
  blame: Blame;
}

type Needs = 'frames' | 'media' | 'slot';

const PLAYER_ADDRESS = /(^|[/.?&=_-])(player|video|watch|autoplay)([/.?&=_-]|$)/i;

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
    const width = formatPixels(data.width);
    const measured = fact.confirmed
      ? `measured ${width} ${formatWidths(fact.seen)}`
      : `${width} in the markup`;
    return {
      message: `The <${data.tag}> has a fixed width: ${measured}, whatever the room it has.`,
      notice:
        'It does not adapt: too wide for a phone, or small and to one side on a large screen.',
      cure: `Give it width: 100% and max-width: ${width}, with an aspect-ratio for the height.`,
    };
  },
  mend: (data, _fact, markup) => mend(data, markup),
  sample: {
    tag: 'iframe',
    width: 640,
    height: 360,
    blame: SAMPLE_BLAME,
  },
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
  const blame = blameWidth(c.markup, sized);
  const { where, culprit } = blame;
  return [
    {
      where,
      culprit,
      // One width alone cannot show that it stays the same.
      confirmed: new Set(seen.map(({ render }) => render.slot.box.width)).size > 1,
      data: { tag: sized.tag, width: sized.width, height: sized.height, blame },
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
    ...frames.filter((frame) => frame.shown).map((frame) => of(frame, isPlayer(frame.attributes))),
    ...media.filter((one) => one.shown && one.tag === 'video').map((one) => of(one, true)),
  ].filter(({ width }) => width > 0);
}

/** A player by what it asks for, or by what its address says it is. */
function isPlayer(attributes: Record<string, string | undefined>): boolean {
  if ('allowfullscreen' in attributes) return true;
  if (/(^|;)\s*(autoplay|fullscreen|picture-in-picture)\b/.test(attributes.allow ?? ''))
    return true;
  return PLAYER_ADDRESS.test(attributes.src ?? attributes.data ?? '');
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
      const attributes = Object.fromEntries(
        element.attributes.map(({ name, value }) => [name, value]),
      );
      if (element.name !== 'video' && !isPlayer(attributes) && width <= narrowest / 2) return [];
      const blame = blameElement(c.markup, { from: { offset: element.offset }, selector: null });
      const where = declared ?? getAttribute(element, 'width') ?? blame.where;
      const height = parseFloat(getValue(element, 'height') ?? '') || null;
      const span = { offset: where.offset, endOffset: where.endOffset };
      const data = { tag: element.name, width, height, blame: { ...blame, declaration: declared } };
      return [{ where: span, culprit: blame.culprit, confirmed: false, data, seen: [] }];
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

function mend({ tag, width, height, blame }: Data, markup: Markup): Intent[] | null {
  if (blame.declaration || !height || tag === 'video') return mendWidth(markup, blame);
  const element = getBlamed(markup, blame);
  const own = tag === 'iframe' ? getInner(element, width, height) : { width, height };
  return mendStyle(markup, blame, {
    width: '100%',
    'max-width': `${own.width}px`,
    height: 'auto',
    'aspect-ratio': `${own.width} / ${own.height}`,
    'box-sizing': 'border-box',
  });
}

/** The size as written, without the borders that were measured with it. */
function getInner(element: MarkupElement | null, width: number, height: number) {
  const of = (name: string, measured: number) =>
    parseFloat((element && getValue(element, name)) ?? '') || measured;
  return { width: of('width', width), height: of('height', height) };
}
