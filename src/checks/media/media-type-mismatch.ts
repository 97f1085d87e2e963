import { defineCheck, makeSeen, type Fact } from '../../core/check.js';
import { flatMap, mapPresent } from '../../core/lists.js';
import { nameContainer } from '../../core/measure/container.js';
import { findAnswer, isThere } from '../../core/measure/failed.js';
import { listMediaSources } from '../../core/measure/media-sources.js';
import type { Intent } from '../../core/mend/intent.js';
import { tell } from '../../core/tell.js';
import { joinWords } from '../../core/words/list.js';

interface Data {
  address: string;
  /** The `type` attribute, the answer’s content type and what the file is; null where that is not known. */
  declared: string | null;
  sent: string | null;
  file: string | null;
}

type Measured = { asked: string | null; happened: string | null };

export default defineCheck({
  id: 'media-type-mismatch',
  subject: 'media',
  level: 'concern',
  title: 'A film or a sound is said to be of another type than it is',
  decided:
    'Of the `type` of a source, the content type that its address is answered with, and what the file is by its first bytes, two that name a kind of file name different ones. Types that name none, such as application/octet-stream, are left out.',
  standard: 'HTML Living Standard, 4.8.11.3 MIME types; WHATWG MIME Sniffing, 6.2',
  needs: ['media', 'traffic'],
  markup: false,
  judge: (c): Fact<Data, Measured>[] =>
    flatMap(c.renders, (render) =>
      flatMap(render.media, (medium) =>
        mapPresent(listMediaSources(c.markup, medium, c.house.origin), (source) => {
          const answer = findAnswer(source.address, render.traffic);
          if (!answer || !isThere(answer)) return null;
          const { contentType: sent, container: file } = answer;
          const declared = source.type?.value.trim() || null;
          const data = { address: source.address, declared, sent, file };
          if (listKinds(data).length < 2) return null;
          const seen = makeSeen(render, { asked: declared ?? sent, happened: file ?? sent });
          return tell.seen({ ...source, where: source.type ?? source.where }, data, seen, {
            group: source.address,
          });
        }),
      ),
    ),
  says: ({ address, declared, sent, file }) => {
    const parts = [
      declared && `it is said to be ${declared}`,
      sent && `its host sends it as ${sent}`,
      file && `the file is ${nameContainer(file) ?? file}`,
    ].filter((one) => one !== null);
    return {
      message: `The types of a file do not agree: ${joinWords(parts)} (${address}).`,
      notice: 'Some browsers pass it over, or do not play it.',
      cure: mendsType({ declared, file: file ?? sent })
        ? 'Write the type that the file has into `type`, or leave that out.'
        : 'Have its host send it as what it is.',
    };
  },
  mend({ declared, sent, file }, { culprit }): Intent[] | null {
    const actual = file ?? sent;
    if (culprit.at !== 'element' || !actual || !mendsType({ declared, file: actual })) return null;
    return [{ do: 'set-attribute', element: culprit.offset, name: 'type', value: actual }];
  },
  samples: [
    {
      address: 'https://media.loam.example/pea.mp4',
      declared: 'video/webm',
      sent: 'video/mp4',
      file: 'video/mp4',
    },
    {
      address: 'https://media.loam.example/pea.mp4',
      declared: null,
      sent: 'video/webm',
      file: 'video/mp4',
    },
  ],
  examples: {
    faulty: [
      {
        name: 'an MP4 that is called WebM',
        code: '<video controls playsinline poster="https://static.rootcellar.example/talk.png" style="width: 100%; aspect-ratio: 16 / 9"><source src="https://media.loam.example/talk.mp4" type="video/webm"><track kind="captions" srclang="en" src="data:text/vtt,WEBVTT"></video>',
      },
      {
        name: 'a host that calls it something else',
        code: '<video src="https://media.loam.example/as/webm/talk.mp4" controls playsinline poster="https://static.rootcellar.example/talk.png" style="width: 100%; aspect-ratio: 16 / 9"><track kind="captions" srclang="en" src="data:text/vtt,WEBVTT"></video>',
      },
    ],
    sound: [
      {
        name: 'an MP4 that is called so',
        code: '<video controls playsinline poster="https://static.rootcellar.example/talk.png" style="width: 100%; aspect-ratio: 16 / 9"><source src="https://media.loam.example/talk.mp4" type=\'video/mp4; codecs="avc1.42E01E, mp4a.40.2"\'><track kind="captions" srclang="en" src="data:text/vtt,WEBVTT"></video>',
      },
      {
        name: 'a host that does not say',
        code: '<video src="https://media.loam.example/as/octet-stream/talk.mp4" controls playsinline poster="https://static.rootcellar.example/talk.png" style="width: 100%; aspect-ratio: 16 / 9"><track kind="captions" srclang="en" src="data:text/vtt,WEBVTT"></video>',
      },
    ],
  },
});

/** The kinds of file that are named, each once. */
function listKinds({ declared, sent, file }: Omit<Data, 'address'>): string[] {
  return [...new Set(mapPresent([declared, sent, file], nameContainer))];
}

/** Whether it is the attribute that is wrong. */
function mendsType({ declared, file }: Pick<Data, 'declared' | 'file'>): boolean {
  return declared !== null && nameContainer(declared) !== nameContainer(file);
}
