import { defineCheck, makeSeen, type Case, type Fact, type Seen } from '../../core/check.js';
import { flatMap } from '../../core/lists.js';
import { atSnippet, blameElement } from '../../core/measure/blame.js';
import {
  addSources,
  allowsHandlers,
  findDirective,
  hashCode,
  parsePolicies,
} from '../../core/measure/csp.js';
import { getForeignAddress, listAllowed, listForbidden } from '../../core/measure/permissions.js';
import { describeRefusal } from '../../core/measure/refused.js';
import { listAddresses } from '../../core/markup/addresses.js';
import { getAttribute } from '../../core/markup/markup.js';
import { getPlaceKey } from '../../core/render.js';
import type { Span } from '../../core/snippet.js';
import { tell } from '../../core/tell.js';
import { formatWidths, joinWords } from '../../core/words/list.js';

/** Something that is refused, where it stands, and what would let it in. */
interface Refused {
  where: Span;
  what: string;
  header: Data['header'];
  /** The part of the header that decides it, and what has to be added to it. */
  directive: string;
  source: string;
  seen: Seen[];
}

interface Data {
  header: 'Content-Security-Policy' | 'Permissions-Policy';
  /** What is refused, in words, each with its lines. */
  what: string[];
  /** How the header's parts have to read. */
  directives: string[];
}

/** More are counted. */
const MOST_NAMED = 6;

export default defineCheck({
  id: 'blocked-by-host-policy',
  subject: 'scripts',
  level: 'blocker',
  title: 'The page’s own policy refuses part of it',
  decided:
    'Under the headers that the house sends the browser refuses something of the snippet’s: a script, a style, a frame, a picture or what a script asks for. Code in attributes, and what a frame is allowed, are held against the headers themselves.',
  standard: 'Content Security Policy Level 3; Permissions Policy, 5.1',
  needs: ['policy'],
  markup: 'part',
  judge(c): Fact<Data>[] {
    const refused = [...listRefused(c), ...listHandlers(c), ...listFrames(c)];
    return flatMap(HEADERS, (header): Fact<Data>[] => {
      const own = refused.filter((one) => one.header === header);
      const first = own.reduce<Refused | null>(
        (least, one) => (least && least.where.offset <= one.where.offset ? least : one),
        null,
      );
      if (!first) return [];
      return [
        tell.seen(
          atSnippet(header, first.where),
          { header, what: nameAll(own, c), directives: joinDirectives(own, c) },
          joinSeen(own),
        ),
      ];
    });
  },
  says({ header, what, directives }, { seen }) {
    const more = what.length > MOST_NAMED ? [`${what.length - MOST_NAMED} more`] : [];
    const list = joinWords([...what.slice(0, MOST_NAMED), ...more]);
    const where = seen.length > 0 ? ` (${formatWidths(seen)})` : '';
    return {
      message: `The page’s ${header} refuses ${list}${where}.`,
      notice: 'On the published page this part of it does not work, or is not there.',
      cure: `Let it in by the header, which has to read \`${directives.join(SEPARATORS[header])}\`. Or do without.`,
    };
  },
  brief: ({ what }) => `the page’s policy refuses ${joinWords(what.slice(0, 2))}`,
  samples: [
    {
      header: 'Content-Security-Policy',
      what: ['the script cdn.fernmap.example (line 3)'],
      directives: ["script-src 'self' https://cdn.fernmap.example"],
    },
    {
      header: 'Permissions-Policy',
      what: ['the frame of maps.fernmap.example camera (line 3)'],
      directives: ['camera=(self "https://maps.fernmap.example")'],
    },
  ],
  examples: {
    faulty: [
      {
        name: 'a script of a host that is not let in',
        code: '<script async src="https://book.trellis.example/loader.js"></script><div data-trellis-desk="workshops" style="min-height: 120px"></div>',
        under: { headers: { 'content-security-policy': "script-src 'self'" } },
      },
      {
        name: 'code in an attribute',
        code: '<button onclick="this.textContent = \'Sown\'">Sow</button>',
        under: { headers: { 'content-security-policy': "script-src 'self'" } },
      },
    ],
    sound: [
      {
        name: 'a script of a host that is let in',
        code: '<script async src="https://book.trellis.example/loader.js"></script><div data-trellis-desk="workshops" style="min-height: 120px"></div>',
        under: {
          headers: { 'content-security-policy': "script-src 'self' https://*.trellis.example" },
        },
      },
      {
        name: 'where the house sends no policy',
        code: '<button onclick="this.textContent = \'Sown\'">Sow</button>',
      },
    ],
  },
});

