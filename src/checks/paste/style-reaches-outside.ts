import { atPart } from '../../core/measure/blame.js';
import { defineCheck, makeSeen, type Case, type Fact, type Seen } from '../../core/check.js';
import { flatMap, mapPresent } from '../../core/lists.js';
import { standsInPage } from '../../core/measure/inserts.js';
import type { HostPart, HostPartFact } from '../../core/evidence.js';
import { getValue, listInside, type Markup } from '../../core/markup/markup.js';
import { matchesSelector } from '../../core/markup/selectors.js';
import { isScript } from '../../core/markup/traits.js';
import { listReaching, listSelectors, type Reaching } from '../../core/markup/reaching.js';
import type { Span } from '../../core/snippet.js';
import { tell } from '../../core/tell.js';
import { joinWords } from '../../core/words/list.js';

interface Data {
  selector: string;
  /** The names of host parts that look otherwise with it, and of those that it fits. */
  parts: string[];
  fits: string[];
}

type Needs = 'host';

/** What is not the snippet's at all. */
const PAGE = /(^|[\s>+~])(:root|html|body)\b/i;

export default defineCheck({
  id: 'style-reaches-outside',
  subject: 'paste',
  level: 'concern',
  title: 'A style rule reaches the whole page',
  decided:
    'A selector of the snippet ends on an element’s name, `*`, `:root`, html or body, and has nothing of the snippet’s own in it (class, id, attribute, element of its own); or it fits a part of the house’s own page. Not inside the scope of something of its own, nor where it only sets custom properties that the page does not use. A blocker where parts of the host page that it fits are seen to look otherwise.',
  standard: 'Selectors Level 4; CSS Scoping Module Level 1',
  needs: ['host'],
  markup: true,
  judge(c): Fact<Data>[] {
    if (!standsInPage(c.house)) return [];
    const reaching = listReaching(c.markup);
    const byMarkup = mapPresent(reaching, (one) =>
      toFact(c, one, (part) => isOf(part, one.subject) || part.fits.includes(one.span.offset)),
    );
    // What is the snippet's own by its form may be the page's too.
    const known = new Set(reaching.map(({ span }) => span.offset));
    const others = listSelectors(c.markup).filter(({ span }) => !known.has(span.offset));
    const byFit = mapPresent(others, (one) =>
      toFact(c, one, (part) => part.fits.includes(one.span.offset)),
    ).filter(({ data }) => data.fits.length > 0);
    return [...byMarkup, ...byFit];
  },
  says({ selector, parts, fits }) {
    return {
      message: describeReach(selector, parts, fits),
      notice:
        parts.length > 0 || fits.length === 0
          ? 'Other parts of the page change their look.'
          : 'Other parts of the page may change their look.',
      cure: PAGE.test(selector)
        ? `Put this on an element of the snippet’s own, with a class: \`${selector}\` is the page’s.`
        : `Begin the selector with a class of the snippet’s own, such as \`.seed-box ${selector}\`.`,
    };
  },
  mend({ selector }, { where }, markup) {
    const own = findWrapper(markup, selector);
    // It counts for nothing: which rule wins stays as it was.
    return own === null
      ? null
      : [
          {
            do: 'replace-text',
            span: { ...where, endOffset: where.offset },
            text: `:where(.${own}) `,
          },
        ];
  },
  brief: ({ selector }) => `the rule ${selector} fits the page too`,
  samples: [
    { selector: 'p', parts: [], fits: [] },
    { selector: 'p', parts: ['p'], fits: ['p'] },
    { selector: '.bed', parts: [], fits: ['div'] },
    { selector: ':root', parts: [], fits: [] },
  ],
  examples: {
    faulty: [
      {
        name: 'a rule for all quotations',
        code: '<style>blockquote { color: green }</style><blockquote>Sow in May.</blockquote>',
      },
      {
        name: 'within another element’s name',
        code: '<style>aside em { color: green }</style><aside>Sow <em>in May</em>.</aside>',
      },
    ],
    sound: [
      {
        name: 'within a class',
        code: '<style>.may blockquote { color: green }</style><div class="may"><blockquote>Sow in May.</blockquote></div>',
      },
      {
        name: 'steps of an animation',
        code: '<style>@keyframes may { from { opacity: .9 } to { opacity: 1 } } .may { animation: may .2s }</style><p class="may">Sow in May.</p>',
      },
    ],
  },
});

