import { defineCheck, type Fact } from '../../core/check.js';
import { flatMap } from '../../core/lists.js';
import { getAttribute, type MarkupElement } from '../../core/markup/markup.js';
import { atPart } from '../../core/measure/blame.js';
import { getForeignAddress, type Feature } from '../../core/measure/permissions.js';
import { tell } from '../../core/tell.js';
import { joinWords } from '../../core/words/list.js';

interface Data {
  features: Feature[];
  /** `allow` with what is given to any origin given to the frame’s own alone. */
  allow: string;
}

/** What lets a page see, hear, find, pay or reach a device. */
const GRAVE =
  /^(camera|microphone|geolocation|payment|display-capture|usb|serial|hid|bluetooth|midi|clipboard-read|publickey-credentials-(get|create)|identity-credentials-get|local-fonts|idle-detection|window-management|xr-spatial-tracking|screen-wake-lock|accelerometer|gyroscope|magnetometer)$/;

export default defineCheck({
  id: 'frame-granted-too-much',
  subject: 'frames',
  level: 'concern',
  title: 'A frame is given more than it needs',
  decided:
    'The `allow` of a frame of another origin gives camera, microphone, place, payment or the like to any origin (`*`), whatever the frame is led to. Whether its page asks for what it is given is not judged: it may do so only when it is used.',
  standard: 'Permissions Policy, 5.2; HTML Living Standard, 4.8.5 The iframe element (allow)',
  needs: [],
  markup: true,
  judge: ({ markup, house }): Fact<Data>[] =>
    flatMap(markup.elements, (element) => {
      const allow = element.name === 'iframe' ? getAttribute(element, 'allow') : null;
      const found = allow && getForeignAddress(element, house.origin) ? readOpen(element) : null;
      return allow && found ? [tell.markup(atPart(element, 'allow', allow), found)] : [];
    }),
  says: ({ features }) => ({
    message: `\`allow\` gives ${joinWords(features)} to any origin (\`*\`).`,
    notice:
      'Whatever the frame is led to, by its own page or by an advert in it, may ask for it in your name.',
    cure: 'Give it to the frame’s own origin: leave out the `*`, or take out what it does not use.',
  }),
  mend: ({ allow }, { culprit }) =>
    culprit.at === 'element'
      ? [{ do: 'set-attribute', element: culprit.offset, name: 'allow', value: allow }]
      : null,
  brief: ({ features }) => `${joinWords(features)} for any origin`,
  samples: [{ features: ['camera', 'microphone'], allow: 'camera; microphone' }],
  examples: {
    faulty: [
      {
        name: 'the place for anybody',
        code: '<iframe title="Map of beds" src="https://maps.fernmap.example/embed/glasshouse" allow="geolocation *" style="border: 0; width: 100%; height: 240px"></iframe>',
      },
    ],
    sound: [
      {
        name: 'the place for the map alone',
        code: '<iframe title="Map of beds" src="https://maps.fernmap.example/embed/glasshouse" allow="geolocation" style="border: 0; width: 100%; height: 240px"></iframe>',
      },
      {
        name: 'full screen for anybody',
        code: '<iframe title="Map of beds" src="https://maps.fernmap.example/embed/glasshouse" allow="fullscreen *" style="border: 0; width: 100%; height: 240px"></iframe>',
      },
    ],
  },
});

function readOpen(element: MarkupElement): Data | null {
  const parts = (getAttribute(element, 'allow')?.value ?? '').split(';');
  const all = parts.map((part) => {
    const [name = '', ...to] = part.trim().split(/\s+/);
    const isOpen = GRAVE.test(name.toLowerCase()) && to.includes('*');
    return {
      name,
      isOpen,
      text: isOpen ? [name, ...to.filter((one) => one !== '*')].join(' ') : part.trim(),
    };
  });
  const features = all.filter(({ isOpen }) => isOpen).map(({ name }) => name.toLowerCase());
  const allow = all
    .map(({ text }) => text)
    .filter(Boolean)
    .join('; ');
  return features.length > 0 ? { features, allow } : null;
}
