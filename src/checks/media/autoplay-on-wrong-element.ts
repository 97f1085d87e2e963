import { atPart } from '../../core/measure/blame.js';
import { defineCheck, type Fact } from '../../core/check.js';
import { flatMap } from '../../core/lists.js';
import { removeAttribute } from '../../core/mend/attribute.js';
import { getAttribute, type MarkupElement } from '../../core/markup/markup.js';
import { isKnownElement } from '../../core/standards/attributes.js';
import { FRAMES, MEDIA } from '../../core/standards/elements.js';
import { tell } from '../../core/tell.js';

interface Data {
  tag: string;
  kind: 'frame' | 'source' | 'other';
}

export default defineCheck({
  id: 'autoplay-on-wrong-element',
  subject: 'media',
  level: 'concern',
  title: 'Autoplay stands on an element that does not play',
  decided:
    'An HTML element other than video and audio has the attribute `autoplay`. Not custom elements, whose attributes are their own.',
  standard: 'HTML Living Standard, 4.8.11 Media elements',
  needs: [],
  markup: true,
  judge: ({ markup }): Fact<Data>[] =>
    flatMap(markup.elements, (element) => {
      const autoplay = getAttribute(element, 'autoplay');
      if (!autoplay || MEDIA.has(element.name) || !isKnownElement(element.name)) return [];
      return [
        tell.markup(atPart(element, 'autoplay', autoplay), {
          tag: element.name,
          kind: getKind(element),
        }),
      ];
    }),
  says: ({ tag, kind }) => ({
    message: `<${tag}> has no autoplay: the attribute does nothing.`,
    notice: 'Nothing starts by itself, although the code asks for it.',
    cure: CURES[kind],
  }),
  mend: (_, { culprit }) => removeAttribute(culprit, 'autoplay'),
  brief: ({ tag }) => `autoplay on <${tag}>`,
  samples: [
    { tag: 'source', kind: 'source' },
    { tag: 'iframe', kind: 'frame' },
    { tag: 'img', kind: 'other' },
  ],
  examples: {
    faulty: [
      {
        name: 'on a source',
        code: '<video controls playsinline poster="https://static.rootcellar.example/talk.png" style="width: 100%; aspect-ratio: 16 / 9"><source src="https://media.loam.example/talk.mp4" type="video/mp4" autoplay><track srclang="en" src="data:text/vtt,WEBVTT"></video>',
      },
      {
        name: 'on a picture',
        code: '<img autoplay src="https://static.rootcellar.example/beans.png" width="160" height="120" alt="Runner beans drying on a rack">',
      },
    ],
    sound: [
      {
        name: 'on a film',
        code: '<video autoplay muted playsinline controls src="https://media.loam.example/rain.mp4" poster="https://static.rootcellar.example/talk.png" style="width: 100%; aspect-ratio: 16 / 9"><track srclang="en" src="data:text/vtt,WEBVTT"></video>',
      },
      {
        name: 'on an element of its maker’s own',
        code: '<p>The talk</p><seed-player autoplay><a href="/talk">The talk as a film</a></seed-player>',
      },
    ],
  },
});

const CURES: Record<Data['kind'], string> = {
  frame:
    'Take it out. If it is to start by itself, its player’s address has to ask for that, and the frame’s `allow` to let it.',
  source:
    'Take it out. If the film is to start by itself, write `autoplay muted` on the <video> around.',
  other: 'Take it out.',
};

function getKind({ name }: MarkupElement): Data['kind'] {
  if (FRAMES.has(name)) return 'frame';
  return name === 'source' || name === 'track' ? 'source' : 'other';
}
