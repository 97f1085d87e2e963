import { atTag } from '../../core/measure/blame.js';
import { defineCheck } from '../../core/check.js';
import { flatMap } from '../../core/lists.js';
import { addAttribute } from '../../core/mend/attribute.js';
import { getAttribute } from '../../core/markup/markup.js';
import { tell } from '../../core/tell.js';

export default defineCheck({
  id: 'autoplay-without-inline',
  subject: 'media',
  level: 'concern',
  title: 'A film that starts by itself has no playsinline',
  decided:
    'A video has autoplay and no playsinline. It shows on phones only, so it is judged from the markup.',
  standard: 'HTML Living Standard, 4.8.8 The video element',
  needs: [],
  markup: true,
  judge(c) {
    return flatMap(
      c.markup.elements.filter(({ name }) => name === 'video'),
      (element) => {
        const autoplay = getAttribute(element, 'autoplay');
        if (!autoplay || getAttribute(element, 'playsinline')) return [];
        return [tell.markup(atTag(element, autoplay), null)];
      },
    );
  },
  says: () => ({
    message: 'The video has `autoplay` but not `playsinline`.',
    notice: 'On some phones it opens full screen over the page, or does not start.',
    cure: 'Add `playsinline`.',
  }),
  mend: (_data, { culprit }) => addAttribute(culprit, 'playsinline'),
  samples: [null],
  examples: {
    faulty: [
      {
        name: 'muted autoplay without playsinline',
        code: '<video src="https://media.loam.example/rain.mp4" autoplay muted controls poster="https://static.rootcellar.example/talk.png" style="width: 100%; aspect-ratio: 16 / 9"><track srclang="en" src="data:text/vtt,WEBVTT"></video>',
      },
    ],
    sound: [
      {
        name: 'with playsinline',
        code: '<video src="https://media.loam.example/rain.mp4" autoplay muted playsinline controls poster="https://static.rootcellar.example/talk.png" style="width: 100%; aspect-ratio: 16 / 9"><track srclang="en" src="data:text/vtt,WEBVTT"></video>',
      },
      {
        name: 'no autoplay',
        code: '<video src="https://media.loam.example/rain.mp4" muted controls poster="https://static.rootcellar.example/talk.png" style="width: 100%; aspect-ratio: 16 / 9"><track srclang="en" src="data:text/vtt,WEBVTT"></video>',
      },
    ],
  },
});
