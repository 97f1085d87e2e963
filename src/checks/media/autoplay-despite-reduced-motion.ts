import { defineCheck, makeSeen, type Fact, type RenderOf } from '../../core/check.js';
import { flatMap } from '../../core/lists.js';
import { atAttribute, blameElement } from '../../core/measure/blame.js';
import { playsOn } from '../../core/measure/plays.js';
import { tell } from '../../core/tell.js';
import { formatWidths } from '../../core/words/list.js';

interface Data {
  loop: boolean;
  /** Seconds; null where it has no end. */
  duration: number | null;
}

export default defineCheck({
  id: 'autoplay-despite-reduced-motion',
  subject: 'media',
  level: 'advice',
  title: 'A film plays by itself for those who asked for less motion',
  decided:
    'A video that loops or lasts over 5 s starts by itself, and does so too in a browser whose visitor prefers reduced motion.',
  standard: 'Media Queries Level 5, prefers-reduced-motion; WCAG 2.2, 2.2.2 Pause, Stop, Hide',
  needs: {
    kinds: ['media'],
    variants: ['reduced-motion'],
    calls: ({ media }) => media.some(playsOn),
  },
  markup: false,
  judge: (c): Fact<Data>[] =>
    flatMap(c.renders, (render: RenderOf<'media'>) =>
      render.media.filter(playsOn).map((one) => {
        const { loop, duration } = one;
        const blame = blameElement(c.markup, one);
        return tell.seen(
          atAttribute(c.markup, blame, 'autoplay'),
          { loop, duration },
          makeSeen(render, { loop, duration }),
        );
      }),
    ),
  says({ loop, duration }, { seen }) {
    const long = loop || duration === null ? 'without end' : `for ${Math.round(duration)} s`;
    return {
      message: `The video plays by itself, ${long}, even for visitors who asked for less motion (seen ${formatWidths(seen)}).`,
      notice: 'People whom moving pictures distract or make ill get them all the same.',
      cure: 'Start it by a script, and only where matchMedia("(prefers-reduced-motion: reduce)") does not match; or leave the start to the visitor.',
    };
  },
  samples: [{ loop: true, duration: 4 }],
  examples: {
    faulty: [
      {
        name: 'rain without end',
        code: '<video src="https://media.loam.example/rain.mp4" autoplay muted loop playsinline controls poster="https://static.rootcellar.example/talk.png" style="width: 100%; aspect-ratio: 16 / 9"></video>',
      },
      {
        name: 'longer than five seconds',
        code: '<video src="https://media.loam.example/talk.mp4" autoplay muted playsinline controls poster="https://static.rootcellar.example/talk.png" style="width: 100%; aspect-ratio: 16 / 9"><track srclang="en" src="data:text/vtt,WEBVTT"></video>',
      },
    ],
    sound: [
      {
        name: 'started only where motion is welcome',
        code: '<video id="rain" src="https://media.loam.example/rain.mp4" muted loop playsinline controls poster="https://static.rootcellar.example/talk.png" style="width: 100%; aspect-ratio: 16 / 9"><track srclang="en" src="data:text/vtt,WEBVTT"></video><script>if (!matchMedia("(prefers-reduced-motion: reduce)").matches) document.getElementById("rain").play()</script>',
      },
      {
        name: 'over in four seconds',
        code: '<video src="https://media.loam.example/rain.mp4" autoplay muted playsinline controls poster="https://static.rootcellar.example/talk.png" style="width: 100%; aspect-ratio: 16 / 9"><track srclang="en" src="data:text/vtt,WEBVTT"></video>',
      },
    ],
  },
});
