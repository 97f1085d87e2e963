import { groupBy } from '../../core/lists.js';
import { atSnippet } from '../../core/measure/blame.js';
import { defineCheck, type Fact, type Seen } from '../../core/check.js';
import { listAlterations, type Alteration } from '../../core/markup/filtered.js';
import type { MarkupElement } from '../../core/markup/markup.js';
import { FRAMES, MEDIA, REPLACED } from '../../core/standards/elements.js';
import { listEffects, NOTHING, type Effect } from '../../core/measure/altered.js';
import { tell } from '../../core/tell.js';
import { countWords, formatWidths, shorten } from '../../core/words/list.js';

interface Data {
  what: Alteration['what'];
  name: string;
  /** In how many places the same is done. */
  places: number;
  /** What is left of the code raises this error; null where it raises none. */
  error: string | null;
  /** What is left reaches so much further beyond the slot, px. */
  wider: number;
}

type Measured = Record<'higher' | 'wider', number>;

const KINDS = ['elements', 'slot', 'scripts'] as const;

export default defineCheck({
  id: 'site-alters-code',
  subject: 'paste',
  level: 'concern',
  title: 'The site changes the code when it takes it in',
  decided:
    'What the house’s `filter` says that the site does: elements and attributes are taken out, text is put into paragraphs and its single line breaks become `<br>`, it is cut at a length. The code that is left is rendered too. A blocker where what goes is code, a frame, a player, a field or an address, where it is cut, and where what is left raises an error or reaches further beyond the slot. Paragraphs and line breaks that move nothing are no change.',
  standard: null,
  needs: {
    kinds: KINDS,
    variants: ['as-is', 'filtered'],
    calls: (_, { markup, house }) =>
      house.filter !== undefined && listAlterations(markup, house.filter).length > 0,
  },
  markup: 'part',
  judge({ markup, house, renders }): Fact<Data, Measured>[] {
    if (!house.filter) return [];
    const all = listAlterations(markup, house.filter);
    const effects = listEffects(renders);
    const groups = groupBy(listTold(all, effects), ({ what, name }) => `${what} ${name}`);
    return [...groups.values()].map((group) => makeFact(group, effects));
  },
  says: ({ what, name, places, error, wider }, { seen }) => ({
    message: `${MESSAGES[what](name)}${places > 1 ? `, in ${countWords(places, 'place')}` : ''}.${tellEffect(error, wider, seen)}`,
    ...WORDS[what],
  }),
  measures: ({ higher, wider }) =>
    [sayChange(higher, 'higher', 'lower'), sayChange(wider, 'further out', 'less far out')]
      .filter(Boolean)
      .join(', '),
  brief: ({ what, name }) => BRIEFS[what](name),
  samples: [
    { what: 'element', name: 'script', places: 1, error: null, wider: 0 },
    { what: 'attribute', name: 'onclick', places: 2, error: null, wider: 0 },
    { what: 'break', name: 'br', places: 3, error: null, wider: 0 },
    { what: 'paragraph', name: 'p', places: 1, error: null, wider: 0 },
    { what: 'cut', name: '', places: 1, error: null, wider: 0 },
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
      {
        name: 'buttons that stand in a paragraph each',
        code: '<span style="padding: 8px">Beans</span>\n\n<span style="padding: 8px">Peas</span>',
        under: { filter: { wrapLinesIn: 'p' } },
      },
      {
        name: 'a style without which it is too wide',
        code: '<style>.bed { overflow: auto }</style><div class="bed"><div class="row" style="width: 1600px">Beans</div></div>',
        under: { filter: { remove: ['style'] } },
      },
    ],
    sound: [
      {
        name: 'nothing that the site takes out',
        code: '<p id="sown">Sown in May</p>',
        under: { filter: { remove: ['script', '@onclick'], maxLength: 20000 } },
      },
      {
        name: 'a paragraph that moves nothing',
        code: '<h2>Beans</h2>\nSow thinly, and reap in August.',
        under: { filter: { wrapLinesIn: 'p' } },
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
  paragraph: (name) => `The site puts a <${name}> around what stands here`,
  cut: () => 'The site cuts the code off here',
};

const BRIEFS: Record<Alteration['what'], (name: string) => string> = {
  element: (name) => `the site takes <${name}> out`,
  attribute: (name) => `the site takes ${name} out`,
  break: () => 'the site breaks its lines',
  paragraph: (name) => `the site puts it into a <${name}>`,
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
  paragraph: {
    notice: 'On the published page it stands in another place, or has another size.',
    cure: 'Put an element of your own around it, such as a <div>: the site leaves that as it is.',
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

/** Text put into lines and paragraphs is told where that was seen to move something; unseen, only its lines. */
function listTold(all: readonly Alteration[], effects: readonly Effect[]): Alteration[] {
  const isWrap = ({ what }: Alteration) => what === 'break' || what === 'paragraph';
  const wraps = all.filter(isWrap);
  const breaks = wraps.filter(({ what }) => what === 'break');
  const others = all.filter((one) => !isWrap(one));
  // What else goes moves things too.
  if (effects.length === 0 || others.length > 0) return [...others, ...breaks];
  const moved = effects.some(({ moved }) => moved);
  const higher = effects.some(({ higher }) => higher > NOTHING);
  if (breaks.length > 0) return moved || higher ? breaks : [];
  // Around all there is a paragraph adds room alone.
  return moved || (higher && wraps.length > 1) ? wraps : [];
}

function makeFact(group: readonly Alteration[], effects: readonly Effect[]): Fact<Data, Measured> {
  const [{ what, name, where }] = group as [Alteration];
  const error = effects.find((one) => one.error !== null)?.error ?? null;
  const wider = Math.max(0, ...effects.map((one) => one.wider));
  const isWorse = error !== null || wider > NOTHING;
  return tell.seen(
    atSnippet(`altered ${what} ${name}`, where),
    { what, name, places: group.length, error, wider },
    effects.map(({ at, higher, wider }) => ({ ...at, measured: { higher, wider } })),
    { level: isWorse || group.some(changesBehaviour) ? 'blocker' : 'concern' },
  );
}

function tellEffect(error: string | null, wider: number, seen: readonly Seen[]): string {
  if (error !== null) return ` What is left of the code fails: “${shorten(error, 120)}”.`;
  const where = formatWidths(seen.filter(({ measured }) => Number(measured.wider) > NOTHING));
  return wider > NOTHING
    ? ` What is left reaches up to ${wider} px further out (seen ${where}).`
    : '';
}

function sayChange(px: number, more: string, less: string): string {
  if (Math.abs(px) <= NOTHING) return '';
  return `${Math.abs(px)} px ${px > 0 ? more : less}`;
}

function changesBehaviour({ what, name, element }: Alteration): boolean {
  if (what === 'cut') return true;
  if (what === 'attribute') return ACTIVE_ATTRIBUTES.test(name);
  return element !== null && hasActive(element);
}

function hasActive({ name, children }: MarkupElement): boolean {
  return ACTIVE.has(name) || name.includes('-') || children.some(hasActive);
}
