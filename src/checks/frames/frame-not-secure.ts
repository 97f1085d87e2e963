import { atPart } from '../../core/measure/blame.js';
import { defineCheck, type Fact } from '../../core/check.js';
import { mapPresent } from '../../core/lists.js';
import { getFrameSource } from '../../core/markup/embeds.js';
import { getPrivateHostKind } from '../../core/measure/private-address.js';
import { parseAddress } from '../../core/measure/site.js';
import { tell } from '../../core/tell.js';

interface Data {
  address: string;
  /** The offset of the frame's tag. */
  element: number;
}

export default defineCheck({
  id: 'frame-not-secure',
  subject: 'frames',
  level: 'blocker',
  title: 'A frame’s address is not secure',
  decided:
    'The address of a frame begins with `http:`, and the page is served by `https:`: browsers do not load it. Not of this machine itself.',
  standard: 'Mixed Content; Fetch',
  needs: [],
  markup: true,
  explains: [
    {
      findings: [
        'frame-refused',
        'frame-cuts-content',
        'frame-mostly-empty',
        'frame-scrolls-sideways',
        'frame-height-collapsed',
      ],
      anywhere: true,
      fits: ({ culprit }, { element }: Data) =>
        culprit.at === 'element' && culprit.offset === element,
    },
  ],
  judge: ({ markup, house }): Fact<Data>[] =>
    mapPresent(markup.elements, (element) => {
      const source = getFrameSource(element);
      const url = source && parseAddress(source.value.trim(), house.origin);
      const secure = house.origin.startsWith('https:');
      if (!source || !secure || url?.protocol !== 'http:') return null;
      if (getPrivateHostKind(url.hostname)) return null;
      return tell.markup(atPart(element, 'src', source), {
        address: url.href,
        element: element.offset,
      });
    }),
  says: ({ address }) => ({
    message: `The frame’s address is not secure (${address}).`,
    notice: 'On a page of https: browsers leave the frame empty.',
    cure: 'Use its address with https:, if it answers there; else ask its maker for one that does.',
  }),
  brief: () => 'a frame by http: on a page by https:',
  samples: [{ address: 'http://maps.fernmap.example/embed/x', element: 0 }],
  examples: {
    faulty: [
      {
        name: 'a map by http',
        code: '<iframe title="Map of beds" src="http://maps.fernmap.example/embed/glasshouse" style="border: 0; width: 100%; height: 300px"></iframe>',
      },
    ],
    sound: [
      {
        name: 'a map by https',
        code: '<iframe title="Map of beds" src="https://maps.fernmap.example/embed/glasshouse" style="border: 0; width: 100%; height: 300px"></iframe>',
      },
      {
        name: 'a map by whatever the page has',
        code: '<iframe title="Map of beds" src="//maps.fernmap.example/embed/glasshouse" style="border: 0; width: 100%; height: 300px"></iframe>',
      },
    ],
  },
});
