import { defineCheck, makeSeen, type Case, type Fact, type MarkupFact } from '../../core/check.js';
import { flatMap } from '../../core/lists.js';
import { addAttribute } from '../../core/mend/attribute.js';
import type { MediaFact } from '../../core/evidence.js';
import {
  atSnippet,
  atTag,
  blameElement,
  getHead,
  locateAttribute,
} from '../../core/measure/blame.js';
import { findCall } from '../../core/measure/calls.js';
import { isScript } from '../../core/markup/traits.js';
import type { Span } from '../../core/snippet.js';
import { getAttribute, getTagSpan, type Markup } from '../../core/markup/markup.js';
import { tell } from '../../core/tell.js';

interface Data {
  /** Whether the file has a sound track; null where it is not known. */
  sound: boolean | null;
  outcome: 'blocked' | 'unknown';
  tag: 'video' | 'audio';
  /** A script called play(). */
  byScript: boolean;
  /** It is in a frame's document. */
  framed?: boolean;
}

/** HTMLMediaElement.HAVE_FUTURE_DATA: from here on the browser could have started. */
const COULD_START = 3;

type Needs = 'media' | 'scripts' | 'frames';

export default defineCheck({
  id: 'autoplay-with-sound',
  subject: 'media',
  level: 'blocker',
  title: 'A film is to start by itself with its sound on',
  decided:
    'A video asks for autoplay, or a script calls play() by itself, and it is not muted (in a frame’s document a sound, too): it had loaded, was in view, and the browser under its real policy did not start it. Withdrawn where it did play.',
  standard: 'HTML Living Standard, 4.8.11 Media elements; WCAG 2.2, 1.4.2 Audio Control',
  needs: ['media', 'scripts', 'frames'],
  markup: true,
  judge: judgeRenders,
  unrendered: ({ markup }) => tellUnmuted(markup),
  says(data) {
    if (data.framed) {
      return {
        message: `A ${data.tag === 'video' ? 'film' : 'sound'} in the frame’s document asks to start by itself with its sound on: the browser did not start it.`,
        notice: 'Visitors hear and see nothing of it until they start it themselves.',
        cure: 'Ask its maker for an address that starts silent, or that waits for the visitor.',
      };
    }
    if (data.byScript) {
      return {
        message: `A script starts the ${data.tag} with its sound on, before the visitor did anything: the browser did not start it.`,
        notice: 'Visitors hear and see nothing of it, and whoever published it heard it play.',
        cure: 'Call play() from a click, or set `muted` first.',
      };
    }
    if (data.sound === false) {
      return {
        message:
          'The video asks to start by itself and is not muted; its file has no sound, and the browser still blocks it.',
        notice: 'Visitors see a still picture: the film does not start.',
        cure: 'Add `muted` (there is no sound to lose) and `playsinline`.',
      };
    }
    const happened =
      data.outcome === 'blocked' ? 'the browser did not start it' : 'browsers do not start it';
    return {
      message: `The video asks to start by itself with its sound on: ${happened}.`,
      notice:
        'Visitors see a still picture: the film does not start, and whoever published it saw it play.',
      cure: 'Add `muted` and `playsinline`, or take `autoplay` out and leave the start to the visitor.',
    };
  },
  measures: ({ happened }) => (happened === 'never loaded' ? 'the file never loaded' : ''),
  mend: ({ byScript, framed }, { culprit }) =>
    byScript || framed ? null : addAttribute(culprit, 'muted'),
  samples: [
    { sound: true, outcome: 'blocked', tag: 'video', byScript: false },
    { sound: false, outcome: 'blocked', tag: 'video', byScript: false },
    { sound: null, outcome: 'blocked', tag: 'video', byScript: true },
    { sound: null, outcome: 'blocked', tag: 'audio', byScript: false, framed: true },
  ],
  examples: {
    faulty: [
      {
        name: 'a talk that starts by itself',
        code: '<video src="https://media.loam.example/talk.mp4" autoplay playsinline controls poster="https://static.rootcellar.example/talk.png" style="width: 100%; aspect-ratio: 16 / 9"><track srclang="en" src="data:text/vtt,WEBVTT"></video>',
      },
      {
        name: 'started by a script',
        code: '<video id="talk" src="https://media.loam.example/talk.mp4" playsinline controls poster="https://static.rootcellar.example/talk.png" style="width: 100%; aspect-ratio: 16 / 9"><track srclang="en" src="data:text/vtt,WEBVTT"></video><script>document.getElementById("talk").play().catch(() => 0);</script>',
      },
      {
        name: 'a file without sound, not muted',
        code: '<video src="https://media.loam.example/rain.mp4" autoplay playsinline controls poster="https://static.rootcellar.example/talk.png" style="width: 100%; aspect-ratio: 16 / 9"><track srclang="en" src="data:text/vtt,WEBVTT"></video>',
      },
    ],
    sound: [
      {
        name: 'a script that goes on without sound where it is refused',
        code: '<video id="rain" src="https://media.loam.example/rain.mp4" playsinline controls poster="https://static.rootcellar.example/talk.png" style="width: 100%; aspect-ratio: 16 / 9"><track srclang="en" src="data:text/vtt,WEBVTT"></video><script>const rain = document.getElementById("rain"); rain.play().catch(() => { rain.muted = true; rain.play(); });</script>',
      },
      {
        name: 'the same, muted',
        code: '<video src="https://media.loam.example/rain.mp4" autoplay muted playsinline controls poster="https://static.rootcellar.example/talk.png" style="width: 100%; aspect-ratio: 16 / 9"><track srclang="en" src="data:text/vtt,WEBVTT"></video>',
      },
      {
        name: 'muted by a script before it plays',
        code: '<video id="talk" src="https://media.loam.example/rain.mp4" autoplay playsinline controls poster="https://static.rootcellar.example/talk.png" style="width: 100%; aspect-ratio: 16 / 9"><track srclang="en" src="data:text/vtt,WEBVTT"></video><script>document.getElementById("talk").muted = true;</script>',
      },
    ],
  },
});

