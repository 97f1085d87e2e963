import { defineCheck, makeSeen, type Case, type Fact, type MarkupFact } from '../../core/check.js';
import type { MediaFact } from '../../core/evidence.js';
import { flatMap, mapPresent } from '../../core/lists.js';
import { isHidden } from '../../core/markup/hidden.js';
import {
  getAttribute,
  getValue,
  type Markup,
  type MarkupElement,
} from '../../core/markup/markup.js';
import { listDeclarations } from '../../core/markup/styles.js';
import { atAttribute, atTag, blameElement } from '../../core/measure/blame.js';
import { askFor } from '../../core/mend/attribute.js';
import { tell } from '../../core/tell.js';

export default defineCheck({
  id: 'autoplay-without-still',
  subject: 'media',
  level: 'advice',
  title: 'A film that starts by itself has nothing to show before it does',
  decided:
    'A video that is to start by itself, or is started by a script, has no poster, and its own box has no picture in the background.',
  standard: 'HTML Living Standard, 4.8.8 The video element',
  needs: ['media'],
  markup: true,
  judge: judgeRenders,
  unrendered: ({ markup }) => tellBare(markup),
  says: () => ({
    message: 'The video starts by itself and has no `poster`.',
    notice:
      'Until its first picture has come, and where it may not start, visitors look at an empty box.',
    cure: 'Add `poster` with a still of the film.',
  }),
  mend: (_data, { culprit }) =>
    askFor(culprit, 'poster', 'Which picture is to stand there until the film begins?', {
      takes: 'address',
    }),
  samples: [null],
  examples: {
    faulty: [
      {
        name: 'no poster',
        code: '<video src="https://media.loam.example/rain.mp4" autoplay muted playsinline controls style="width: 100%; aspect-ratio: 16 / 9"><track srclang="en" src="data:text/vtt,WEBVTT"></video>',
      },
    ],
    sound: [
      {
        name: 'a poster',
        code: '<video src="https://media.loam.example/rain.mp4" autoplay muted playsinline controls poster="https://static.rootcellar.example/talk.png" style="width: 100%; aspect-ratio: 16 / 9"><track srclang="en" src="data:text/vtt,WEBVTT"></video>',
      },
      {
        name: 'a picture behind it',
        code: '<video src="https://media.loam.example/rain.mp4" autoplay muted playsinline controls style="width: 100%; aspect-ratio: 16 / 9; background: url(https://static.rootcellar.example/talk.png) center / cover"><track srclang="en" src="data:text/vtt,WEBVTT"></video>',
      },
      {
        name: 'one that waits for the visitor',
        code: '<video src="https://media.loam.example/rain.mp4" playsinline controls style="width: 100%; aspect-ratio: 16 / 9"><track srclang="en" src="data:text/vtt,WEBVTT"></video>',
      },
    ],
  },
});

function judgeRenders(c: Case<'media'>): Fact<null>[] {
  return flatMap(c.renders, (render) =>
    render.media.filter(isBare).map((one) => {
      const blame = blameElement(c.markup, one);
      return tell.seen(atAttribute(c.markup, blame, 'autoplay'), null, makeSeen(render, {}));
    }),
  );
}

/** Of one that never came other findings tell. */
function isBare(one: MediaFact): boolean {
  const begins = one.autoplay || one.started;
  return (
    one.tag === 'video' && one.shown && begins && one.readyState > 0 && !one.poster && !one.backed
  );
}

function tellBare(markup: Markup): MarkupFact<null>[] {
  return mapPresent(markup.elements, (element): MarkupFact<null> | null => {
    const autoplay = element.name === 'video' ? getAttribute(element, 'autoplay') : null;
    if (!autoplay || getValue(element, 'poster')?.trim()) return null;
    if (isHidden(markup, element) || hasBackground(markup, element)) return null;
    return tell.markup(atTag(element, autoplay), null);
  });
}

function hasBackground(markup: Markup, element: MarkupElement): boolean {
  const { inline, ruled } = listDeclarations(markup, element, ['background', 'background-image']);
  return [...inline, ...ruled].some(({ value }) => /url\(|gradient\(|image-set\(/i.test(value));
}
