import { defineCheck, makeSeen, type Fact, type RenderOf } from '../../core/check.js';
import type { PictureFact } from '../../core/evidence.js';
import { flatMap } from '../../core/lists.js';
import { atAttribute, blameElement } from '../../core/measure/blame.js';
import { SVG } from '../../core/measure/pictures.js';
import { isOfAddress } from '../../core/measure/same-address.js';
import { tellFailure, type Failure } from '../../core/measure/failed.js';
import { tell } from '../../core/tell.js';

interface Data {
  address: string;
  why: string;
  kind: Failure['kind'] | 'content';
}

export default defineCheck({
  id: 'picture-missing',
  subject: 'pictures',
  level: 'blocker',
  title: 'A picture is missing',
  decided:
    'The file of an img is answered with an error, not at all, or with something that is no picture. Not with 401, 403 or 429: visitors may see more; nor where the run itself kept it back.',
  standard: 'HTML Living Standard, 4.8.4.3 Images: Processing model',
  needs: ['pictures', 'traffic'],
  markup: false,
  explains: [
    { findings: ['nothing-rendered'], anywhere: true, fits: () => true },
    { findings: ['request-failed'], anywhere: true, fits: isOfAddress },
  ],
  judge: (c): Fact<Data>[] =>
    flatMap(c.renders, (render) =>
      flatMap(render.pictures, (picture): Fact<Data>[] => {
        const data = findFault(picture, render);
        if (!data) return [];
        const blame = blameElement(c.markup, picture);
        return [
          tell.seen(
            atAttribute(c.markup, blame, 'src', 'srcset'),
            data,
            makeSeen(render, { asked: data.address, happened: data.why }),
          ),
        ];
      }),
    ),
  says: ({ address, why }) => ({
    message: `The picture does not come: ${why} (${address}).`,
    notice: 'Visitors see a torn picture and its alt text, or a gap.',
    cure: 'Write the address that the picture has, or put the file where it is looked for.',
  }),
  brief: ({ kind }) =>
    kind === 'content' ? 'a picture that is none' : 'a picture that is not there',
  samples: [
    {
      address: 'https://static.rootcellar.example/pea.png',
      why: 'its address is answered with 404',
      kind: 'status',
    },
  ],
  examples: {
    faulty: [
      {
        name: 'a file that is not there',
        code: '<p>Sow in May.</p><img src="https://static.rootcellar.example/no-such-bean.png" width="160" height="120" alt="Runner beans">',
      },
    ],
    sound: [
      {
        name: 'a file that is there',
        code: '<img src="https://static.rootcellar.example/beans.png" width="160" height="120" alt="Runner beans drying on a rack">',
      },
      {
        name: 'a picture in the address itself',
        code: '<img src="data:image/gif;base64,R0lGODlhAQABAIAAAAAAAP///ywAAAAAAQABAAACAUwAOw==" width="9" height="9" alt="Bean">',
      },
    ],
  },
});

function findFault(
  { tag, loaded, address }: PictureFact,
  { traffic }: RenderOf<'traffic'>,
): Data | null {
  if (tag !== 'img' || loaded || !/^https?:/.test(address)) return null;
  const fault = tellFailure(address, traffic);
  if (fault) return { address, ...fault };
  // What came whole, and yet is none.
  const came = traffic.some(
    (one) =>
      one.first === address && one.status === 200 && one.failed === null && one.waited !== null,
  );
  if (!came || SVG.test(address)) return null;
  return { address, why: 'what comes is no picture that browsers can show', kind: 'content' };
}
