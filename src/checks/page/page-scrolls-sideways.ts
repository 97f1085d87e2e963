import {
  defineCheck,
  makeSeen,
  type Case,
  type Fact,
  type RenderOf,
  type Seen,
} from '../../core/check.js';
import { flatMap } from '../../core/lists.js';
import { isShifted } from '../../core/measure/host-damage.js';
import { atSnippet, getHead } from '../../core/measure/blame.js';
import {
  blameWidth,
  SAMPLE_WIDTH_BLAME,
  SAMPLE_WIDTH_BLAMES,
  type WidthBlame,
} from '../../core/measure/blame-width.js';
import {
  getPageOverhang,
  getWidest,
  isUnexplained,
  listPageCulprits,
} from '../../core/measure/sticking.js';
import { describeWhen, getWhen, type When } from '../../core/measure/when.js';
import { formatPixels } from '../../core/measure/units.js';
import type { Span } from '../../core/snippet.js';
import { getTagSpan, type Markup } from '../../core/markup/markup.js';
import { tell } from '../../core/tell.js';
import { getReason, pickCause } from '../../core/trial/cause.js';
import type { Stated } from '../../core/trial/stated.js';
import { settleCures, type Sighted } from '../../core/trial/settle.js';
import { aimAt, aimAtPage, findCause, findCure } from '../../core/trial/targets.js';
import { cureWidth } from '../../core/words/width.js';
import { formatWindows, getMostOver, nameElement } from '../../core/words/list.js';
import { listRanges } from '../../core/search/ranges.js';

interface Data {
  blame: WidthBlame;
}

type Measured = {
  overhang: number;
  scrollWidth: number;
  windowWidth: number;
  elementWidth?: number;
  at?: When;
};

type Needs = 'page' | 'elements' | 'slot' | 'causes' | 'widths';

export default defineCheck({
  id: 'page-scrolls-sideways',
  subject: 'page',
  level: 'blocker',
  title: 'The snippet makes the whole page scroll sideways',
  decided:
    'The page’s scrollable width is larger than the window, by more than 1 px and more than without the snippet: after load, and again after a scroll to the end and back; animations without an end where they make it widest. Windows between those are tried on a copy of the page.',
  standard: 'WCAG 2.2, 1.4.10 Reflow; CSS Overflow 3',
  needs: ['page', 'elements', 'slot', 'causes', 'widths'],
  markup: false,
  published: true,
  explains: [
    { findings: ['slot-overflow', 'frame-wider-than-slot'] },
    // A slot that grows with its content pushes and narrows what is beside it.
    { findings: ['host-content-damaged'], fits: isShifted },
  ],
  tooWide: () => true,
  judge,
  says(data, fact) {
    const by = formatPixels(getMostOver(fact));
    const { blame } = data;
    const moves = blame.reason === 'animation' ? 'an animation takes ' : '';
    const what = blame.tag ? nameElement(blame.tag, fact.culprit) : 'the snippet';
    return {
      message: `The page scrolls sideways ${formatWindows(fact)}: ${moves}${what}${moves ? '' : ' reaches'} up to ${by} beyond the window.`,
      notice:
        'On these screens the whole page slides from side to side, and part of it is out of sight.',
      cure: cureWidth(blame),
    };
  },
  measures: ({ overhang, elementWidth, windowWidth, at = 'load' }) =>
    elementWidth !== undefined
      ? `${formatPixels(overhang)} beyond the window, ${formatPixels(elementWidth)} wide${describeWhen(at)}`
      : `${formatPixels(overhang)} wider than the window of ${formatPixels(windowWidth)}`,
  mend: ({ blame }) => blame.cure,
  brief({ blame }, fact) {
    const by = formatPixels(getMostOver(fact));
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

function judge({ markup, renders }: Case<Needs>): Fact<Data, Measured>[] {
  const sighted = flatMap(renders, (render) => judgeRender(markup, render, renders));
  return settleCures(
    markup,
    sighted,
    renders.map(({ causes }) => causes),
  );
}

function judgeRender(
  markup: Markup,
  render: RenderOf<Needs>,
  all: readonly RenderOf<Needs>[],
): Sighted<Data, Measured>[] {
  const { page, baseline, causes } = render;
  const over = getPageOverhang(render);
  if (!over) return [];
  const { scrollWidth, clientWidth: windowWidth } = getWidest(page);
  const measured = { overhang: over.overhang, scrollWidth, windowWidth };
  const culprits = listPageCulprits(render);
  const blamed = culprits.map((culprit): Sighted<Data, Measured> => {
    const { element, overhang } = culprit;
    const cause = findCause(causes, aimAt(culprit));
    const blame = blameWidth(markup, element, { causes, cause, room: windowWidth });
    const at = getWhen(culprit, page);
    const seen = makeSeen(render, { ...measured, at, overhang, elementWidth: element.box.width });
    const fact = tell.seen(blame, { blame }, seen, {
      group: '',
      byContent: blame.reason === 'content' || blame.reason === 'text',
      ranges: listRanges(all, render.at, 'page', element),
    });
    return { fact, causes, cause };
  });
  // A page that is not as wide each time is not held against a snippet of which no part sticks out.
  const steady = baseline?.steady ?? true;
  const whole = culprits.length === 0 || !render.partial;
  if (!steady || !whole || !isUnexplained(render)) return blamed;
  const cause = findCause(causes, aimAtPage(over.edge));
  const stated = cause && pickCause(markup, cause, { cure: findCure(causes, cause), fits: false });
  const fact = {
    ...blamePage(markup, stated, makeSeen(render, measured)),
    ranges: listRanges(all, render.at, 'page', null),
  };
  // What else widens the page is told beside the others only where it was found.
  return culprits.length > 0 && !stated ? blamed : [{ fact, causes, cause }, ...blamed];
}

/**
 * No element of the snippet sticks out, and yet the page does: a rule of its own widened a host part, or
 * its text, which stands in no element, does not break.
 */
function blamePage(
  markup: Markup,
  stated: Stated | null,
  seen: Seen<Measured>,
): Fact<Data, Measured> {
  const sheet = markup.elements.find(({ name }) => name === 'style');
  const where =
    stated?.where ?? findLongestWord(markup) ?? (sheet ? getTagSpan(sheet) : getHead(markup));
  const blame: WidthBlame = {
    ...SAMPLE_WIDTH_BLAME,
    ...atSnippet('page', where),
    reason: stated ? getReason(stated) : 'text',
    tag: '',
    declaration: stated?.declaration ?? null,
    attribute: stated?.attribute ?? null,
  };
  return tell.seen(blame, { blame }, seen);
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
