import { defineCheck, makeSeen, type Fact, type RenderOf } from '../../core/check.js';
import { flatMap } from '../../core/lists.js';
import { findCall } from '../../core/measure/calls.js';
import { isPartOfPage, standsInPage } from '../../core/measure/inserts.js';
import {
  getTagSpan,
  getValue,
  isForeign,
  type Markup,
  type MarkupElement,
} from '../../core/markup/markup.js';
import { getTraits } from '../../core/markup/traits.js';
import { matchTags } from '../../core/markup/unparsed.js';
import type { Span } from '../../core/snippet.js';
import { atSnippet } from '../../core/measure/blame.js';
import { tell } from '../../core/tell.js';
import { shorten } from '../../core/words/list.js';

interface Data {
  /** What of the page it is, as `its title`. */
  what: string;
  notice: string;
  /** How it is written; of what a script sets, what it sets it to. */
  written: string;
  /** What is to be taken out; null where a script sets it. */
  span: Span | null;
  /** The page has one of its own, which browsers keep to. */
  outdone: boolean;
}

type Needs = 'page';

/** So much of what is written is quoted. */
const MOST = 60;

export default defineCheck({
  id: 'page-settings-changed',
  subject: 'paste',
  level: 'blocker',
  title: 'The snippet sets something for the whole page',
  decided:
    'It has a base, a title, a canonical link, a meta of refresh, viewport, robots or referrer, or a body or html tag with attributes, and the page’s are others than without it; or a script of its own sets one of them, the language or the direction. A title or base that the page’s own outdoes is a concern.',
  standard: 'HTML Living Standard, 4.2 Document metadata; 13.2.6.4.7',
  needs: ['page'],
  markup: 'part',
  judge(c): Fact<Data>[] {
    if (!standsInPage(c.house)) return [];
    const renders = c.renders.filter(({ at }) => isPartOfPage(at.insert));
    const written = [
      ...flatMap(c.markup.elements, (element) => findElement(c.markup, element)),
      ...findRoots(c.markup),
    ];
    const known = new Set(flatMap(written, ({ names }) => names));
    return [
      ...flatMap(written, (one) => measure(one, renders)),
      ...findScripted(c.markup, known, renders),
    ];
  },
  says: ({ what, notice, written, span, outdone }) => ({
    message: span
      ? `This ${outdone ? 'is to set' : 'sets'} ${what} for the whole page: \`${written}\`.`
      : `A script sets ${what} for the whole page${written ? `: “${written}”` : ''}.`,
    notice: outdone
      ? 'The page has one of its own, which browsers keep to; others may not.'
      : notice,
    cure: span
      ? 'Take it out: it is for the page’s own head.'
      : 'Take out what sets it, or ask its maker for a code that leaves the page’s own alone.',
  }),
  mend: ({ span }) => (span ? [{ do: 'replace-text', span, text: '' }] : null),
  brief: ({ what, outdone }) => `${outdone ? 'is to set' : 'sets'} ${what} for the whole page`,
  samples: [
    {
      what: 'where relative addresses lead',
      notice: 'Links and pictures of the page lead elsewhere.',
      written: '<base href="/shop/">',
      span: { offset: 0, endOffset: 0 },
      outdone: false,
    },
    {
      what: 'its title',
      notice: 'The name of the tab, of bookmarks and of search results may be another.',
      written: 'A new workshop!',
      span: null,
      outdone: false,
    },
    {
      what: 'its title',
      notice: 'The name of the tab, of bookmarks and of search results may be another.',
      written: '<title>Beans</title>',
      span: { offset: 0, endOffset: 0 },
      outdone: true,
    },
  ],
  examples: {
    faulty: [
      {
        name: 'a base for addresses',
        code: '<base href="https://static.rootcellar.example/"><p>Sow in May.</p>',
      },
      {
        name: 'a page that is not to be found',
        code: '<meta name="robots" content="noindex"><p>Sow in May.</p>',
      },
      {
        name: 'a script that names the page',
        code: '<p>Sow in May.</p><script>document.title = "A new workshop!"</script>',
      },
    ],
    sound: [
      {
        name: 'the title of a drawing',
        code: '<svg width="20" height="20" viewBox="0 0 20 20" role="img" aria-label="Bean"><title>Bean</title><circle cx="10" cy="10" r="8"/></svg>',
      },
      {
        name: 'what describes a thing, and not the page',
        code: '<p itemscope><meta itemprop="name" content="Bean">Sow in May.</p>',
      },
      {
        name: 'a script that reads the page’s title',
        code: '<p id="here">Sow in May.</p><script>here.textContent = document.title</script>',
      },
    ],
  },
});

interface Setting {
  what: string;
  notice: string;
}

const METAS: Record<string, Setting> = {
  refresh: {
    what: 'that it is loaded anew, or left',
    notice: 'The page reloads or goes elsewhere while somebody reads it.',
  },
  viewport: {
    what: 'its width and zoom on phones',
    notice: 'On phones the whole page may be drawn small, or cannot be made larger.',
  },
  robots: {
    what: 'whether search engines list it',
    notice: 'The page may vanish from search results.',
  },
  referrer: {
    what: 'what it tells other sites about its address',
    notice: 'Other sites learn more, or less, of where visitors come from.',
  },
};

