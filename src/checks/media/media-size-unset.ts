import { defineCheck, type Fact } from '../../core/check.js';
import { flatMap } from '../../core/lists.js';
import { getBlamed } from '../../core/measure/blame.js';
import {
  describePush,
  formatMostPushed,
  isPushing,
  tellPushing,
  type Pushes,
  type Pushing,
} from '../../core/measure/pushes.js';
import { stateSize } from '../../core/mend/size.js';

export default defineCheck({
  id: 'media-size-unset',
  subject: 'media',
  level: 'concern',
  title: 'No room is kept for a film until it comes',
  decided:
    'A video has neither a height nor a proportion before its file comes, so that it is 150 px high, and what stands below it moves down by over 24 px when it does: that is tried.',
  standard: 'HTML Living Standard, 4.8.16 Dimension attributes; CSS 2, 10.6.2',
  needs: ['media'],
  markup: false,
  judge: (c): Fact<Pushing, Pushes>[] =>
    flatMap(c.renders, (render) =>
      render.media.filter(isPushing).map((one) => tellPushing(c.markup, render, one)),
    ),
  says: (_data, { seen }) => ({
    message: `Nothing says how high the video is${
      seen.length > 0
        ? `: when its file comes, what stands below it moves down by ${formatMostPushed(seen)}.`
        : ' before its file comes.'
    }`,
    notice: 'What visitors read or are about to press moves away under them.',
    cure: 'Say its size by `width` and `height`, or by `aspect-ratio`.',
  }),
  mend({ size }, { culprit }, markup) {
    const element = getBlamed(markup, { culprit });
    return element && size ? stateSize(element, size) : null;
  },
  measures: describePush,
  samples: [{ size: null }],
  examples: {
    faulty: [
      {
        name: 'a film as wide as the column, of no height',
        code: '<video src="https://media.loam.example/talk.mp4" controls playsinline style="width: 100%"><track kind="captions" srclang="en" src="data:text/vtt,WEBVTT"></video><p>Sow in May.</p>',
      },
    ],
    sound: [
      {
        name: 'its size as attributes',
        code: '<video src="https://media.loam.example/talk.mp4" controls playsinline width="640" height="360" style="width: 100%; height: auto"><track kind="captions" srclang="en" src="data:text/vtt,WEBVTT"></video><p>Sow in May.</p>',
      },
      {
        name: 'a proportion',
        code: '<video src="https://media.loam.example/talk.mp4" controls playsinline style="width: 100%; aspect-ratio: 16 / 9"><track kind="captions" srclang="en" src="data:text/vtt,WEBVTT"></video><p>Sow in May.</p>',
      },
    ],
  },
});
