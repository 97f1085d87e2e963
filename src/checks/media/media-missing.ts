import { defineCheck, makeSeen, type Fact } from '../../core/check.js';
import { flatMap } from '../../core/lists.js';
import { findAnswer, getFailure, isWebPage } from '../../core/measure/failed.js';
import { listMediaSources } from '../../core/measure/media-sources.js';
import { isOfAddress } from '../../core/measure/same-address.js';
import { tell } from '../../core/tell.js';

interface Data {
  address: string;
  why: string;
  tag: 'video' | 'audio';
  /** Another of its sources came. */
  plays: boolean;
}

/** HTMLMediaElement.HAVE_METADATA: from here on it has a file. */
const CAME = 1;

export default defineCheck({
  id: 'media-missing',
  subject: 'media',
  level: 'blocker',
  title: 'The file of a film or a sound is missing',
  decided:
    'An address of a video or an audio is answered with an error, or not at all; a concern where another of its sources came. Not with 401, 403, 407 or 429: visitors may see more; nor where the run itself kept it back.',
  standard: 'HTML Living Standard, 4.8.11.5 Loading the media resource',
  needs: ['media', 'traffic'],
  markup: false,
  explains: [
    { findings: ['request-failed'], anywhere: true, fits: isOfAddress },
    { findings: ['nothing-rendered'], anywhere: true, fits: () => true },
  ],
  judge: (c): Fact<Data>[] =>
    flatMap(c.renders, (render) =>
      flatMap(render.media, (medium) =>
        flatMap(listMediaSources(c.markup, medium, c.house.origin), (source): Fact<Data>[] => {
          const { address } = source;
          const answer = findAnswer(address, render.traffic);
          const fault = answer && getFailure(answer);
          // A page is told by media-page-not-file.
          if (!fault || isWebPage(answer)) return [];
          const plays = medium.readyState >= CAME;
          const data = { address, why: fault.why, tag: medium.tag, plays };
          const seen = makeSeen(render, { asked: address, happened: fault.why });
          const level = plays ? ({ level: 'concern' } as const) : {};
          return [tell.seen(source, data, seen, { group: address, ...level })];
        }),
      ),
    ),
  says: ({ address, why, tag, plays }) => ({
    message: `A file of the ${tag} does not come: ${why} (${address}).`,
    notice: plays
      ? 'Visitors get another of its sources, after waiting for this one in vain.'
      : 'Visitors have a player in which nothing plays.',
    cure: 'Write the address that the file has, or put it where it is looked for.',
  }),
  brief: ({ tag }) => (tag === 'video' ? 'a film that is not there' : 'a sound that is not there'),
  samples: [
    {
      address: 'https://media.loam.example/pea.mp4',
      why: 'its address is answered with 404',
      tag: 'video',
      plays: false,
    },
    {
      address: 'https://media.loam.example/pea.mp4',
      why: 'its address is answered with 404',
      tag: 'video',
      plays: true,
    },
  ],
  examples: {
    faulty: [
      {
        name: 'a film that is not there',
        code: '<video src="https://media.loam.example/nosuchbean.mp4" muted controls playsinline poster="https://static.rootcellar.example/talk.png" style="width: 100%; aspect-ratio: 16 / 9"><track kind="captions" srclang="en" src="data:text/vtt,WEBVTT"></video>',
      },
    ],
    sound: [
      {
        name: 'a film that is there',
        code: '<video src="https://media.loam.example/talk.mp4" controls playsinline poster="https://static.rootcellar.example/talk.png" style="width: 100%; aspect-ratio: 16 / 9"><track kind="captions" srclang="en" src="data:text/vtt,WEBVTT"></video>',
      },
    ],
  },
});
