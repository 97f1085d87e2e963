import { atTag } from '../../core/measure/blame.js';
import { defineCheck, makeSeen, type Case, type Fact, type Seen } from '../../core/check.js';
import { flatMap } from '../../core/lists.js';
import { isHidden } from '../../core/markup/hidden.js';
import {
  getElementAt,
  getValue,
  listAround,
  type Markup,
  type MarkupAttribute,
  type MarkupElement,
} from '../../core/markup/markup.js';
import { isScript } from '../../core/markup/traits.js';
import { listRuns } from '../../core/markup/unparsed.js';
import { tell } from '../../core/tell.js';
import { findFiller, findFillerWords, mayHaveFillerWords } from '../../core/words/fillers.js';
import { shorten } from '../../core/words/list.js';
import { squeeze } from '../../core/words/squeeze.js';

interface Data {
  /** The attribute; null for a text that visitors read. */
  name: string | null;
  /** What is left in; '' for an address that is empty. */
  filler: string;
  /** The offset of the tag; null for a text outside of all. */
  element: number | null;
}

/** What shows code, or is not shown as it stands. */
const CODE = /^(code|pre|kbd|samp|var|template|noscript)$/;
/** What visitors read or hear of an attribute. */
const READ = /^(alt|title|placeholder|label|aria-label|aria-description)$/;
/** So much of a filler is quoted. */
const MOST = 40;

/** What is for people to read, or for code to run. */
const WORDS = /^(value|summary|aria-.*|on.*|style|class|pattern|content)$/;
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
    'An address, an id or another attribute for machines still holds what was to be filled in (YOUR_…, INSERT_…, {{…}}, XXXX), or a frame, picture, script or player has an empty address; a concern where it is a text that visitors read ({{…}}, [NAME HERE], filler Latin, TODO), and no script fills it in. Not where a data attribute holds the address (lazy loading), nor what the house names under `expands`.',
  standard: null,
  needs: ['texts'],
  markup: true,
  // What was to be filled in is what is missing.
  explains: [
    {
      findings: ['frame-refused', 'autoplay-did-not-start'],
      anywhere: true,
    },
    { findings: ['script-error'], anywhere: true, fits: () => true },
    {
      findings: ['player-address-malformed', 'frame-height-collapsed', 'picture-missing'],
      anywhere: true,
      fits: ({ culprit }, { element }: Data) =>
        culprit.at === 'element' && culprit.offset === element,
    },
  ],
  judge: (c): Fact<Data>[] =>
    [
      ...flatMap(c.markup.elements, (element) => judgeElement(element)),
      ...flatMap(c.markup.elements.filter(isScript), (script) => judgeScript(c.markup, script)),
      ...judgeTexts(c),
      // What the site fills in by itself is as it should be.
    ].filter(({ data: { filler } }) => !c.house.expands.some((own) => filler.includes(own))),
  says: ({ name, filler }) => ({
    message:
      filler === ''
        ? `${name}="" is empty: the address was never filled in.`
        : `“${shorten(filler, MOST)}” in ${name ?? 'the text'} was to be filled in.`,
    notice:
      name === null || READ.test(name)
        ? 'Visitors read a template’s words in the place of yours.'
        : 'What it is to show, load or count does not come, or comes from somebody else.',
    cure:
      filler === ''
        ? 'Put the address in.'
        : `Put what belongs there in the place of \`${shorten(filler, MOST)}\`.`,
  }),
  brief: ({ name, filler }) =>
    filler === '' ? `${name} is empty` : `${shorten(filler, MOST)} was left in`,
  samples: [
    { name: 'src', filler: 'YOUR_ID', element: 0 },
    { name: 'src', filler: '', element: 0 },
    { name: null, filler: '{{ event.title }}', element: 0 },
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
      { name: 'a text still to come', code: '<p>Come to {{ event.title }} on Saturday.</p>' },
    ],
    sound: [
      {
        name: 'words for people',
        code: '<p>Sow in May.</p><input aria-label="Seed" placeholder="YOUR SEED">',
      },
      {
        name: 'an address for later',
        code: '<img src="" data-src="https://static.rootcellar.example/beans.png" width="40" height="30" alt="Beans"><script>document.querySelectorAll("[data-src]").forEach((one) => (one.src = one.dataset.src))</script>',
      },
      {
        name: 'a text that a script fills in',
        code: '<p id="when">{{ day }}</p><script>document.querySelector("#when").textContent = "Saturday"</script>',
      },
      { name: 'a template shown as code', code: '<p>Write <code>{{ day }}</code> there.</p>' },
    ],
  },
});

function judgeElement(element: MarkupElement): Fact<Data>[] {
  return flatMap(element.attributes, (attribute): Fact<Data>[] => {
    const { name } = attribute;
    const filler = findIn(attribute);
    if (filler === null && !isEmptyAddress(element, attribute)) return [];
    return [
      tell.markup(
        atTag(element, attribute),
        { name, filler: filler ?? '', element: element.offset },
        { group: name, ...(READ.test(name) && { level: 'concern' as const }) },
      ),
    ];
  });
}

function findIn({ name, value }: MarkupAttribute): string | null {
  if (BOUND.test(name)) return null;
  if (READ.test(name)) return findFillerWords(value);
  return WORDS.test(name) ? null : findFiller(value);
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
      tell.markup(
        atTag(script, { offset, endOffset: offset + match[0].length }),
        { name: 'the script', filler, element: script.offset },
        { group: 'script' },
      ),
    ];
  }
  return [];
}

/** Texts that visitors read as they are written; without a browser all that are not hidden. */
function judgeTexts(c: Case<'texts'>): Fact<Data>[] {
  if (!mayHaveFillerWords(c.markup.text)) return [];
  return flatMap(listRuns(c.markup.text), (run): Fact<Data>[] => {
    const filler = findFillerWords(run.text);
    if (filler === null) return [];
    const element = getElementAt(c.markup, run.offset);
    const around = listAround(element);
    if (around.some(({ name }) => CODE.test(name))) return [];
    if (element && isHidden(c.markup, element)) return [];
    const seen = element ? findRead(c, element) : [];
    if (element && c.renders.length > 0 && seen.length === 0) return [];
    const offset = run.offset + run.text.indexOf(filler);
    return [
      tell.seen(
        {
          where: { offset, endOffset: offset + filler.length },
          culprit: element
            ? { at: 'element', offset: element.offset, part: 'text' }
            : { at: 'snippet', what: 'text' },
        },
        { name: null, filler, element: element?.offset ?? null },
        seen,
        { group: `text ${offset}`, level: 'concern' },
      ),
    ];
  });
}

/** Where an element’s text shows as it is written: a script may have filled it in. */
function findRead({ renders }: Case<'texts'>, element: MarkupElement): Seen[] {
  const written = squeeze(element.text);
  return flatMap(renders, (render) => {
    const shows = ({ from, shown, sample }: (typeof render.texts)[number]) =>
      'offset' in from && from.offset === element.offset && shown && written.startsWith(sample);
    return render.texts.some(shows) ? [makeSeen(render, {})] : [];
  });
}
