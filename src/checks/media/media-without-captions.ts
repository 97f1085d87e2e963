import { atTag } from '../../core/measure/blame.js';
import { defineCheck, type Case, type Fact } from '../../core/check.js';
import { isHidden } from '../../core/markup/hidden.js';
import { getValue, type MarkupElement } from '../../core/markup/markup.js';
import { tell } from '../../core/tell.js';

type Needs = 'media';

export default defineCheck({
  id: 'media-without-captions',
  subject: 'media',
  level: 'advice',
  title: 'A film has no captions',
  decided:
    'A video that names its file has no track of captions or subtitles, and is no muted loop that starts by itself. Not where its file is seen to have no sound.',
  standard: 'WCAG 2.2, 1.2.2 Captions (Prerecorded)',
  needs: ['media'],
  markup: true,
  judge: (c): Fact<null>[] =>
    c.markup.elements
      .filter((element) => element.name === 'video' && namesFile(element))
      .filter((video) => !isHidden(c.markup, video) && !isLoop(video) && !hasCaptions(video))
      .filter((video) => !isSilent(c, video))
      .map((video) => tell.markup(atTag(video), null)),
  says: () => ({
    message: 'The video has no captions.',
    notice: 'People who cannot hear it, or have the sound off, do not learn what is said.',
    cure: 'Add a track, such as `<track kind="captions" srclang="en" label="English" src="talk.vtt">`; none is needed where nothing is said.',
  }),
  samples: [null],
  examples: {
    faulty: [
      {
        name: 'a talk',
        code: '<video src="https://media.loam.example/talk.mp4" controls playsinline poster="https://static.rootcellar.example/talk.png" style="width: 100%; aspect-ratio: 16 / 9"></video>',
      },
    ],
    sound: [
      {
        name: 'a talk with subtitles',
        code: '<video src="https://media.loam.example/talk.mp4" controls playsinline poster="https://static.rootcellar.example/talk.png" style="width: 100%; aspect-ratio: 16 / 9"><track srclang="en" src="data:text/vtt,WEBVTT"></video>',
      },
      {
        name: 'a film without sound',
        code: '<video src="https://media.loam.example/rain.mp4" controls playsinline poster="https://static.rootcellar.example/talk.png" style="width: 100%; aspect-ratio: 16 / 9"></video>',
      },
    ],
  },
});

/** What a script gives it may come with captions of its own. */
function namesFile(video: MarkupElement): boolean {
  const bearers = [video, ...video.children.filter(({ name }) => name === 'source')];
  return bearers.some((one) => getValue(one, 'src')?.trim());
}

function isLoop(video: MarkupElement): boolean {
  return ['autoplay', 'muted', 'loop'].every((name) => getValue(video, name) !== null);
}

/** Without a kind a track is of subtitles; of a kind that is unknown it shows nothing (HTML, 4.8.11.11). */
function hasCaptions({ children }: MarkupElement): boolean {
  return children.some((one) => {
    const kind = getValue(one, 'kind')?.toLowerCase() ?? 'subtitles';
    return one.name === 'track' && /^(captions|subtitles)$/.test(kind) && getValue(one, 'src');
  });
}

function isSilent({ renders }: Case<Needs>, video: MarkupElement): boolean {
  return renders.some(({ media }) =>
    media.some(
      ({ from, sound }) => sound === false && 'offset' in from && from.offset === video.offset,
    ),
  );
}
