import { defineCheck, makeSeen, type Case, type Fact, type MarkupFact } from '../../core/check.js';
import type { MediaFact } from '../../core/evidence.js';
import { flatMap } from '../../core/lists.js';
import { isHidden } from '../../core/markup/hidden.js';
import {
  getAttribute,
  listAround,
  type Markup,
  type MarkupElement,
} from '../../core/markup/markup.js';
import { hasHandler, isScript } from '../../core/markup/traits.js';
import { atTag, blameElement, getBlamed } from '../../core/measure/blame.js';
import { addAttribute } from '../../core/mend/attribute.js';
import { getElementKey } from '../../core/search/spans.js';
import { tell } from '../../core/tell.js';

type Data = Record<never, never>;

type Measured = { asked: string; happened: string };

export default defineCheck({
  id: 'media-cannot-be-started',
  subject: 'media',
  level: 'concern',
  title: 'Nothing starts a film',
  decided:
    'A video that shows has no controls, is not to start by itself, never started, and is started neither by a click on it, nor by a pointer over it, nor by a click on any button of the snippet: where there is code, each is tried. Not one in a link, which stands for what that leads to.',
  standard: 'HTML Living Standard, 4.8.11.13 User interface',
  needs: ['media', 'handling'],
  markup: true,
  lasts: true,
  judge: (c): Fact<Data, Measured>[] => {
    const started = listStarted(c);
    return flatMap(c.renders, (render) =>
      render.media
        .filter((one) => isIdle(one) && !started.has(getElementKey(one)) && !leads(c.markup, one))
        .map((one) => {
          const seen = makeSeen(render, { asked: 'no controls', happened: 'never started' });
          return tell.seen(blameElement(c.markup, one), {}, seen);
        }),
    );
  },
  unrendered: ({ markup }) =>
    markup.elements.some((one) => isScript(one) || hasHandler(one))
      ? []
      : markup.elements
          .filter((one) => one.name === 'video' && !isHidden(markup, one) && !isInLink(one))
          .filter((one) => !['controls', 'autoplay'].some((name) => getAttribute(one, name)))
          .map((one): MarkupFact<Data> => tell.markup(atTag(one), {})),
  says: () => ({
    message: 'The video has no controls and does not start by itself, and nothing starts it.',
    notice: 'Visitors see a still picture that never becomes a film.',
    cure: 'Add `controls`.',
  }),
  mend: (_data, { culprit }) => addAttribute(culprit, 'controls'),
  samples: [{}],
  examples: {
    faulty: [
      {
        name: 'a film without controls',
        code: '<video src="https://media.loam.example/rain.mp4" muted playsinline poster="https://static.rootcellar.example/talk.png" style="width: 100%; aspect-ratio: 16 / 9"><track kind="captions" srclang="en" src="data:text/vtt,WEBVTT"></video>',
      },
      {
        name: 'a button that does something else',
        code: '<video src="https://media.loam.example/rain.mp4" muted playsinline poster="https://static.rootcellar.example/talk.png" style="width: 100%; aspect-ratio: 16 / 9"><track kind="captions" srclang="en" src="data:text/vtt,WEBVTT"></video><button type="button" onclick="this.textContent = \'Noted\'">Note the date</button>',
      },
    ],
    sound: [
      {
        name: 'a button that starts it',
        code: '<video src="https://media.loam.example/rain.mp4" muted playsinline poster="https://static.rootcellar.example/talk.png" style="width: 100%; aspect-ratio: 16 / 9"><track kind="captions" srclang="en" src="data:text/vtt,WEBVTT"></video><button type="button" onclick="document.querySelector(\'video\').play()">Play</button>',
      },
      {
        name: 'it starts under the pointer, with its sound',
        code: '<video src="https://media.loam.example/talk.mp4" onmouseenter="this.play()" playsinline poster="https://static.rootcellar.example/talk.png" style="width: 100%; aspect-ratio: 16 / 9"><track kind="captions" srclang="en" src="data:text/vtt,WEBVTT"></video>',
      },
      {
        name: 'controls',
        code: '<video src="https://media.loam.example/talk.mp4" controls playsinline poster="https://static.rootcellar.example/talk.png" style="width: 100%; aspect-ratio: 16 / 9"><track kind="captions" srclang="en" src="data:text/vtt,WEBVTT"></video>',
      },
    ],
  },
});

/** It stands for what a link around it leads to. */
function leads(markup: Markup, one: MediaFact): boolean {
  const element = getBlamed(markup, blameElement(markup, one));
  return element !== null && isInLink(element);
}

function isInLink(element: MarkupElement): boolean {
  return listAround(element).some((one) => one.name === 'a' && getAttribute(one, 'href') !== null);
}

/** It shows, has a file, and rests. */
function isIdle(one: MediaFact): boolean {
  const { tag, shown, controls, autoplay, started, asksForSound, readyState, box } = one;
  const rests = !controls && !autoplay && !started && !asksForSound;
  return tag === 'video' && shown && box.width > 0 && rests && readyState > 0;
}

/** Those that were started in any window, by themselves or by a hand. */
function listStarted({ renders }: Case<'media' | 'handling'>): Set<string> {
  const all = flatMap(renders, ({ media, handling }) => [
    ...media.filter(({ started, asksForSound }) => started || asksForSound),
    ...handling.started,
  ]);
  return new Set(all.map(getElementKey));
}
