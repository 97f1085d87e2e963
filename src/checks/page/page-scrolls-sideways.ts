import { defineCheck, makeSeen, type Fact, type RenderOf, type Seen } from '../../core/check.js';
import type { PageWidth } from '../../core/evidence.js';
import { mendWidth } from '../../core/mend/width.js';
import { getHead } from '../../core/measure/blame.js';
import {
  blameWidth,
  SAMPLE_WIDTH_BLAME,
  SAMPLE_WIDTH_BLAMES,
  type Reason,
  type WidthBlame,
} from '../../core/measure/blame-width.js';
import { findCulprits, TOLERANCE } from '../../core/measure/culprits.js';
import { formatPixels } from '../../core/measure/units.js';
import type { Span } from '../../core/snippet.js';
import { getTagSpan, type Markup } from '../../core/markup/markup.js';
import { readStyles, type StyleDeclaration } from '../../core/markup/styles.js';
import { cureWidth } from '../../core/words/width.js';
import { formatWidths, getWorstSeen, nameElement } from '../../core/words/list.js';

interface Data {
  blame: WidthBlame;
}

type Needs = 'page' | 'elements' | 'slot';

export default defineCheck({
  id: 'page-scrolls-sideways',
  subject: 'page',
  level: 'blocker',
  title: 'The snippet makes the whole page scroll sideways',
  decided:
    'The page’s scrollable width is larger than the window, by more than 1 px and more than without the snippet: after load, and again after a scroll to the end and back.',
  standard: 'WCAG 2.2, 1.4.10 Reflow; CSS Overflow 3',
  needs: ['page', 'elements', 'slot'],
  markup: false,
  explains: [{ findings: ['slot-overflow', 'frame-wider-than-slot'] }],
  tooWide: () => true,
  judge: (c) => c.renders.flatMap((render) => judgeRender(c.markup, render)),
  says(data, fact) {
    const worst = getWorstSeen(fact.seen, 'overhang');
    const by = formatPixels(Number(worst?.measured.overhang ?? 0));
    const { blame } = data;
    const moves = blame.reason === 'animation' ? 'an animation takes ' : '';
    const what = blame.tag ? nameElement(blame.tag, fact.culprit) : 'the snippet';
    return {
      message: `The page scrolls sideways ${formatWidths(fact.seen)}: ${moves}${what}${moves ? '' : ' reaches'} up to ${by} beyond the window.`,
      notice:
        'On these screens the whole page slides from side to side, and part of it is out of sight.',
      cure: cureWidth(blame),
    };
  },
  measures: ({ overhang, elementWidth, windowWidth }) =>
    typeof elementWidth === 'number'
      ? `${formatPixels(Number(overhang))} beyond the window, ${formatPixels(elementWidth)} wide`
      : `${formatPixels(Number(overhang))} wider than the window of ${formatPixels(Number(windowWidth))}`,
  mend: ({ blame }, _fact, markup) => mendWidth(markup, blame),
  brief({ blame }, { seen }) {
    const by = formatPixels(Number(getWorstSeen(seen, 'overhang')?.measured.overhang ?? 0));
    return `the page scrolls sideways: ${blame.tag ? `<${blame.tag}>` : 'the snippet'} ${by} beyond the window`;
  },
  samples: SAMPLE_WIDTH_BLAMES.map((blame) => ({ blame })),
  examples: {
    faulty: [
      {
        name: 'a box as wide as a desktop',
        code: '<div style="width: 1400px">Spring sowing list</div>',
      },
      {
        name: 'a word that cannot break',
        code: `<p style="white-space: nowrap">${'Sow thinly and water well. '.repeat(12)}</p>`,
      },
    ],
    sound: [
      {
        name: 'a wide box that may shrink',
        code: '<div style="width: 100%; max-width: 1400px">Spring sowing list</div>',
      },
      {
        name: 'a wide table that scrolls by itself',
        code: '<div style="overflow-x: auto"><div style="width: 1400px">Spring sowing list</div></div>',
      },
    ],
  },
});