const ELEMENTS: Record<string, Setting> = {
  base: {
    what: 'where relative addresses lead',
    notice: 'Links, pictures and forms of the page lead elsewhere.',
  },
  'base target': {
    what: 'where links open',
    notice: 'The page’s own links, its menu too, open in other windows.',
  },
  title: {
    what: 'its title',
    notice: 'The name of the tab, of bookmarks and of search results may be another.',
  },
  canonical: {
    what: 'which address it is known by',
    notice: 'Search engines list another page in its place.',
  },
};

/** What a script sets besides: classes and the like of the whole page are set by many, and harm nothing by themselves. */
const ROOTS: Record<string, Setting> = {
  'html lang': {
    what: 'its language',
    notice: 'Screen readers speak the page as if it were in another language.',
  },
  'html dir': {
    what: 'its direction of reading',
    notice: 'The whole page is laid out the other way round.',
  },
};

const SETTINGS: Record<string, Setting> = { ...METAS, ...ELEMENTS, ...ROOTS };

/** Of these the first on the page counts, which is the page's own. */
const FIRST_COUNTS = new Set(['title', 'base', 'base target']);

/** Something in the markup that sets something for the page. */
interface Written {
  where: Span;
  setting: Setting;
  /** What it sets, as facts name it. */
  names: string[];
  written: string;
  span: Span;
  offset: number;
}

/** What is measured outdoes what is written. */
function measure(one: Written, renders: readonly RenderOf<Needs>[]): Fact<Data>[] {
  const { where, setting, names, written, span, offset } = one;
  const set = renders.filter(({ page }) => page.settings.some(({ what }) => names.includes(what)));
  const outdone = renders.length > 0 && set.length === 0;
  if (outdone && !names.some((name) => FIRST_COUNTS.has(name))) return [];
  const seen = (outdone ? renders : set).map((render) => makeSeen(render, {}));
  const data = { ...setting, written, span, outdone };
  const culprit = { at: 'element', offset } as const;
  const fact = tell.seen({ where, culprit }, data, seen);
  return [outdone ? { ...fact, level: 'concern' } : fact];
}

/** What is set otherwise, and not by the markup. */
function findScripted(
  markup: Markup,
  known: ReadonlySet<string>,
  renders: readonly RenderOf<Needs>[],
): Fact<Data>[] {
  const isSame = renders.every(({ page }) => page.settings.length === 0);
  if (isSame || !getTraits(markup).changes) return [];
  return flatMap(renders, (render) =>
    flatMap(render.page.settings, ({ what, with: now }): Fact<Data>[] => {
      const setting = SETTINGS[what];
      if (!setting || known.has(what)) return [];
      const where = findCall(markup, new RegExp(`\\b${what.split(' ').at(-1)!}\\b`, 'i'));
      const data = { ...setting, written: shorten(now, MOST), span: null, outdone: false };
      return [tell.seen(atSnippet(what, where), data, makeSeen(render, {}))];
    }),
  );
}

function getName(element: MarkupElement): string | null {
  const { name } = element;
  if ((name === 'base' || name === 'title') && isForeign(element)) return null;
  if (name === 'base') return getValue(element, 'href') === null ? 'base target' : 'base';
  if (name === 'title') return name;
  if (name === 'link') {
    const rel = (getValue(element, 'rel') ?? '').toLowerCase().trim().split(/\s+/);
    return rel.includes('canonical') ? 'canonical' : null;
  }
  if (name !== 'meta') return null;
  const key = getValue(element, 'http-equiv') ?? getValue(element, 'name') ?? '';
  const meta = key.trim().toLowerCase();
  return Object.hasOwn(METAS, meta) ? meta : null;
}

function findElement({ text }: Markup, element: MarkupElement): Written[] {
  const name = getName(element);
  if (name === null) return [];
  const where = getTagSpan(element);
  const span = { offset: element.offset, endOffset: Math.max(element.endOffset, element.tagEnd) };
  const written = shorten(text.slice(where.offset, where.endOffset), MOST);
  const setting = SETTINGS[name]!;
  return [{ where, setting, names: [name], written, span, offset: element.offset }];
}

/** What a body or html tag has, inside of a page, the page's own gets, where it has none of that name. */
function findRoots({ text }: Markup): Written[] {
  return matchTags(text, /<(body|html)\s+[^\s>/][^>]*>/gi).map((match) => {
    const where = { offset: match.index, endOffset: match.index + match[0].length };
    const root = match[1]!.toLowerCase();
    return {
      where,
      setting: {
        what: `attributes of its own <${root}>`,
        notice: 'Styles, language or handlers of the whole page change.',
      },
      names: listAttributes(match[0]).map((name) => `${root} ${name}`),
      written: shorten(text.slice(where.offset, where.endOffset), MOST),
      span: where,
      offset: where.offset,
    };
  });
}

function listAttributes(tag: string): string[] {
  const names = tag.replace(/"[^"]*"|'[^']*'/g, '').matchAll(/\s([^\s=<>/]+)/g);
  return [...names].map(([, name]) => name!.toLowerCase());
}
