import { defineCheck, makeSeen, type Fact } from '../../core/check.js';
import type { MediaFact } from '../../core/evidence.js';
import { flatMap } from '../../core/lists.js';
import { blameElement, locateAttribute } from '../../core/measure/blame.js';
import { getElementFrom, listAround, type Markup } from '../../core/markup/markup.js';
import { opens, WHERE_DONE } from '../../core/markup/opening.js';
import { hasHandler, isScript } from '../../core/markup/traits.js';
import { getElementKey } from '../../core/search/spans.js';
import { tell } from '../../core/tell.js';

interface Data {
  reason: 'paused' | 'no-frames' | 'waiting' | 'hidden';
}

/** HTMLMediaElement.HAVE_FUTURE_DATA. */
const LOADED = 3;

export default defineCheck({
  id: 'autoplay-did-not-start',
  subject: 'media',
  level: 'blocker',
  title: 'A muted film that was to start by itself did not',
  decided:
    'A video asks for autoplay, is muted, had loaded and was in view, and yet no frame of it was presented; or its box never shows at any width, so that browsers do not start it. Not where the snippet’s own code pauses it, nor in a part that is still to be opened.',
  standard: 'HTML Living Standard, 4.8.11.8 Playing the media resource',
  needs: ['media'],
  markup: false,
  judge(c): Fact<Data>[] {
    // What is hidden at one width and shown at another is meant to be.
    const seen = new Set(
      flatMap(c.renders, ({ media }) => media.filter(isSeen).map(getElementKey)),
    );
    const hasCode = c.markup.elements.some((one) => isScript(one) || hasHandler(one));
    const isLost = (one: MediaFact) => isAsked(one) && !seen.has(getElementKey(one)) && isIdle(one);
    return flatMap(c.renders, (render) =>
      render.media
        .filter((one) => didNotStart(one) || isLost(one))
        .filter((one) => !(one.paused && (hasCode || canOpen(c.markup, one))))
        .map((one) => {
          const blame = blameElement(c.markup, one);
          const where = locateAttribute(c.markup, blame, 'autoplay');
          const reason = isLost(one) ? 'hidden' : getReason(one);
          const measured = {
            asked: 'muted autoplay',
            happened: REASONS[reason],
            frames: one.paused ? null : one.frames,
          };
          const seen = makeSeen(render, measured);
          return tell.seen({ ...blame, where }, { reason }, seen);
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
  samples: (['paused', 'no-frames', 'waiting', 'hidden'] as const).map((reason) => ({ reason })),
  examples: {
    faulty: [
      {
        name: 'a film that nobody can see',
        code: '<p>Rain</p><div style="display: none"><video src="https://media.loam.example/rain.mp4" autoplay muted playsinline controls poster="https://static.rootcellar.example/talk.png" style="width: 100%; aspect-ratio: 16 / 9"></video></div>',
      },
    ],
    sound: [
      {
        name: 'its own script pauses it before it begins',
        code: '<video src="https://media.loam.example/rain.mp4" autoplay muted playsinline controls preload="auto" poster="https://static.rootcellar.example/talk.png" style="width: 100%; aspect-ratio: 16 / 9"></video><script>document.querySelector("video").pause();</script>',
      },
      {
        name: 'hidden on phones only',
        code: '<style>@media (max-width: 600px) { .rain { display: none } }</style><p>Rain</p><video class="rain" src="https://media.loam.example/rain.mp4" autoplay muted playsinline controls poster="https://static.rootcellar.example/talk.png" style="width: 100%; aspect-ratio: 16 / 9"></video>',
      },
      {
        name: 'it plays',
        code: '<video src="https://media.loam.example/rain.mp4" autoplay muted playsinline controls poster="https://static.rootcellar.example/talk.png" style="width: 100%; aspect-ratio: 16 / 9"></video>',
      },
    ],
  },
});

const REASONS: Record<Data['reason'], string> = {
  paused: 'it is paused',
  'no-frames': 'its clock runs, but the browser cannot show its picture',
  waiting: 'the browser left it waiting',
  hidden: 'its box never shows',
};

const CURES: Record<Data['reason'], string> = {
  paused: 'See which script pauses it.',
  'no-frames': 'Give a file in a format that browsers show, such as MP4 with H.264.',
  hidden: 'Let the player be seen, or take it out.',
  waiting: 'See whether something covers or hides it, and whether the file is whole.',
};

/** Frames are decoded ahead: only of a film that runs do they tell that something was shown. */
function didNotStart(one: MediaFact): boolean {
  const ready = isAsked(one) && one.readyState >= LOADED && one.inView;
  return ready && (one.paused ? !one.started : one.frames === 0);
}

function isAsked({ tag, autoplay, muted, volume }: MediaFact): boolean {
  return tag === 'video' && autoplay && (muted || volume === 0);
}

/** It stands in something that visitors open, or styles show it where something is pressed, checked or led to. */
function canOpen(markup: Markup, { from }: MediaFact): boolean {
  const element = 'offset' in from ? getElementFrom(markup, from.offset) : null;
  const around = listAround(element);
  const styles = markup.elements.filter(({ name }) => name === 'style');
  return around.some(opens) || styles.some(({ text }) => WHERE_DONE.test(text));
}

function isSeen({ shown, box }: MediaFact): boolean {
  return shown && box.width > 0 && box.height > 0;
}

/** Never begun, and not for want of a file. */
function isIdle({ paused, started, error, address }: MediaFact): boolean {
  return paused && !started && error === null && address !== '';
}

function getReason({ paused, started }: MediaFact): Data['reason'] {
  if (paused) return 'paused';
  return started ? 'no-frames' : 'waiting';
}