function judgeRenders(c: Case<Needs>): Fact<Data>[] {
  const films = flatMap(c.renders, (render) =>
    render.media.filter(isBlocked).map((one): Fact<Data> => {
      const blame = blameElement(c.markup, one);
      const measured = {
        asked: one.autoplay ? 'autoplay with sound' : 'play() with sound',
        happened: couldStart(one) ? 'blocked' : 'never loaded',
        readyState: one.readyState,
        frames: one.frames,
        soundTrack: one.sound,
      };
      return tell.seen(
        {
          ...blame,
          where: one.autoplay
            ? locateAttribute(c.markup, blame, 'autoplay')
            : locatePlay(c.markup, blame.where),
        },
        {
          sound: one.sound,
          outcome: couldStart(one) ? ('blocked' as const) : ('unknown' as const),
          tag: one.tag,
          byScript: !one.autoplay,
        },
        makeSeen(render, measured),
        { doubtful: !couldStart(one) },
      );
    }),
  );
  return [...films, ...judgeSounds(c), ...judgeFrames(c)];
}

/** In the documents of frames. */
function judgeFrames(c: Case<Needs>): Fact<Data>[] {
  return flatMap(c.renders, (render) =>
    flatMap(render.frames, (frame): Fact<Data>[] => {
      const one = frame.inner?.media?.find(({ asks, started }) => asks && !started);
      if (!one) return [];
      const blame = blameElement(c.markup, frame);
      const measured = { asked: 'to start with sound', address: one.address };
      const data = { sound: null, outcome: 'blocked', byScript: false, framed: true } as const;
      return [tell.seen(blame, { ...data, tag: one.tag }, makeSeen(render, measured))];
    }),
  );
}

/** Sounds that a script plays without putting them into the page. */
function judgeSounds(c: Case<'media' | 'scripts'>): Fact<Data>[] {
  return flatMap(c.renders, (render) =>
    render.scripts.sounds.map((address): Fact<Data> =>
      tell.seen(
        atSnippet(`sound ${address}`, locatePlay(c.markup, getHead(c.markup))),
        { sound: null, outcome: 'blocked', tag: 'audio', byScript: true },
        makeSeen(render, { asked: 'play() with sound', address }),
      ),
    ),
  );
}

/** The call, where it stands in the snippet; what a script asks for is not said on the element. */
function locatePlay(markup: Markup, otherwise: Span): Span {
  const script = markup.elements.find((one) => isScript(one) && PLAY.test(one.text));
  return script ? findCall(markup, PLAY) : otherwise;
}

const PLAY = /\.play\s*\(/;

/** Asked to start with sound and did not; where it never loaded, the markup's word stands. */
function isBlocked(one: MediaFact): boolean {
  const asked = one.asksForSound || (one.autoplay && one.tag === 'video');
  return asked && !one.muted && one.volume > 0 && one.paused && !one.started;
}

function couldStart(one: MediaFact): boolean {
  // A call is answered at once, whether the file is there or not.
  return one.asksForSound || (one.readyState >= COULD_START && one.inView);
}

function tellUnmuted(markup: Markup): MarkupFact<Data>[] {
  return markup.elements
    .filter(
      (element) =>
        element.name === 'video' &&
        getAttribute(element, 'autoplay') &&
        !getAttribute(element, 'muted'),
    )
    .map((element) =>
      tell.markup(atTag(element, getAttribute(element, 'autoplay') ?? getTagSpan(element)), {
        sound: null,
        outcome: 'unknown',
        tag: 'video',
        byScript: false,
      }),
    );
}
