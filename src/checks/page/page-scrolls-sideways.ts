import { defineCheck, makeSeen, type Fact, type RenderOf, type Seen } from '../../core/check.js';
import type { PageWidth } from '../../core/evidence.js';
import { mendWidth } from '../../core/mend/width.js';
import { blameWidth, type Blame } from '../../core/measure/blame.js';
import { findCulprits, TOLERANCE } from '../../core/measure/culprits.js';
import { formatPixels } from '../../core/measure/units.js';
import { getTagSpan, type Markup } from '../../core/markup/markup.js';
import { readStyles } from '../../core/markup/styles.js';
import { formatWidths, getWorstSeen, nameElement } from '../../core/words/list.js';

interface Data {
  tag: string;
  by: 'box' | 'ink';
  blame: Blame | null;
}

const CURES = {
  box: 'Let it shrink with its room: width: 100% with a max-width instead of a fixed width, or max-width: 100%.',
  ink: 'Let the text break: white-space: normal, and overflow-wrap: anywhere for long words and addresses.',
  page: 'Take out the rule of the snippet that widens the page.',
};

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
    const what = data.tag ? nameElement(data.tag, fact.culprit) : 'the snippet';
    return {
      message: `The page scrolls sideways ${formatWidths(fact.seen)}: ${what} reaches up to ${by} beyond the window.`,
      notice:
        'On these screens the whole page slides from side to side, and part of it is out of sight.',
      cure: CURES[data.tag ? data.by : 'page'],
    };
  },
  mend: ({ blame }, _fact, markup) => blame && mendWidth(markup, blame),
  sample: { tag: 'div', by: 'box', blame: null },
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
  return culprits.map(({ element, overhang, by }) => {
    const blame = blameWidth(markup, element, { by, room: width.clientWidth });
    const seen = makeSeen(render, { ...measured, overhang, elementWidth: element.box.width });
    return {
      where: blame.where,
      culprit: blame.culprit,
      group: '',
      confirmed: true,
      data: { tag: element.tag, by, blame },
      seen: [seen],
    };
  });
}

/** No part of the snippet sticks out, and yet the page does: a rule of its own widened a host part. */
function blamePage(markup: Markup, seen: Seen): Fact<Data> {
  const rule = readStyles(markup).findLast(
    ({ property, value }) => WIDENS.test(property) && /\d/.test(value),
  );
  const sheet = markup.elements.find(({ name }) => name === 'style') ?? markup.elements[0];
  const where = rule ?? (sheet ? getTagSpan(sheet) : { offset: 0, endOffset: 0 });
  const { offset, endOffset } = where;
  return {
    where: { offset, endOffset },
    culprit: { at: 'snippet', what: 'page' },
    confirmed: true,
    data: { tag: '', by: 'box', blame: null },
    seen: [seen],
  };
}

const WIDENS =
  /^((min-)?(width|inline-size)|margin.*|padding.*|left|right|inset.*|transform|translate|grid-template.*|white-space)$/;

function overflows(width: PageWidth, without: number): boolean {
  return width.scrollable && width.scrollWidth > Math.max(width.clientWidth, without) + TOLERANCE;
}
