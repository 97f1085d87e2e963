import { defineCheck, makeSeen, type Fact } from '../../core/check.js';
import type { CoveredFact } from '../../core/evidence.js';
import { flatMap } from '../../core/lists.js';
import { blameElement, getBlamed } from '../../core/measure/blame.js';
import { tell } from '../../core/tell.js';
import { capitalize, formatWidths, nameElement, shorten } from '../../core/words/list.js';

interface Data {
  tag: string;
  what: CoveredFact['what'];
  name: string;
  /** What lies over it, in words. */
  by: string;
}

export default defineCheck({
  id: 'covered-by-layer',
  subject: 'page',
  level: 'blocker',
  title: 'Something lies over a frame, a player or a control',
  decided:
    'Its middle and the points between it and its corners belong to another element’s area, wherever it is scrolled to. Not where a frame or player lies under a control of the snippet’s own, such as a play button, nor what lies under the page’s own layers.',
  standard: 'CSSOM View, 7 elementFromPoint(); WCAG 2.2, 2.4.11 Focus Not Obscured',
  needs: ['layers'],
  markup: false,
  judge: ({ markup, renders }) =>
    flatMap(renders, (render) =>
      flatMap(render.layers, (one): Fact<Data>[] => {
        const { tag, what, name, by, from } = one;
        if (from === null || by.from === null || (by.control && what !== 'control')) return [];
        const blame = blameElement(markup, { from, selector: one.selector });
        const over = blameElement(markup, { from: by.from, selector: by.selector });
        const line = getBlamed(markup, over) ? ` (line ${markup.place(over.where).line})` : '';
        return [
          tell.seen(
            blame,
            { tag, what, name, by: `${nameElement(by.tag, over.culprit)}${line}` },
            makeSeen(render, { by: by.tag }),
            { group: '' },
          ),
        ];
      }),
    ),
  says({ tag, name, by }, { seen, culprit }) {
    const what = capitalize(nameElement(tag, culprit));
    const named = name ? ` “${shorten(name, 30)}”` : '';
    return {
      message: `${what}${named} lies under ${by} (${formatWidths(seen)}), wherever it is scrolled to.`,
      notice: 'Visitors cannot click or tap it: what lies over it takes the pointer.',
      cure: 'Take the layer away, make it smaller, or let the pointer through it: `pointer-events: none`.',
    };
  },
  brief: ({ tag, name }) => `<${tag}>${name ? ` “${shorten(name, 30)}”` : ''} under a layer`,
  samples: [{ tag: 'iframe', what: 'frame', name: '', by: 'the <div>' }],
  examples: {
    faulty: [
      {
        name: 'a link under an empty layer',
        code: '<div style="position: relative; height: 60px"><a href="#" onclick="return false" style="display: block; padding: 10px">Order seed</a><div style="position: absolute; inset: 0"></div></div>',
      },
    ],
    sound: [
      {
        name: 'a layer that lets the pointer through',
        code: '<div style="position: relative; height: 60px"><a href="https://www.seedlibrary.example/order" style="display: block; padding: 10px">Order seed</a><div style="position: absolute; inset: 0; pointer-events: none"></div></div>',
      },
      {
        name: 'a film under its play button',
        code: '<div style="position: relative"><video title="Rain" style="display: block; width: 100%; aspect-ratio: 16 / 9" src="https://media.loam.example/rain.mp4" playsinline><track srclang="en" src="data:text/vtt,WEBVTT"></video><button aria-label="Play the film" onclick="this.previousElementSibling.play()" style="position: absolute; inset: 0; width: 100%; background: none; border: 0">▶</button></div>',
      },
    ],
  },
});
