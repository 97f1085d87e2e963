import { defineCheck, makeSeen, type Fact } from '../../core/check.js';
import { flatMap } from '../../core/lists.js';
import { findAnswer, isWebPage } from '../../core/measure/failed.js';
import { isOfAddress } from '../../core/measure/same-address.js';
import { listMediaSources } from '../../core/measure/media-sources.js';
import { tell } from '../../core/tell.js';

interface Data {
  address: string;
  tag: 'video' | 'audio';
}

export default defineCheck({
  id: 'media-page-not-file',
  subject: 'media',
  level: 'blocker',
  title: 'The address of a film or a sound is that of a web page',
  decided: 'An address of a video or an audio is answered with a web page, and without an error.',
  standard: 'HTML Living Standard, 4.8.11.5 Loading the media resource',
  needs: ['media', 'traffic'],
  markup: false,
  explains: [{ findings: ['request-failed'], anywhere: true, fits: isOfAddress }],
  judge: (c): Fact<Data>[] =>
    flatMap(c.renders, (render) =>
      flatMap(render.media, ({ tag, ...medium }) =>
        flatMap(listMediaSources(c.markup, medium, c.house.origin), (source): Fact<Data>[] => {
          const { address } = source;
          const answer = findAnswer(address, render.traffic);
          if (!answer || !isWebPage(answer)) return [];
          const seen = makeSeen(render, { asked: address, answer: answer.contentType });
          const data = { address, tag };
          return [tell.seen(source, data, seen, { group: address })];
        }),
      ),
    ),
  says: ({ address, tag }) => ({
    message: `At the address of the ${tag} there is a web page, and no file (${address}).`,
    notice: 'Visitors have a player in which nothing plays.',
    cure: 'Use the address of the file itself; or, of a page to embed, an <iframe>.',
  }),
  brief: ({ tag }) => `a web page in the place of ${tag === 'video' ? 'a film' : 'a sound'}`,
  samples: [{ address: 'https://player.loam.example/embed/talk', tag: 'video' }],
  examples: {
    faulty: [
      {
        name: 'the page of a player',
        code: '<video src="https://player.loam.example/embed/talk" controls playsinline poster="https://static.rootcellar.example/talk.png" style="width: 100%; aspect-ratio: 16 / 9"><track kind="captions" srclang="en" src="data:text/vtt,WEBVTT"></video>',
      },
    ],
    sound: [
      {
        name: 'the file',
        code: '<video src="https://media.loam.example/talk.mp4" controls playsinline poster="https://static.rootcellar.example/talk.png" style="width: 100%; aspect-ratio: 16 / 9"><track kind="captions" srclang="en" src="data:text/vtt,WEBVTT"></video>',
      },
    ],
  },
});