/** The class of the one element that all is in which a selector is for; null where there is none. */
function findWrapper(markup: Markup, selector: string): string | null {
  // What code makes may stand anywhere.
  if (PAGE.test(selector) || markup.elements.some(isScript)) return null;
  const shown = markup.elements.filter(({ parent, name }) => !parent && !UNSEEN.has(name));
  const [wrapper, more] = shown;
  const [own] = (wrapper && getValue(wrapper, 'class')?.trim().split(/\s+/)) ?? [];
  if (!wrapper || !own || more || !/^[a-z][\w-]*$/i.test(own)) return null;
  const meant = markup.elements.filter((one) => matchesSelector(one, selector));
  const inside = new Set(listInside(wrapper));
  return meant.length > 0 && meant.every((one) => inside.has(one)) ? own : null;
}

const UNSEEN: ReadonlySet<string> = new Set(['style', 'link', 'meta', 'template']);

function describeReach(
  selector: string,
  parts: readonly string[],
  fits: readonly string[],
): string {
  const name = (tags: readonly string[]) => joinWords(tags.map((tag) => `<${tag}>`));
  if (parts.length > 0)
    return `\`${selector}\` fits the host page too: its ${name(parts)} ${parts.length > 1 ? 'look' : 'looks'} otherwise with it.`;
  return fits.length > 0
    ? `\`${selector}\` fits the host page too: its ${name(fits)}.`
    : `\`${selector}\` fits the whole page, not only the snippet.`;
}

/** null for custom properties that the page does not use. */
function toFact(
  c: Case<Needs>,
  { element, text, span, custom }: Omit<Reaching, 'subject'>,
  fits: (part: HostPartFact) => boolean,
): Fact<Data> | null {
  const { parts, fitting, seen } = look(c, fits);
  if (custom && parts.length === 0) return null;
  return tell.seen(
    atPart(element, text, trim(c.snippet.text, span)),
    { selector: text, parts, fits: fitting },
    seen,
    { group: `${span.offset}`, level: parts.length > 0 ? 'blocker' : 'concern' },
  );
}

function isOf({ tag }: HostPartFact, subject: string): boolean {
  return subject === '*' || subject === 'html' || subject === 'body' || tag === subject;
}

/** The host parts that it fits, those of them that look otherwise with the snippet, and where that was seen. */
function look(
  { renders }: Case<Needs>,
  fits: (part: HostPartFact) => boolean,
): { parts: string[]; fitting: string[]; seen: Seen[] } {
  const parts = new Set<string>();
  const fitting = new Set<string>();
  const seen = flatMap(renders, (render) => {
    const fit = render.host.filter((part) => fits(part) && part.without !== null);
    const changed = fit.filter((part) => isChanged(part.without!, part.with));
    for (const { tag } of fit) fitting.add(tag);
    for (const { tag } of changed) parts.add(tag);
    return changed.length > 0 ? [makeSeen(render, { changed: changed.length })] : [];
  });
  return { parts: [...parts], fitting: [...fitting], seen };
}

function isChanged(without: HostPart, now: HostPart | null): boolean {
  return (
    now === null ||
    now.style !== without.style ||
    now.shown !== without.shown ||
    now.clickable !== without.clickable ||
    Math.abs(now.box.width - without.box.width) > 1
  );
}

function trim(text: string, { offset, endOffset }: Span): Span {
  const written = text.slice(offset, endOffset);
  return {
    offset: offset + (written.length - written.trimStart().length),
    endOffset: endOffset - (written.length - written.trimEnd().length),
  };
}
