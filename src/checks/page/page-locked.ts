import { atSnippet } from '../../core/measure/blame.js';
import { defineCheck, makeSeen, type Fact } from '../../core/check.js';
import type { Way } from '../../core/evidence.js';
import { flatMap } from '../../core/lists.js';
import { isShifted } from '../../core/measure/host-damage.js';
import { locateMaker } from '../../core/measure/makers.js';
import { tell } from '../../core/tell.js';
import { formatWidths, joinWords } from '../../core/words/list.js';

interface Data {
  /** What cannot be done any more. */
  what: 'scroll' | 'tab';
}

type Measured = { tried: string };

const NAMES: Record<Way, string> = {
  wheel: 'the wheel',
  swipe: 'a swipe',
  arrows: 'arrow keys',
  space: 'the space bar',
  tab: 'Tab',
};

/** What the source of it looks like. */
const CALLS: Record<Data['what'], RegExp> = {
  scroll: /overflow\w*|preventDefault|scrollTo|touch-?action|position/i,
  tab: /preventDefault|keydown/i,
};

export default defineCheck({
  id: 'page-locked',
  subject: 'page',
  level: 'blocker',
  title: 'The page can no longer be scrolled, or walked through',
  decided:
    'On the page’s own parts neither wheel, swipe nor keys scroll the page, though there is more of it; or Tab does not go on from a control of its own. Each is tried with and without the snippet, in one window of each slot. Within the first minute: its styles keep it from being scrolled, and do not without the snippet.',
  standard: 'WCAG 2.2, 2.1.1 Keyboard; UI Events, 3.3 and 3.7',
  needs: ['visit', 'page'],
  later: ['page'],
  markup: false,
  explains: [
    { findings: ['visitor-hindered'], anywhere: true, fits: () => true },
    // Where the scroll bar is gone there is more room.
    { findings: ['host-content-damaged'], fits: isShifted },
  ],
  judge: ({ markup, renders }) => {
    const at = (what: Data['what']) => atSnippet(what, locateMaker(markup, CALLS[what]));
    return flatMap(renders, (render): Fact<Data, Measured>[] => {
      const { tried, stuck } = render.visit;
      const ways: Record<Data['what'], Way[]> = {
        scroll: tried.filter((way) => way !== 'tab'),
        tab: tried.filter((way) => way === 'tab'),
      };
      const locked = (['scroll', 'tab'] as const).filter(
        (what) => ways[what].length > 0 && ways[what].every((way) => stuck.includes(way)),
      );
      // Hands are used at rest alone: later it is seen by the page's styles.
      const held = render.page.settings.some(({ what }) => what === 'held');
      if (render.at.after !== null && held) {
        const seen = makeSeen(render, { tried: '' });
        return [tell.seen(at('scroll'), { what: 'scroll' }, seen, { group: 'scroll' })];
      }
      return locked.map((what) =>
        tell.seen(
          at(what),
          { what },
          makeSeen(render, { tried: joinWords(ways[what].map((way) => NAMES[way])) }),
          { group: what },
        ),
      );
    });
  },
  says: ({ what }, { seen }) =>
    what === 'tab'
      ? {
          message: 'Tab no longer leads from one control of the page to the next.',
          notice: 'Whoever uses the keyboard is stuck.',
          cure: 'Leave Tab to the browser: take keys only while the focus is in the snippet.',
        }
      : {
          message: `The page cannot be scrolled any more (${formatWidths(seen)}).`,
          notice: 'All that is further down is out of reach.',
          cure: 'Do not fix the page or hide what overflows it; keep what code does to the wheel, to swipes and keys inside of the snippet.',
        },
  measures: ({ tried }) => (tried ? `${tried} did nothing` : ''),
  brief: ({ what }) =>
    what === 'tab' ? 'Tab does not go on' : 'the page cannot be scrolled any more',
  samples: [{ what: 'scroll' }, { what: 'tab' }],
  examples: {
    faulty: [
      {
        name: 'a page that is held in place',
        code: '<p>Join the seed swap</p><script>document.documentElement.style.overflow = "hidden";</script>',
      },
      {
        name: 'a script that takes the wheel',
        code: '<p>Join the seed swap</p><script>addEventListener("wheel", (event) => event.preventDefault(), { passive: false }); addEventListener("touchmove", (event) => event.preventDefault(), { passive: false });</script>',
      },
    ],
    sound: [
      {
        name: 'a script that takes the wheel in its own part',
        code: '<div id="beds" style="height: 60px; overflow: hidden">Beans</div><script>document.getElementById("beds").addEventListener("wheel", (event) => event.preventDefault(), { passive: false });</script>',
      },
    ],
  },
});
