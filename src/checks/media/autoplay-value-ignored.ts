import { atPart, atTag } from '../../core/measure/blame.js';
import { defineCheck, type Fact } from '../../core/check.js';
import { flatMap } from '../../core/lists.js';
import { removeAttribute } from '../../core/mend/attribute.js';
import { MEDIA } from '../../core/standards/elements.js';
import type { MarkupAttribute } from '../../core/markup/markup.js';
import { tell } from '../../core/tell.js';

interface Data {
  name: string;
  value: string;
}

/** Boolean attributes of media (HTML Living Standard, 4.8.8, 4.8.9 and 4.8.11). */
const BOOLEAN = [
  'autoplay',
  'muted',
  'loop',
  'controls',
  'playsinline',
  'disablepictureinpicture',
  'disableremoteplayback',
];
const MEANT_OFF = /^(false|0|no|off|none|never|null|undefined)$/i;

export default defineCheck({
  id: 'autoplay-value-ignored',
  subject: 'media',
  level: 'concern',
  title: 'A value tries to switch off what is on by being there',
  decided:
    'A boolean attribute of a video or audio element has a value such as false, 0 or no: it is on whatever its value.',
  standard: 'HTML Living Standard, 2.3.2 Boolean attributes',
  needs: [],
  markup: true,
  // The value is the mistake; that the browser then refuses to play is what comes of it.
  explains: [
    {
      findings: [
        'autoplay-with-sound',
        'autoplay-without-inline',
        'autoplay-despite-reduced-motion',
        'audio-autoplays',
      ],
      anywhere: true,
    },
  ],
  judge(c): Fact<Data>[] {
    return flatMap(
      c.markup.elements.filter(({ name }) => MEDIA.has(name)),
      (element) =>
        element.attributes.filter(isMeantOff).map((attribute) => {
          const { name, value } = attribute;
          const at =
            name === 'autoplay' ? atTag(element, attribute) : atPart(element, name, attribute);
          return tell.markup(at, { name, value });
        }),
    );
  },
  says({ name, value }) {
    return {
      message: `${name}="${value}" does not switch ${name} off: the attribute is on whatever its value.`,
      notice: WHAT_HAPPENS[name] ?? 'The player does what the code seems to forbid.',
      cure: `Take \`${name}\` out altogether.`,
    };
  },
  mend: ({ name }, { culprit }) => removeAttribute(culprit, name),
  brief: ({ name, value }) => `${name}="${value}" does not switch it off`,
  samples: [
    { name: 'autoplay', value: 'false' },
    { name: 'muted', value: '0' },
  ],
  examples: {
    faulty: [
      {
        name: 'loop="no"',
        code: '<video src="https://media.loam.example/rain.mp4" muted playsinline controls loop="no" poster="https://static.rootcellar.example/talk.png" style="width: 100%; aspect-ratio: 16 / 9"><track srclang="en" src="data:text/vtt,WEBVTT"></video>',
      },
      {
        name: 'autoplay="false"',
        code: '<video src="https://media.loam.example/talk.mp4" autoplay="false" muted playsinline controls poster="https://static.rootcellar.example/talk.png" style="width: 100%; aspect-ratio: 16 / 9"><track srclang="en" src="data:text/vtt,WEBVTT"></video>',
      },
    ],
    sound: [
      {
        name: 'the attribute’s own name as its value',
        code: '<video src="https://media.loam.example/rain.mp4" muted="muted" playsinline controls="" loop="loop" poster="https://static.rootcellar.example/talk.png" style="width: 100%; aspect-ratio: 16 / 9"><track srclang="en" src="data:text/vtt,WEBVTT"></video>',
      },
      {
        name: 'preload="none" is a value with a meaning',
        code: '<video src="https://media.loam.example/talk.mp4" preload="none" playsinline controls poster="https://static.rootcellar.example/talk.png" style="width: 100%; aspect-ratio: 16 / 9"><track srclang="en" src="data:text/vtt,WEBVTT"></video>',
      },
    ],
  },
});

const WHAT_HAPPENS: Record<string, string> = {
  autoplay: 'The film tries to start by itself.',
  muted: 'The film plays without its sound.',
  loop: 'The film starts over again and again.',
  controls: 'The player’s controls are shown.',
  playsinline: 'The film plays in its place on a phone, not full screen.',
};

function isMeantOff({ name, value }: MarkupAttribute): boolean {
  return BOOLEAN.includes(name) && MEANT_OFF.test(value.trim());
}
