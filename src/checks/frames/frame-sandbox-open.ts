import { atPart } from '../../core/measure/blame.js';
import { defineCheck, type Fact } from '../../core/check.js';
import type { House } from '../../core/house/house.js';
import { flatMap } from '../../core/lists.js';
import { getAttribute, getValue, type MarkupElement } from '../../core/markup/markup.js';
import { parseAddress } from '../../core/measure/site.js';
import { tell } from '../../core/tell.js';
import { joinWords } from '../../core/words/list.js';
import { findSlip } from '../../core/words/slip.js';

interface Data {
  /** Values that the standard does not know; none where it is open by those that it knows. */
  unknown: string[];
  /** What must have been meant, as the attribute’s value; null where nobody knows. */
  instead: string | null;
}

export default defineCheck({
  id: 'frame-sandbox-open',
  subject: 'frames',
  level: 'concern',
  title: 'A frame’s sandbox holds nothing back',
  decided:
    'Its `sandbox` has `allow-scripts` and `allow-same-origin`, and its document is of the page’s own origin; or it has values that the standard does not know.',
  standard: 'HTML Living Standard, 4.8.5 The iframe element (sandbox)',
  needs: [],
  markup: true,
  judge: ({ markup, house }): Fact<Data>[] =>
    flatMap(markup.elements, (element) => {
      const sandbox = element.name === 'iframe' ? getAttribute(element, 'sandbox') : null;
      if (!sandbox) return [];
      const values = sandbox.value.toLowerCase().split(/\s+/).filter(Boolean);
      const unknown = values.filter((value) => !KNOWN.has(value));
      const open = ['allow-scripts', 'allow-same-origin'].every((one) => values.includes(one));
      if (unknown.length === 0 && !(open && isOwn(element, house.origin))) return [];
      return [
        tell.markup(atPart(element, 'sandbox', sandbox), {
          unknown,
          instead: unknown.length > 0 ? findMeant(element, values, house) : null,
        }),
      ];
    }),
  says: ({ unknown, instead }) =>
    unknown.length > 0
      ? {
          message: `The sandbox does not know ${joinWords(unknown.map((one) => `\`${one}\``))}.`,
          notice: 'The frame may do less than was meant: browsers pass over such words.',
          cure:
            instead === null
              ? 'Write values of the standard, such as `allow-scripts`, or take it out.'
              : `Write its values as the standard has them, with spaces between: \`sandbox="${instead}"\`.`,
        }
      : {
          message:
            'Scripts in this frame can take its own sandbox off: it is of the page’s origin.',
          notice: 'What runs in the frame can do all that the page can.',
          cure: 'Take `allow-same-origin` out, or `allow-scripts`.',
        },
  brief: ({ unknown }) =>
    unknown.length > 0 ? 'a sandbox with unknown values' : 'an open sandbox',
  mend: ({ instead }, { culprit }) =>
    instead === null || culprit.at !== 'element'
      ? null
      : [{ do: 'set-attribute', element: culprit.offset, name: 'sandbox', value: instead }],
  samples: [
    { unknown: [], instead: null },
    { unknown: ['allow-script'], instead: 'allow-scripts' },
    { unknown: ['loose'], instead: null },
  ],
  examples: {
    faulty: [
      {
        name: 'a document of one’s own that may do all',
        code: '<iframe title="Order seed" sandbox="allow-scripts allow-same-origin" srcdoc="<p style=\'margin: 0; height: 40px\'>Order</p>" style="border: 0; width: 100%; height: 60px"></iframe>',
      },
      {
        name: 'a word that is none',
        code: '<iframe title="Order seed" sandbox="allow-script" srcdoc="<p style=\'margin: 0; height: 40px\'>Order</p>" style="border: 0; width: 100%; height: 60px"></iframe>',
      },
    ],
    sound: [
      {
        name: 'a document of one’s own that may run scripts only',
        code: '<iframe title="Order seed" sandbox="allow-scripts" srcdoc="<p style=\'margin: 0; height: 40px\'>Order</p>" style="border: 0; width: 100%; height: 60px"></iframe>',
      },
      {
        name: 'somebody else’s document',
        code: '<iframe title="Map of beds" sandbox="allow-scripts allow-same-origin allow-popups" src="https://maps.fernmap.example/embed/glasshouse" style="border: 0; width: 100%; height: 300px"></iframe>',
      },
    ],
  },
});

const KNOWN = new Set(
  'forms modals orientation-lock pointer-lock popups popups-to-escape-sandbox presentation same-origin scripts top-navigation top-navigation-by-user-activation top-navigation-to-custom-protocols downloads storage-access-by-user-activation'
    .split(' ')
    .map((name) => `allow-${name}`),
);

/** The same with spaces in the place of commas, and slips mended, where that leaves nothing unknown, and nothing open. */
function findMeant(element: MarkupElement, values: readonly string[], { origin }: House) {
  const parts = flatMap(values, (value) => value.split(/[,;]+/).filter(Boolean));
  const meant = parts.map((part) => (KNOWN.has(part) ? part : findSlip(part, [...KNOWN])));
  if (meant.some((one) => one === null)) return null;
  const open = ['allow-scripts', 'allow-same-origin'].every((one) => meant.includes(one));
  return open && isOwn(element, origin) ? null : [...new Set(meant)].join(' ');
}

/** Whether its document has the page's origin: written out here, or by its address. */
function isOwn(element: MarkupElement, origin: string): boolean {
  if (getValue(element, 'srcdoc') !== null) return true;
  const address = parseAddress((getValue(element, 'src') ?? '').trim(), origin);
  return address !== null && address.origin === new URL(origin).origin;
}
