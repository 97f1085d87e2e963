import { defineCheck, makeSeen, type Case, type Fact, type Seen } from '../../core/check.js';
import { standsInPage } from '../../core/measure/inserts.js';
import { listReaching } from '../../core/markup/reaching.js';
import type { Span } from '../../core/snippet.js';

interface Data {
  selector: string;
  /** The names of host parts that look otherwise with it. */
  parts: string[];
}

type Needs = 'host';

export default defineCheck({
  id: 'style-reaches-outside',
  subject: 'paste',
  level: 'concern',
  title: 'A style rule reaches the whole page',
  decided:
    'A selector of the snippet ends on an element’s name, `*`, `:root`, html or body, and has nothing of the snippet’s own in it (class, id, attribute, element of its own). A blocker where parts of the host page that it fits are seen to look otherwise.',
  standard: 'Selectors Level 4; CSS Scoping Module Level 1',
  needs: ['host'],
  markup: true,
  judge(c): Fact<Data>[] {
    if (!standsInPage(c.house)) return [];
    return listReaching(c.markup).map(({ element, text, span, subject }) => {
      const { parts, seen } = look(c, subject);
      return {
        where: trim(c.snippet.text, span),
        culprit: { at: 'element', offset: element.offset, part: text },
        group: `${span.offset}`,
        level: parts.length > 0 ? 'blocker' : 'concern',
        confirmed: true,
        data: { selector: text, parts },
        seen,
      };
    });
  },
  says({ selector, parts }) {
    const what = parts.map((part) => `<${part}>`).join(', ');
    return {
      message:
        parts.length > 0
          ? `\`${selector}\` fits the whole page: ${what} of the host page look otherwise with it.`
          : `\`${selector}\` fits the whole page, not only the snippet.`,
      notice: 'Other parts of the page change their look.',
      cure: `Begin the selector with a class of the snippet’s own, such as \`.seed-box ${selector}\`.`,
    };
  },
  brief: ({ selector }) => `the rule ${selector} fits the whole page`,
  samples: [
    { selector: 'p', parts: [] },
    { selector: 'p', parts: ['p'] },
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

/** The host parts of that name that look otherwise with the snippet, and where that was seen. */
function look({ renders }: Case<Needs>, subject: string): { parts: string[]; seen: Seen[] } {
  const parts = new Set<string>();
  const seen = renders.flatMap((render) => {
    const changed = render.host.filter(
      ({ tag, without, with: now }) =>
        (subject === '*' || subject === 'html' || subject === 'body' || tag === subject) &&
        without !== null &&
        (now === null || now.style !== without.style || now.shown !== without.shown),
    );
    for (const { tag } of changed) parts.add(tag);
    return changed.length > 0 ? [makeSeen(render, { changed: changed.length })] : [];
  });
  return { parts: [...parts], seen };
}

function trim(text: string, { offset, endOffset }: Span): Span {
  const written = text.slice(offset, endOffset);
  return {
    offset: offset + (written.length - written.trimStart().length),
    endOffset: endOffset - (written.length - written.trimEnd().length),
  };
}
