import { defineCheck, type Fact } from '../../core/check.js';
import { standsInPage } from '../../core/measure/inserts.js';
import { getTagSpan, getValue, type Markup, type MarkupElement } from '../../core/markup/markup.js';
import { matchTags } from '../../core/markup/unparsed.js';
import type { Span } from '../../core/snippet.js';
import { shorten } from '../../core/words/list.js';

interface Data {
  /** What of the page it is, as `its title`. */
  what: string;
  notice: string;
  written: string;
  /** What is to be taken out. */
  span: Span;
}

/** So much of what is written is quoted. */
const MOST = 60;

export default defineCheck({
  id: 'page-settings-changed',
  subject: 'paste',
  level: 'blocker',
  title: 'The snippet sets something for the whole page',
  decided:
    'It has a base, a title, a canonical link, a meta of refresh, viewport, robots or referrer, or a body or html tag with attributes: all of them count for the host page.',
  standard: 'HTML Living Standard, 4.2 Document metadata; 13.2.6.4.7',
  needs: [],
  markup: true,
  judge: ({ markup, house, renders }): Fact<Data>[] =>
    (standsInPage(house)
      ? [
          ...markup.elements.flatMap((element) => judgeElement(markup, element)),
          ...judgeRoots(markup),
        ]
      : []
    ).map((fact) => ({ ...fact, confirmed: renders.length > 0 })),
  says: ({ what, notice, written }) => ({
    message: `This sets ${what} for the whole page: \`${written}\`.`,
    notice,
    cure: 'Take it out: it is for the page’s own head.',
  }),
  mend: ({ span }) => [{ do: 'replace-text', span, text: '' }],
  brief: ({ what }) => `sets ${what} for the whole page`,
  samples: [
    {
      what: 'where relative addresses lead',
      notice: 'Links and pictures of the page lead elsewhere.',
      written: '<base href="/shop/">',
      span: { offset: 0, endOffset: 0 },
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
  title: {
    what: 'its title',
    notice: 'The name of the tab, of bookmarks and of search results may be another.',
  },
  canonical: {
    what: 'which address it is known by',
    notice: 'Search engines list another page in its place.',
  },
};

function getSetting(element: MarkupElement): Setting | null {
  const { name } = element;
  if (name === 'base' || name === 'title') return isInVector(element) ? null : ELEMENTS[name]!;
  if (name === 'link') {
    const rel = (getValue(element, 'rel') ?? '').toLowerCase().trim().split(/\s+/);
    return rel.includes('canonical') ? ELEMENTS.canonical! : null;
  }
  if (name !== 'meta') return null;
  const key = getValue(element, 'http-equiv') ?? getValue(element, 'name') ?? '';
  return METAS[key.trim().toLowerCase()] ?? null;
}

function isInVector(element: MarkupElement): boolean {
  for (let at = element.parent; at; at = at.parent)
    if (at.name === 'svg' || at.name === 'math') return true;
  return false;
}

function judgeElement({ text }: Markup, element: MarkupElement): Fact<Data>[] {
  const setting = getSetting(element);
  if (!setting) return [];
  const where = getTagSpan(element);
  const span = { offset: element.offset, endOffset: Math.max(element.endOffset, element.tagEnd) };
  const written = shorten(text.slice(where.offset, where.endOffset), MOST);
  const culprit = { at: 'element', offset: element.offset } as const;
  return [{ where, culprit, confirmed: true, data: { ...setting, written, span }, seen: [] }];
}

/** What a body or html tag has, inside of a page, the page's own gets, where it has none of that name. */
function judgeRoots({ text }: Markup): Fact<Data>[] {
  return matchTags(text, /<(body|html)\s+[^\s>/][^>]*>/gi).map((match) => {
    const where = { offset: match.index, endOffset: match.index + match[0].length };
    const data = {
      what: `attributes of its own <${match[1]!.toLowerCase()}>`,
      notice: 'Styles, language or handlers of the whole page change.',
      written: shorten(text.slice(where.offset, where.endOffset), MOST),
      span: where,
    };
    const culprit = { at: 'element', offset: where.offset } as const;
    return { where, culprit, confirmed: true, data, seen: [] };
  });
}