function judgeRender(markup: Markup, render: RenderOf<Needs>): Fact<Data>[] {
  const { page, elements, baseline } = render;
  const without = baseline?.scrollWidth ?? 0;
  const width = page.readAt === 'after-scroll' && page.afterScroll ? page.afterScroll : page.atLoad;
  if (!overflows(width, without)) return [];
  const overhang = width.scrollWidth - width.clientWidth;
  const measured = {
    overhang,
    scrollWidth: width.scrollWidth,
    windowWidth: width.clientWidth,
    at: page.readAt,
  };
  const wish = {
    left: 0,
    right: Math.max(width.clientWidth, without),
    direction: page.direction,
    shownOnly: false,
  };
  const culprits = findCulprits(elements, wish);
  if (culprits.length === 0) {
    // A page that is not as wide each time is not held against a snippet of which no part sticks out.
    const steady = baseline?.steady ?? true;
    return steady ? [blamePage(markup, makeSeen(render, measured))] : [];
  }
  const side = page.direction === 'rtl' ? 'left' : 'right';
  return culprits.map(({ element, overhang, by }) => {
    const room = width.clientWidth;
    const window = render.viewport.width;
    const found = blameWidth(markup, element, { by, room, side, window });
    // What is mended is to fit its slot too.
    const blame = { ...found, room: render.slot.box.width || room };
    const seen = makeSeen(render, { ...measured, overhang, elementWidth: element.box.width });
    return {
      where: blame.where,
      culprit: blame.culprit,
      group: '',
      confirmed: true,
      byContent: blame.reason === 'content' || blame.reason === 'text',
      data: { blame },
      seen: [seen],
    };
  });
}

/**
 * No element of the snippet sticks out, and yet the page does: a rule of its own widened a host part, or
 * its text, which stands in no element, does not break.
 */
function blamePage(markup: Markup, seen: Seen): Fact<Data> {
  const rule = readStyles(markup).findLast(
    ({ property, value }) => WIDENS.test(property) && /\d/.test(value),
  );
  const sheet = markup.elements.find(({ name }) => name === 'style');
  const where = rule ?? (sheet ? getTagSpan(sheet) : (findLongestWord(markup) ?? getHead(markup)));
  const { offset, endOffset } = where;
  const culprit = { at: 'snippet', what: 'page' } as const;
  const reason = getReason(rule, sheet !== undefined);
  const found = { where: { offset, endOffset }, culprit, reason, tag: '' } as const;
  const blame: WidthBlame = { ...SAMPLE_WIDTH_BLAME, ...found, declaration: rule ?? null };
  return { where: found.where, culprit, confirmed: true, data: { blame }, seen: [seen] };
}

function getReason(rule: StyleDeclaration | undefined, hasSheet: boolean): Reason {
  if (rule) return /width|inline-size/.test(rule.property) ? 'size' : 'place';
  return hasSheet ? 'place' : 'text';
}

/** The longest run of letters outside of all elements. */
function findLongestWord({ text, elements }: Markup): Span | null {
  const bare = [...elements]
    .filter(({ parent }) => parent === null)
    .reduce((rest, { offset, endOffset }) => blank(rest, offset, endOffset), text);
  const words = [...bare.matchAll(/\S+/g)];
  words.sort((a, b) => b[0].length - a[0].length);
  const [longest] = words;
  return longest ? { offset: longest.index, endOffset: longest.index + longest[0].length } : null;
}

function blank(text: string, from: number, to: number): string {
  return text.slice(0, from) + ' '.repeat(to - from) + text.slice(to);
}

const WIDENS =
  /^((min-)?(width|inline-size)|margin.*|padding.*|left|right|inset.*|transform|translate|grid-template.*|white-space)$/;

function overflows(width: PageWidth, without: number): boolean {
  return width.scrollable && width.scrollWidth > Math.max(width.clientWidth, without) + TOLERANCE;
}
