import { defineCheck, makeSeen, type Fact, type MarkupFact } from '../../core/check.js';
import type { FrameFact } from '../../core/evidence.js';
import { flatMap } from '../../core/lists.js';
import { isHidden } from '../../core/markup/hidden.js';
import { getValue, type MarkupElement } from '../../core/markup/markup.js';
import { opens, WHERE_DONE } from '../../core/markup/opening.js';
import { hasHandler, isScript } from '../../core/markup/traits.js';
import { atTag, blameElement } from '../../core/measure/blame.js';
import { isThirdParty, parseAddress } from '../../core/measure/site.js';
import { getElementKey } from '../../core/search/spans.js';
import { tell } from '../../core/tell.js';

interface Data {
  host: string;
  hidden: boolean;
}

type Measured = { width: number; height: number };

/** What is no larger nobody sees, px. */
const TINY = 2;

export default defineCheck({
  id: 'frame-only-counts',
  subject: 'frames',
  level: 'advice',
  title: 'A frame of another host can only watch',
  decided:
    'A frame of another site is 2 px and less wide or high in every window, or hidden there, where the snippet has no code that could show it.',
  standard: null,
  needs: ['frames'],
  markup: true,
  explains: [{ findings: ['frame-unnamed', 'frame-fixed-size'] }],
  judge(c): Fact<Data, Measured>[] {
    const { elements } = c.markup;
    const moves = elements.some((one) => isScript(one) || hasHandler(one) || canOpen(one));
    const isUseless = (one: FrameFact) => isTiny(one) || (!moves && !one.exposed);
    const all = flatMap(c.renders, (render) =>
      render.frames
        .filter(({ tag }) => tag === 'iframe')
        .map((frame) => ({ render, frame, host: getHost(frame.address, c.house.origin) })),
    );
    const useful = new Set(
      all.filter(({ frame }) => !isUseless(frame)).map(({ frame }) => getElementKey(frame)),
    );
    return flatMap(all, ({ render, frame, host }): Fact<Data, Measured>[] => {
      if (host === null || useful.has(getElementKey(frame))) return [];
      const { width, height } = frame.box;
      const data = { host, hidden: !isTiny(frame) };
      return [tell.seen(blameElement(c.markup, frame), data, makeSeen(render, { width, height }))];
    });
  },
  unrendered: ({ markup, house }) =>
    markup.elements.some((one) => isScript(one) || hasHandler(one) || canOpen(one))
      ? []
      : flatMap(markup.elements, (element): MarkupFact<Data>[] => {
          const src = element.name === 'iframe' ? getValue(element, 'src') : null;
          const host = src && getHost(src.trim(), house.origin);
          const side = (name: string) => parseFloat(getValue(element, name) ?? '150');
          const hidden = isHidden(markup, element);
          if (!host || (!hidden && Math.min(side('width'), side('height')) > TINY)) return [];
          return [tell.markup(atTag(element), { host, hidden })];
        }),
  says: ({ host, hidden }) => ({
    message: `The frame of ${host} ${hidden ? 'is hidden' : 'is 2 px and less'}: nobody sees it, and it sees every visitor.`,
    notice: 'Visitors load a page of somebody’s whom they never meet.',
    cure: 'Ask what it is for, and take it out where the page does as well without it.',
  }),
  measures: ({ width, height }) => `${Math.round(width)} × ${Math.round(height)} px`,
  samples: [{ host: 'tally.example', hidden: false }],
  examples: {
    faulty: [
      {
        name: 'a frame of one px',
        code: '<p>Sow in May.</p><iframe title="Visits" src="https://tally.example/frame" width="1" height="1" style="border: 0"></iframe>',
        under: { limits: { scriptBytes: '9MB' } },
      },
      {
        name: 'a frame that is hidden for good',
        code: '<p>Sow in May.</p><iframe title="Visits" src="https://tally.example/frame" style="display: none"></iframe>',
        under: { limits: { scriptBytes: '9MB' } },
      },
    ],
    sound: [
      {
        name: 'a frame to be seen',
        code: '<iframe title="Map of beds" src="https://maps.fernmap.example/embed/glasshouse" style="border: 0; width: 100%; height: 240px"></iframe>',
      },
      {
        name: 'one in a part that visitors open',
        code: '<details><summary>Map</summary><iframe title="Map of beds" src="https://maps.fernmap.example/embed/glasshouse" style="border: 0; width: 100%; height: 240px"></iframe></details>',
      },
    ],
  },
});

function isTiny({ box, exposed }: FrameFact): boolean {
  return exposed && Math.min(box.width, box.height) <= TINY;
}

/** Visitors open it, or styles show it where something is pressed, checked or led to. */
function canOpen(element: MarkupElement): boolean {
  const { name, text } = element;
  return opens(element) || (name === 'style' && (WHERE_DONE.test(text) || /@media/i.test(text)));
}

function getHost(address: string, origin: string): string | null {
  const url = parseAddress(address, origin);
  const isWeb = url !== null && /^https?:$/.test(url.protocol);
  return isWeb && isThirdParty(url.hostname, origin) ? url.hostname : null;
}
