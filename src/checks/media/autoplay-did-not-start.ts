import { defineCheck, makeSeen, type Fact } from '../../core/check.js';
import type { MediaFact } from '../../core/evidence.js';
import { blameElement } from '../../core/measure/blame.js';
import { getAttribute } from '../../core/markup/markup.js';

interface Data {
  reason: 'paused' | 'no-frames' | 'waiting';
}

/** HTMLMediaElement.HAVE_FUTURE_DATA. */
const LOADED = 3;

export default defineCheck({
  id: 'autoplay-did-not-start',
  subject: 'media',
  level: 'blocker',
  title: 'A muted film that was to start by itself did not',
  decided:
    'A video asks for autoplay, is muted, had loaded and was in view, and yet no frame of it was presented.',
  standard: 'HTML Living Standard, 4.8.11.8 Playing the media resource',
  needs: ['media'],
  markup: false,
  judge(c): Fact<Data>[] {
    return c.renders.flatMap(({ render, media }) =>
      media.filter(didNotStart).map((one) => {
        const blame = blameElement(c.markup, one);
        const where = (blame.element && getAttribute(blame.element, 'autoplay')) ?? blame.where;
        const reason = getReason(one);
        const measured = {
          asked: 'muted autoplay',
          happened: REASONS[reason],
          frames: one.paused ? null : one.frames,
        };
        return {
          where: { offset: where.offset, endOffset: where.endOffset },
          subject: blame.subject,
          ...(blame.made !== undefined && { made: blame.made }),
          confirmed: true,
          data: { reason },
          seen: [makeSeen(render, measured)],
        };
      }),
    );
  },
  says({ reason }) {
    return {
      message: `The muted video was to start by itself and showed no frame: ${REASONS[reason]}.`,
      notice: 'Visitors see a still picture, or a black one.',
      cure: CURES[reason],
    };
  },
  sample: { reason: 'paused' },
  examples: {
    faulty: [
      {
        name: 'a script pauses it before it begins',
        code: '<video src="https://media.loam.example/rain.mp4" autoplay muted playsinline controls preload="auto" poster="https://static.rootcellar.example/talk.png" style="width: 100%"></video><script>document.querySelector("video").pause();</script>',
      },
    ],
    sound: [
      {
        name: 'it plays',
        code: '<video src="https://media.loam.example/rain.mp4" autoplay muted playsinline controls poster="https://static.rootcellar.example/talk.png" style="width: 100%"></video>',
      },
    ],
  },
});

const REASONS: Record<Data['reason'], string> = {
  paused: 'it is paused',
  'no-frames': 'its clock runs, but the browser cannot show its picture',
  waiting: 'the browser left it waiting',
};

const CURES: Record<Data['reason'], string> = {
  paused: 'See which script pauses it.',
  'no-frames': 'Give a file in a format that browsers show, such as MP4 with H.264.',
  waiting: 'See whether something covers or hides it, and whether the file is whole.',
};

/** Frames are decoded ahead: only of a film that runs do they tell that something was shown. */
function didNotStart(one: MediaFact): boolean {
  const muted = one.muted || one.volume === 0;
  const asked =
    one.tag === 'video' && one.autoplay && muted && one.readyState >= LOADED && one.inView;
  return asked && (one.paused ? !one.started : one.frames === 0);
}

function getReason({ paused, started }: MediaFact): Data['reason'] {
  if (paused) return 'paused';
  return started ? 'no-frames' : 'waiting';
}
