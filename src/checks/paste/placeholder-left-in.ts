import { defineCheck, type Fact } from '../../core/check.js';
import { flatMap } from '../../core/lists.js';
import { getValue, type MarkupAttribute, type MarkupElement } from '../../core/markup/markup.js';
import { isScript } from '../../core/markup/traits.js';
import type { Markup } from '../../core/markup/markup.js';

interface Data {
  name: string;
  /** What is left in; '' for an address that is empty. */
  filler: string;
}

/** What templates and instructions leave to be filled in. */
const FILLERS = [
  /\{\{[^{}]*\}\}/,
  /<%[\s\S]*?%>/,
  /\$\{[^{}]*\}/,
  /%%[A-Z][A-Z0-9_]*%%/,
  /\[\[[^[\]]*\]\]/,
  /\[(?:YOUR|INSERT|ADD|ENTER)[ _-][^\]]*\]/i,
  /(?<![A-Za-z])(?:YOUR|INSERT|REPLACE|CHANGE|ENTER)[_-][A-Z0-9]+(?:[_-][A-Z0-9]+)*(?![a-z])/,
  /(?<![A-Za-z])(?:YOURID|YOURKEY|CHANGEME|REPLACEME)(?![A-Za-z])/i,
  /(?<![A-Za-z])your[_-](?:api[_-]?key|id|account[_-]?id|key|token|video[_-]?id|domain|url|code)(?:[_-]here)?(?![\w])/i,
  /(?<![A-Za-z0-9])X{4,}(?![A-Za-z0-9])/,
  /(?<![A-Za-z])__[A-Z][A-Z0-9_]*__(?![A-Za-z])/,
];
/** What all of these have some of. */
const SOME = /\{\{|<%|\$\{|%%|\[|__|your|insert|replace|change|enter|xxxx/i;
/** What is for people to read, or for code to run. */
const WORDS =
  /^(alt|title|placeholder|value|label|summary|aria-.*|on.*|style|class|pattern|content)$/;
/** Prefixes and names of templates that run in the browser. */
const BOUND = /^(:|@|v-|x-|ng-|hx-|\*|\[|\(|#)/;
const ADDRESSES: Record<string, string> = {
  iframe: 'src',
  img: 'src',
  script: 'src',
  video: 'src',
  audio: 'src',
  source: 'src',
  embed: 'src',
  object: 'data',
};

export default defineCheck({
  id: 'placeholder-left-in',
  subject: 'paste',
  level: 'blocker',
  title: 'A template’s filler was left in',
  decided:
    'An address, an id or another attribute for machines still holds what was to be filled in (YOUR_…, INSERT_…, {{…}}, XXXX), or a frame, picture, script or player has an empty address. Not where a data attribute holds the address (lazy loading), nor what the house names under `expands`.',
  standard: null,
  needs: [],
  markup: true,
  // What was to be filled in is what is missing.
  explains: [
    {
      findings: ['frame-refused', 'autoplay-did-not-start'],
      anywhere: true,
    },
    { findings: ['script-error'], anywhere: true, fits: () => true },
  ],
  judge: (c): Fact<Data>[] =>
    [
      ...flatMap(c.markup.elements, (element) => judgeElement(element)),
      ...flatMap(c.markup.elements.filter(isScript), (script) => judgeScript(c.markup, script)),
      // What the site fills in by itself is as it should be.
    ].filter(({ data: { filler } }) => !c.house.expands.some((own) => filler.includes(own))),
  says: ({ name, filler }) => ({
    message:
      filler === ''
        ? `${name}="" is empty: the address was never filled in.`
        : `“${filler}” in ${name} was to be filled in.`,
    notice: 'What it is to show, load or count does not come, or comes from somebody else.',
    cure:
      filler === '' ? 'Put the address in.' : `Put the real value in the place of \`${filler}\`.`,
  }),
  brief: ({ name, filler }) => (filler === '' ? `${name} is empty` : `${filler} was left in`),
  samples: [
    { name: 'src', filler: 'YOUR_ID' },
    { name: 'src', filler: '' },
  ],
  examples: {
    faulty: [
      {
        name: 'an account’s number',
        code: '<p>Sow in May.</p><div data-account="YOUR_ACCOUNT_ID">Calendar</div>',
      },
      {
        name: 'an empty address',
        code: '<p>The talk</p><audio controls src="" style="width: 100%"></audio>',
      },
    ],
    sound: [
      {
        name: 'words for people',
        code: '<p>Sow in May.</p><input aria-label="Seed" placeholder="YOUR SEED">',
      },
      {
        name: 'an address for later',
        code: '<img src="" data-src="https://static.rootcellar.example/beans.png" alt="Beans">',
      },
    ],
  },
});

function judgeElement(element: MarkupElement): Fact<Data>[] {
  return flatMap(element.attributes, (attribute): Fact<Data>[] => {
    const { name } = attribute;
    const filler = findFiller(attribute);
    if (filler === null && !isEmptyAddress(element, attribute)) return [];
    return [
      {
        where: { offset: attribute.offset, endOffset: attribute.endOffset },
        culprit: { at: 'element', offset: element.offset },
        group: name,
        data: { name, filler: filler ?? '' },
        seen: [],
      },
    ];
  });
}

function findFiller({ name, value }: MarkupAttribute): string | null {
  if (!SOME.test(value) || BOUND.test(name) || WORDS.test(name)) return null;
  for (const pattern of FILLERS) {
    const match = pattern.exec(value);
    if (match) return match[0];
  }
  return null;
}

function isEmptyAddress(element: MarkupElement, { name, value }: MarkupAttribute): boolean {
  if (ADDRESSES[element.name] !== name || value.trim() !== '') return false;
  const elsewhere = ['srcset', 'srcdoc'].some((one) => getValue(element, one)?.trim());
  const later = element.attributes.some((one) => one.name.startsWith('data-') && one.value.trim());
  return !elsewhere && !later;
}

/** In the text of a script, only in its strings, and only what is written like a filler of instructions. */
function judgeScript({ text }: Markup, script: MarkupElement): Fact<Data>[] {
  if (getValue(script, 'src') !== null) return [];
  const pattern = /(["'`])([^"'`\n]*)\1/g;
  for (const match of text.slice(script.tagEnd, script.endOffset).matchAll(pattern)) {
    const filler = /(?<![A-Za-z])(?:YOUR|INSERT|REPLACE)[_-][A-Z0-9]+(?:[_-][A-Z0-9]+)*|X{4,}/.exec(
      match[2]!,
    )?.[0];
    if (!filler) continue;
    const offset = script.tagEnd + match.index;
    return [
      {
        where: { offset, endOffset: offset + match[0].length },
        culprit: { at: 'element', offset: script.offset },
        group: 'script',
        data: { name: 'the script', filler },
        seen: [],
      },
    ];
  }
  return [];
}
