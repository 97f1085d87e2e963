import { atTag } from '../../core/measure/blame.js';
import { defineCheck } from '../../core/check.js';
import { flatMap } from '../../core/lists.js';
import { removeAttribute } from '../../core/mend/attribute.js';
import { getAttribute } from '../../core/markup/markup.js';
import { tell } from '../../core/tell.js';

export default defineCheck({
  id: 'audio-autoplays',
  subject: 'media',
  level: 'blocker',
  title: 'Sound starts by itself',
  decided: 'An audio element has autoplay and is not muted.',
  standard: 'WCAG 2.2, 1.4.2 Audio Control',
  needs: [],
  markup: true,
  judge(c) {
    return flatMap(
      c.markup.elements.filter(({ name }) => name === 'audio'),
      (element) => {
        const autoplay = getAttribute(element, 'autoplay');
        if (!autoplay || getAttribute(element, 'muted')) return [];
        return [tell.markup(atTag(element, autoplay), null)];
      },
    );
  },
  says: () => ({
    message: 'The audio starts by itself.',
    notice:
      'Browsers block it; where they do not, sound breaks in on readers and on screen readers.',
    cure: 'Take `autoplay` out and give it `controls`, so that the visitor starts it.',
  }),
  mend: (_data, { culprit }) => removeAttribute(culprit, 'autoplay'),
  samples: [null],
  examples: {
    faulty: [
      {
        name: 'birdsong on opening',
        code: '<audio src="https://media.loam.example/talk.mp4" autoplay controls style="max-width: 100%"></audio>',
      },
    ],
    sound: [
      {
        name: 'started by the visitor',
        code: '<audio src="https://media.loam.example/talk.mp4" controls style="max-width: 100%"></audio>',
      },
      {
        name: 'muted',
        code: '<audio src="https://media.loam.example/talk.mp4" autoplay muted controls style="max-width: 100%"></audio>',
      },
    ],
  },
});
