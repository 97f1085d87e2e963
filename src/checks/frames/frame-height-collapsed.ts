import {
  defineCheck,
  makeSeen,
  type Case,
  type Fact,
  type Seen,
  type MarkupFact,
} from '../../core/check.js';
import type { FrameFact } from '../../core/evidence.js';
import { flatMap } from '../../core/lists.js';
import { blameElement, getBlamed } from '../../core/measure/blame.js';
import { findOneHeight, isFramedPlayer } from '../../core/measure/framed.js';
import { isHidden } from '../../core/markup/hidden.js';
import { isPlayer } from '../../core/standards/elements.js';
import { findProportion, mendHeight } from '../../core/mend/height.js';
import { formatPixels } from '../../core/measure/units.js';
import {
  getAttribute,
  getTagSpan,
  getValue,
  listAround,
  type Markup,
  type MarkupElement,
} from '../../core/markup/markup.js';
import { findDeclaration } from '../../core/markup/styles.js';
import type { Span } from '../../core/snippet.js';
import { tell } from '../../core/tell.js';
import { formatWidths, getMost } from '../../core/words/list.js';

interface Data {
  /** As written; null where no height is stated. */
  written: string | null;
  player: boolean;
  /** The height that fits its document in all windows, px; null where there is none. */
  needed: number | null;
  /** Its document fills whatever it is given. */
  fills: boolean;
}

type Measured = { height: number };

/** The height of a frame for which none is stated, px (CSS 2.2, 10.6.2). */
const DEFAULT = 150;
const BORDER = 4;

export default defineCheck({
  id: 'frame-height-collapsed',
  subject: 'frames',
  level: 'concern',
  title: 'A frame’s height collapses',
  decided:
    'Its height is a percentage, or none is stated, and it comes out as the default of 150 px or less. Not where no height is stated and its document has a height of its own, which fits.',
  standard: 'CSS 2.2, 10.5 and 10.6.2',
  needs: ['frames'],
  markup: 'part',
  judge: (c) =>
    flatMap(c.renders, (render) => flatMap(render.frames, (frame) => judgeFrame(c, render, frame))),
  unrendered: ({ markup }) => tellLostHeights(markup),
  says: ({ written, player, needed }, { seen }) => ({
    message: describeHeight(written, seen),
    notice: 'Only a strip of its document is to be seen.',
    cure: describeCure(player, needed),
  }),
  mend({ player, needed, fills }, { culprit }, markup) {
    const element = getBlamed(markup, { culprit });
    // What it shows is not known else.
    if (!element || !(player || fills || needed !== null)) return null;
    const height = needed === null ? 'auto' : `${needed}px`;
    const ratio = findProportion({}, player ? null : 4 / 3);
    return mendHeight(markup, element, {
      height,
      ...(needed === null && { 'aspect-ratio': ratio }),
    });
  },
  measures: ({ height }) => `${formatPixels(height)} high`,
  brief: (_data, { seen }) => `a frame only ${getHeight(seen)} high`,
  samples: [
    { written: 'height: 100%', player: false, needed: null, fills: false },
    { written: 'height: 100%', player: false, needed: 480, fills: false },
    { written: null, player: true, needed: null, fills: false },
  ],
  examples: {
    faulty: [
      {
        name: 'as high as something without a height',
        code: '<iframe title="Map of beds" src="https://maps.fernmap.example/embed/glasshouse" style="border: 0; width: 100%; height: 100%"></iframe>',
      },
    ],
    sound: [
      {
        name: 'as high as something that has one',
        code: '<div style="height: 300px"><iframe title="Map of beds" src="https://maps.fernmap.example/embed/glasshouse" style="border: 0; width: 100%; height: 100%"></iframe></div>',
      },
      {
        name: 'low on purpose',
        code: '<iframe title="Opening hours" srcdoc="<p style=\'margin: 0; height: 60px\'>Open on weekdays.</p>" style="border: 0; width: 100%; height: 80px"></iframe>',
      },
    ],
  },
});

/** What gives a frame a height besides its own. */
const OTHERS = /^(min-height|aspect-ratio|position|flex|align-self|inset)/;