const HEADERS = ['Content-Security-Policy', 'Permissions-Policy'] as const;
const SEPARATORS: Record<Data['header'], string> = {
  'Content-Security-Policy': '; ',
  'Permissions-Policy': ', ',
};

type Needs = Case<'policy'>;

/** What the browser told of. */
function listRefused({ markup, house, renders }: Needs): Refused[] {
  if (renders.length === 0) return [];
  const addresses = listAddresses(markup, house.origin);
  return flatMap(renders, (render) =>
    render.policy.map((refusal): Refused => {
      const { directive, blocked, from } = refusal;
      const named = addresses.find(({ url }) => url.href === blocked || url.origin === blocked);
      const { where } = named
        ? { where: named.attribute }
        : blameElement(markup, { from, selector: null });
      return {
        where: { offset: where.offset, endOffset: where.endOffset },
        header: 'Content-Security-Policy',
        ...describeRefusal(markup, refusal),
        directive,
        seen: [makeSeen(render, { blocked })],
      };
    }),
  );
}

/** Of code in attributes browsers tell only when it is to run. */
function listHandlers({ markup, house }: Needs): Refused[] {
  if (parsePolicies(house.headers).every(allowsHandlers)) return [];
  return flatMap(markup.elements, ({ attributes }) =>
    attributes
      .filter(({ name, value }) => /^on[a-z]+$/.test(name) || isCode(name, value))
      .map(({ name, value, offset, endOffset }): Refused => ({
        where: { offset, endOffset },
        what: `the code in \`${name}\``,
        header: 'Content-Security-Policy',
        directive: 'script-src-attr',
        source: isCode(name, value) ? "'unsafe-inline'" : `'unsafe-hashes' ${hashCode(value)}`,
        seen: [],
      })),
  );
}

function isCode(name: string, value: string): boolean {
  return /^(href|action|formaction)$/.test(name) && /^\s*javascript:/i.test(value);
}

/** What a frame is allowed by its element, and not by the page. */
function listFrames({ markup, house }: Needs): Refused[] {
  return flatMap(markup.elements, (element): Refused[] => {
    const frame = element.name === 'iframe' ? getForeignAddress(element, house.origin) : null;
    const allow = getAttribute(element, 'allow');
    if (!frame || !allow) return [];
    const forbidden = new Set(listForbidden(house.headers, frame, house.origin));
    return [...listAllowed(element)]
      .filter(([feature, given]) => given && forbidden.has(feature))
      .map(([feature]) => ({
        where: { offset: allow.offset, endOffset: allow.endOffset },
        what: `the frame of ${frame.host} ${feature}`,
        header: 'Permissions-Policy',
        directive: feature,
        source: `"${frame.origin}"`,
        seen: [],
      }));
  });
}

/** Each thing once, with the lines that it stands in. */
function nameAll(refused: readonly Refused[], { markup }: Needs): string[] {
  const lines = new Map<string, Set<number>>();
  for (const { what, where } of refused)
    lines.set(what, (lines.get(what) ?? new Set()).add(markup.place(where).line));
  return [...lines].map(([what, at]) => {
    const all = [...at].sort((a, b) => a - b).map(String);
    return `${what} (${all.length > 1 ? 'lines' : 'line'} ${joinWords(all)})`;
  });
}

/** The header's parts as they have to read, each with all that has to be added to it. */
function joinDirectives(refused: readonly Refused[], { house }: Needs): string[] {
  const policy = parsePolicies(house.headers)[0] ?? new Map<string, string[]>();
  const added = new Map<string, Set<string>>();
  for (const { directive, source, header } of refused) {
    const isCsp = header === 'Content-Security-Policy';
    const name = isCsp ? (findDirective(policy, directive) ?? directive) : directive;
    const sources = added.get(name) ?? new Set();
    for (const one of source.split(' ')) sources.add(one);
    added.set(name, sources);
  }
  const csp = refused[0]?.header === 'Content-Security-Policy';
  return [...added].map(([name, sources]) =>
    csp ? addSources(policy, name, [...sources]) : `${name}=(self ${[...sources].join(' ')})`,
  );
}

/** Each place once. */
function joinSeen(refused: readonly Refused[]): Seen[] {
  const seen = flatMap(refused, (one) => one.seen);
  return [...new Map(seen.map((one) => [getPlaceKey(one), one])).values()];
}
