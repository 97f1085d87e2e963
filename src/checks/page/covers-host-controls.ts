import { defineCheck, makeSeen, type Fact } from '../../core/check.js';
import { flatMap } from '../../core/lists.js';
import { blameElement } from '../../core/measure/blame.js';
import { tell } from '../../core/tell.js';
import {
  capitalize,
  formatWidths,
  joinWords,
  nameElement,
  shorten,
} from '../../core/words/list.js';

interface Data {
  tag: string;
  /** What of the page is covered, in words. */
  covered: string[];
}

type Measured = { covered: number; what: string };

/** More are counted. */
const MOST_NAMED = 4;

const PAGE =
  '<!doctype html><html lang="en"><title>Seeds</title><nav><a href="/beds">Beds</a> <a href="/desk">Members’ desk</a></nav><div data-mivket-slot="column"></div><p style="height: 1600px">Summer</p>';

export default defineCheck({
  id: 'covers-host-controls',
  subject: 'page',
  level: 'blocker',
  title: 'It lies over links, buttons or fields of the page',
  decided:
    'A control of the page around it can be pointed at nowhere, wherever it is scrolled to: at its middle and at the points between it and its corners the pointer meets the snippet.',
  standard: 'CSSOM View, 7 elementFromPoint(); WCAG 2.2, 2.4.11 Focus Not Obscured',
  needs: ['layers'],
  markup: false,
  judge: ({ markup, renders }) =>
    flatMap(renders, (render) => {
      const found = new Map<string, Fact<Data, Measured>>();
      for (const { tag, name, what, by, from } of render.layers) {
        if (from !== null || by.from === null) continue;
        const blame = blameElement(markup, { from: by.from, selector: by.selector });
        const key = JSON.stringify(blame.culprit);
        const label = name ? `“${shorten(name, 30)}”` : `a <${tag}>`;
        const covered = [...(found.get(key)?.data.covered ?? []), label];
        found.set(
          key,
          tell.seen(
            blame,
            { tag: by.tag, covered },
            makeSeen(render, { covered: covered.length, what }),
            { group: '' },
          ),
        );
      }
      return [...found.values()];
    }),
  says({ tag, covered }, { seen, culprit }) {
    const named = [...new Set(covered)];
    const more = named.length > MOST_NAMED ? [`${named.length - MOST_NAMED} more`] : [];
    const list = joinWords([...named.slice(0, MOST_NAMED), ...more]);
    return {
      message: `${capitalize(nameElement(tag, culprit))} lies over ${list} of the page (${formatWidths(seen)}), wherever that is scrolled to.`,
      notice: 'Visitors can no longer click or tap it.',
      cure: 'Keep it inside its slot, make it smaller, or let the pointer through it: `pointer-events: none`.',
    };
  },
  measures: ({ covered }) => `${covered} of the page’s controls under it`,
  brief: ({ covered }) => `over ${joinWords([...new Set(covered)].slice(0, 2))} of the page`,
  samples: [{ tag: 'div', covered: ['“Members’ desk”'] }],
  examples: {
    faulty: [
      {
        name: 'a layer over the whole window',
        code: '<div style="position: fixed; inset: 0"></div><p>Seed swap on Saturday</p>',
        under: { page: PAGE },
      },
    ],
    sound: [
      {
        name: 'a bar at the bottom, under which the page can be scrolled away',
        code: '<p style="position: fixed; left: 0; right: 0; bottom: 0; height: 40px; margin: 0; background: #faf8f4">Seed swap on Saturday</p>',
        under: { page: PAGE },
      },
    ],
  },
});