/** A part of the height of what has none is no height (CSS 2.2, 10.5). */
function tellLostHeights(markup: Markup): MarkupFact<Data>[] {
  return flatMap(markup.elements, (element): MarkupFact<Data>[] => {
    if (element.name !== 'iframe' || isHidden(markup, element)) return [];
    const stated = findHeight(markup, element, null);
    const shows = ['src', 'srcdoc'].some((name) => getValue(element, name) !== null);
    const others = findDeclaration(markup, element, OTHERS);
    if (!stated?.percent || !shows || others) return [];
    if (listAround(element.parent).some((one) => mayHaveHeight(markup, one))) return [];
    const { culprit } = blameElement(markup, { from: element, selector: null });
    const { offset, endOffset } = stated.span;
    const written = markup.text.slice(offset, endOffset);
    const player = isPlayer({ name: 'iframe', get: (name) => getValue(element, name) });
    const data = { written, player, needed: null, fills: false };
    return [tell.markup({ where: stated.span, culprit }, data, { group: '' })];
  });
}

/** Whether anything may give it a height of its own. */
function mayHaveHeight(markup: Markup, element: MarkupElement): boolean {
  const set = /height$|block-size$|^(position|display|flex|grid|aspect-ratio|inset|all)\b/;
  return getAttribute(element, 'height') !== null || findDeclaration(markup, element, set) !== null;
}

function describeCure(player: boolean, needed: number | null): string {
  if (player) return 'Let it keep its shape: `width: 100%; height: auto; aspect-ratio: 16 / 9`.';
  return needed === null
    ? 'State a height: in px, or as a proportion, such as `height: auto; aspect-ratio: 4 / 3`.'
    : `State the height that its document needs: \`height: ${needed}px\`.`;
}

function describeHeight(written: string | null, seen: readonly Seen<Measured>[]): string {
  if (seen.length === 0)
    return `\`${written}\` is a part of nothing: what the frame stands in has no height of its own.`;
  const [high, widths] = [getHeight(seen), formatWidths(seen)];
  return written
    ? `\`${written}\` comes to nothing here: the frame is ${high} high (${widths}).`
    : `No height is stated: the frame is ${high} high (${widths}).`;
}

function getHeight(seen: readonly Seen<Measured>[]): string {
  return formatPixels(getMost(seen, 'height'));
}

function judgeFrame(
  { markup, renders }: Case<'frames'>,
  render: Case<'frames'>['renders'][number],
  frame: FrameFact,
): Fact<Data, Measured>[] {
  const { box, shown, inner } = frame;
  const blame = blameElement(markup, frame);
  const element = getBlamed(markup, blame);
  const shows = ['src', 'srcdoc', 'data'].some((name) => frame.attributes[name] !== undefined);
  if (!element || !shown || !shows || box.height <= BORDER || box.height > DEFAULT + BORDER)
    return [];
  const stated = findHeight(markup, element, render.viewport.width);
  if (stated !== null && !stated.percent) return [];
  // What fills whatever it gets fits a strip too.
  const natural = inner?.natural ?? null;
  const fits = inner && natural !== null && natural <= inner.height + 1;
  if (stated === null && (fits || Math.abs(box.height - DEFAULT) > BORDER)) return [];
  const where = stated?.span ?? getTagSpan(element);
  const written = stated && markup.text.slice(where.offset, where.endOffset);
  return [
    tell.seen(
      { ...blame, where },
      {
        written,
        player: isFramedPlayer(frame),
        needed: findOneHeight(renders, frame),
        fills: inner !== null && natural === null,
      },
      makeSeen(render, { height: box.height }),
      { group: '' },
    ),
  ];
}

/** What states a frame's height, at a width of the window; null where nothing does. */
function findHeight(
  markup: Markup,
  element: MarkupElement,
  width: number | null,
): { span: Span; percent: boolean } | null {
  const declared = findDeclaration(
    markup,
    element,
    /^((min|max)-)?height$|^aspect-ratio$|^position$|^inset/,
    width,
  );
  if (declared && declared.property !== 'height') return { span: declared, percent: false };
  const attribute = getAttribute(element, 'height');
  const stated = declared ?? attribute;
  if (!stated || declared?.value === 'auto') return null;
  const { offset, endOffset } = stated;
  const value = declared?.value ?? getValue(element, 'height') ?? '';
  return { span: { offset, endOffset }, percent: /^\s*[\d.]+%\s*$/.test(value) };
}
