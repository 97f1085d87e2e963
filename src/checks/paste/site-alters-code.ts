import { defineCheck, type Fact } from '../../core/check.js';
import { listAlterations, type Alteration } from '../../core/markup/filtered.js';
import type { MarkupElement } from '../../core/markup/markup.js';
import { FRAMES, MEDIA, REPLACED } from '../../core/standards/elements.js';
import { countWords } from '../../core/words/list.js';

interface Data {
  what: Alteration['what'];
  name: string;
  /** In how many places the same is done. */
  places: number;
}

export default defineCheck({
  id: 'site-alters-code',
  subject: 'paste',
  level: 'concern',
  title: 'The site changes the code when it takes it in',
  decided:
    'What the house’s `filter` says that the site does: elements and attributes are taken out, single line breaks in running text become `<br>`, it is cut at a length. A blocker where what goes is code, a frame, a player, a field or an address, or where it is cut. A paragraph around a run of text changes nothing.',
  standard: null,
  needs: [],
  markup: true,
  judge({ markup, house }): Fact<Data>[] {
    if (!house.filter) return [];
    const groups = new Map<string, Alteration[]>();
    for (const one of listAlterations(markup, house.filter)) {
      const key = `${one.what} ${one.name}`;
      groups.set(key, [...(groups.get(key) ?? []), one]);
    }
    return [...groups.values()].map((all): Fact<Data> => {
      const [{ what, name, where }] = all as [Alteration];
      return {
        where,
        culprit: { at: 'snippet', what: `altered ${what} ${name}` },
        level: all.some(changesBehaviour) ? 'blocker' : 'concern',
        confirmed: true,
        data: { what, name, places: all.length },
        seen: [],
      };
    });
  },
  says: ({ what, name, places }) => ({
    message: `${MESSAGES[what](name)}${places > 1 ? `, in ${countWords(places, 'place')}` : ''}.`,
    ...WORDS[what],
  }),
  brief: ({ what, name }) => BRIEFS[what](name),
  samples: [
    { what: 'element', name: 'script', places: 1 },
    { what: 'attribute', name: 'onclick', places: 2 },
    { what: 'break', name: 'br', places: 3 },
    { what: 'cut', name: '', places: 1 },
  ],
  examples: {
    faulty: [
      {
        name: 'a site that takes scripts out',
        code: '<p id="sown">Sown</p><script>document.querySelector("#sown").append(" in May")</script>',
        under: { filter: { remove: ['script'] } },
      },
      {
        name: 'a site that makes lines of a line',
        code: '<p>Sow thinly,\n<b>water</b>,\nand wait.</p>',
        under: { filter: { wrapLinesIn: 'p' } },
      },
    ],
    sound: [
      {
        name: 'nothing that the site takes out',
        code: '<p id="sown">Sown in May</p>',
        under: { filter: { remove: ['script', '@onclick'], maxLength: 20000 } },
      },
      {
        name: 'lines of their own',
        code: '<h2>Beans</h2>\n<p>Sow thinly, water, and wait.</p>\n\n<p>Reap.</p>',
        under: { filter: { wrapLinesIn: 'p' } },
      },
    ],
  },
});

const MESSAGES: Record<Alteration['what'], (name: string) => string> = {
  element: (name) => `The site takes <${name}> out`,
  attribute: (name) => `The site takes the attribute ${name} out`,
  break: () => 'The site makes a <br> of the line break',
  cut: () => 'The site cuts the code off here',
};

const BRIEFS: Record<Alteration['what'], (name: string) => string> = {
  element: (name) => `the site takes <${name}> out`,
  attribute: (name) => `the site takes ${name} out`,
  break: () => 'the site breaks its lines',
  cut: () => 'the site cuts it off',
};

const WORDS: Record<Alteration['what'], { notice: string; cure: string }> = {
  element: {
    notice: 'On the published page it is missing, with what is in it.',
    cure: 'Put it in another way that the site leaves as it is, or do without.',
  },
  attribute: {
    notice: 'On the published page what it does or says is missing.',
    cure: 'Say the same in a way that the site leaves as it is, or do without.',
  },
  break: {
    notice: 'On the published page there are line breaks that nobody meant.',
    cure: 'Write what belongs to one line in one line.',
  },
  cut: {
    notice: 'On the published page the rest is missing, and what was open there is never closed.',
    cure: 'Make it shorter, or put it where the site takes code of its length.',
  },
};

/** Elements that do something, or bring something in. */
const ACTIVE = new Set(
  [
    ...FRAMES,
    ...MEDIA,
    ...REPLACED,
    'script',
    'form',
    'button',
    'a',
    'link',
    'source',
    'template',
  ].filter((name) => name !== 'svg'),
);
const ACTIVE_ATTRIBUTES =
  /^(on.*|src|srcset|srcdoc|href|data|data-.*|action|poster|allow|allowfullscreen|autoplay|muted|playsinline|controls|id|name|type|value|sandbox|is|slot|shadowrootmode)$/;

function changesBehaviour({ what, name, element }: Alteration): boolean {
  if (what === 'cut') return true;
  if (what === 'attribute') return ACTIVE_ATTRIBUTES.test(name);
  return element !== null && hasActive(element);
}

function hasActive({ name, children }: MarkupElement): boolean {
  return ACTIVE.has(name) || name.includes('-') || children.some(hasActive);
}
