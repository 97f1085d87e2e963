import { describe, expect, test } from '@jest/globals';
import { DOMParser, type Element } from '@xmldom/xmldom';
import { Ajv2020 } from 'ajv/dist/2020.js';
import ajvDraft04 from 'ajv-draft-04';
import addFormats from 'ajv-formats';
import { parse } from 'csv-parse/sync';
import MarkdownIt from 'markdown-it';
import { readFileSync } from 'node:fs';
import type { Log } from 'sarif';
import type { RunDocument, SnippetReport } from '../../src/core/run.js';
import { lineSchema } from '../../src/core/lines.js';
import { formatCsv } from '../../src/formats/csv.js';
import { formatJsonLines } from '../../src/formats/jsonl.js';
import { formatJunit } from '../../src/formats/junit.js';
import { formatMarkdown } from '../../src/formats/markdown.js';
import { formatReply } from '../../src/formats/reply.js';
import { formatSarif } from '../../src/formats/sarif.js';
import { makeDocument, makeFinding, makeSnippet } from '../support/document.js';

const NASTY =
  '=1+1 "><img src=x onerror=alert(1)> ]]> **a** @team #12 https://tally.example `b` ]x](y) \u202e\u001b[2J\n\n# c';
const WAIVER = { snippet: null, piece: null, until: '2027-01-01', by: 'desk' };

const makeCheck = (id: string, level: 'blocker' | 'concern', ran = true) => ({
  ...{ id, title: 'It is so', subject: 'page', level, decided: 'Measured.', standard: null, ran },
});

const CHECKS = [
  makeCheck('slot-overflow', 'concern'),
  makeCheck('frame-unnamed', 'blocker'),
  makeCheck('page-hangs', 'blocker'),
  makeCheck('flashes', 'blocker', false),
];

/** A held snippet with a finding of each standing, and one that is not seen to its end. */
function makeRun(given: Partial<SnippetReport> = {}): RunDocument {
  const held = makeSnippet({
    verdict: 'hold',
    findings: [
      makeFinding({ id: 'frame-unnamed', level: 'blocker', mend: null, cause: 2 }),
      makeFinding(),
      makeFinding({ waiver: { ...WAIVER, reason: 'spring', expired: false }, cause: 3 }),
    ],
    ...given,
  });
  const blind = makeSnippet({ name: 'beds.html', path: null, verdict: 'unsure' });
  const notJudged = [{ id: 'page-hangs', why: 'it never came', snippet: 'beds.html' }];
  return makeDocument([held, blind], { checks: CHECKS, verdict: 'hold', notJudged });
}

/** Whatever comes from a snippet is hostile. */
function makeHostile(): RunDocument {
  const document = makeRun({ name: NASTY, path: NASTY, text: NASTY });
  for (const finding of document.snippets[0]!.findings)
    Object.assign(finding, { message: NASTY, notice: NASTY, cure: NASTY, excerpt: NASTY });
  document.notJudged[0]!.why = NASTY;
  return document;
}

const readJson = (file: string) =>
  JSON.parse(readFileSync(new URL(file, import.meta.url), 'utf8')) as object;

describe('SARIF', () => {
  const isSarif = addFormats
    .default(new ajvDraft04.default({ strict: false, unicodeRegExp: false }))
    .compile(readJson('../support/sarif-2.1.0.schema.json'));
  const format = (document: RunDocument) => JSON.parse(formatSarif(document)) as Log;

  test.each([
    ['a run', makeRun()],
    ['a hostile one', makeHostile()],
    ['one since another', makeDocument([makeSnippet()], { since: { run: 'a', startedAt: 'b' } })],
    ['one of a page', makeRun({ published: 'https://seedlibrary.example/a b', line: 3 })],
  ])('is valid: %s', (_name, document) => {
    isSarif(format(document));
    expect(isSarif.errors).toBeNull();
  });

  test('has the places, the levels and the rules of findings', () => {
    const { tool, results, artifacts, invocations } = format(makeRun()).runs[0]!;
    expect(artifacts!.map(({ location, contents }) => [location!.uri, contents?.text])).toEqual([
      ['map.html', undefined],
      ['beds.html', makeSnippet().text],
    ]);
    const [unnamed, wide, waived] = results!;
    expect(results!.map(({ level, ruleIndex }) => [level, ruleIndex])).toEqual([
      ['error', 1],
      ['warning', 0],
      ['warning', 0],
    ]);
    expect(tool.driver.rules!.map((rule) => rule.defaultConfiguration)).toEqual([
      { enabled: true, level: 'warning' },
      { enabled: true, level: 'error' },
      { enabled: true, level: 'error' },
      { enabled: false, level: 'error' },
    ]);
    expect(unnamed!.locations![0]!.physicalLocation!.region).toEqual({
      ...{ startLine: 2, startColumn: 9, endLine: 2, endColumn: 20 },
      ...{ charOffset: 19, charLength: 11, snippet: { text: 'width="640"' } },
    });
    expect(unnamed!.fixes).toBeUndefined();
    expect(wide!.partialFingerprints).toEqual({ 'mivketFinding/v1': makeFinding().key });
    expect([wide!.suppressions, waived!.suppressions]).toEqual([
      [],
      [{ kind: 'external', status: 'accepted', justification: 'until 2027-01-01: spring (desk)' }],
    ]);
    expect(invocations![0]!.toolExecutionNotifications).toMatchObject([
      {
        message: { text: 'Not judged in beds.html: it never came.' },
        properties: { findings: ['page-hangs'] },
      },
    ]);
  });

  test('says what is new since a run before', () => {
    const states = (document: RunDocument) =>
      format(document).runs[0]!.results!.map(({ baselineState }) => baselineState);
    const [snippet] = makeRun().snippets;
    const since = { run: 'last', startedAt: '2026-01-01T09:30:00.000Z' };
    expect(states(makeDocument([snippet!], { since }))).toEqual(['new', 'new', 'new']);
    expect(states(makeDocument([snippet!]))).toEqual([undefined, undefined, undefined]);
  });

  test('has cures of whole files as edits, by lines and by offsets', () => {
    const [, wide] = format(makeRun()).runs[0]!.results!;
    const [change] = wide!.fixes![0]!.artifactChanges;
    expect(change!.replacements).toEqual([
      {
        deletedRegion: {
          ...{ startLine: 2, startColumn: 9, endLine: 2, endColumn: 20 },
          ...{ charOffset: 19, charLength: 11 },
        },
        insertedContent: { text: 'width="100%"' },
      },
    ]);
    const [, taken] = format(makeRun({ line: 7 })).runs[0]!.results!;
    expect(taken!.fixes).toBeUndefined();
    expect(taken!.locations![0]!.physicalLocation!.region!.charOffset).toBeUndefined();
  });

  test.each([
    ['notes/a b#c.html', 'notes/a%20b%23c.html'],
    ['/srv/map.html', 'file:///srv/map.html'],
    ['C:\\notes\\map.html', 'file:///C:/notes/map.html'],
    ['..\\map.html', '../map.html'],
  ])('calls %s %s', (path, uri) => {
    const { artifacts } = format(makeDocument([makeSnippet({ path })])).runs[0]!;
    expect(artifacts![0]!.location!.uri).toBe(uri);
  });
});

describe('JUnit’s XML', () => {
  const read = (document: RunDocument) => {
    const root = new DOMParser().parseFromString(formatJunit(document), 'text/xml');
    return root.documentElement!;
  };
  const listCases = (suite: Element) =>
    [...suite.getElementsByTagName('testcase')].map((one) => [
      one.getAttribute('name'),
      [...one.childNodes].find(({ nodeType }) => nodeType === 1)?.nodeName ?? null,
    ]);

  test('has a case for what was looked for in each snippet', () => {
    const root = read(makeRun());
    const [held, blind] = [...root.getElementsByTagName('testsuite')];
    expect(listCases(held!)).toEqual([
      ['slot-overflow', 'system-out'],
      ['frame-unnamed', 'failure'],
      ['page-hangs', null],
    ]);
    expect(listCases(blind!)).toEqual([
      ['slot-overflow', null],
      ['frame-unnamed', null],
      ['page-hangs', 'error'],
    ]);
    const counted = ['tests', 'failures', 'errors', 'skipped'].map((n) => root.getAttribute(n));
    expect(counted).toEqual(['6', '1', '1', '0']);
  });

  test('skips what is waived, and what was not judged and could hold nothing', () => {
    const waiver = { ...WAIVER, reason: 'spring', expired: false };
    const snippet = makeSnippet({ findings: [makeFinding({ waiver })] });
    const notJudged = [{ id: 'page-hangs', why: 'it never came', snippet: snippet.name }];
    const root = read(makeDocument([snippet], { checks: CHECKS, notJudged }));
    expect(listCases(root)).toEqual([
      ['slot-overflow', 'skipped'],
      ['frame-unnamed', null],
      ['page-hangs', 'skipped'],
    ]);
  });

  test('is XML whatever a snippet says', () => {
    const root = read(makeHostile());
    const [failure] = [...root.getElementsByTagName('failure')];
    expect(failure!.getAttribute('message')).toContain('onerror=alert(1)> ]]>');
    expect(root.getElementsByTagName('img')).toHaveLength(0);
    expect(formatJunit(makeHostile())).not.toMatch(/[\u001b\u202e]/);
  });
});

describe('CSV', () => {
  const read = (document: RunDocument) =>
    parse(formatCsv(document), { columns: true }) as Record<string, string>[];

  test('has a row for each finding, and one for a snippet without', () => {
    const rows = read(makeRun());
    expect(
      rows.map(({ snippet, verdict, finding, line, waived }) => [
        snippet,
        verdict,
        finding,
        line,
        waived,
      ]),
    ).toEqual([
      ['map.html', 'hold', 'frame-unnamed', '2', 'no'],
      ['map.html', 'hold', 'slot-overflow', '2', 'no'],
      ['map.html', 'hold', 'slot-overflow', '2', 'yes'],
      ['beds.html', 'unsure', '', '', ''],
    ]);
    expect(rows[0]!.seen).toBe('column 320; column 390');
  });

  test('has no formulas and no control characters', () => {
    const [row] = read(makeHostile());
    expect([row!.snippet, row!.what].map((cell) => cell!.slice(0, 5))).toEqual(["'=1+1", "'=1+1"]);
    expect(formatCsv(makeHostile())).not.toMatch(/[\u001b\u202e]/);
  });
});

describe('Markdown', () => {
  const listTokens = (document: RunDocument) => {
    const tokens = new MarkdownIt({ html: true, linkify: true }).parse(
      formatMarkdown(document),
      {},
    );
    return tokens.flatMap((token) => [token, ...(token.children ?? [])]);
  };

  test('says the verdict, the places and the cures', () => {
    expect(formatMarkdown(makeDocument([makeSnippet({ findings: [makeFinding()] })]))).toBe(
      `## CLEAR: 1 snippet

No house file: slot “column” on the neutral page, at 320, 390, 768 and 1280 px.

### map.html: CLEAR, 1 concern · fits all tested, from 288 px

- **concern** line 2, column 9: It reaches beyond its slot. (\`slot-overflow\`)
  - measured: everywhere: 12.345 px beyond the slot
  - visitors: It runs over the edge.
  - change: Let it shrink.
  \`\`\`html
  <iframe width="100%"></iframe>
  \`\`\`
`,
    );
  });

  test('takes nothing of a snippet for markup, a link or a call', () => {
    const tokens = listTokens(makeHostile());
    const kinds = new Set(tokens.map(({ type }) => type));
    for (const kind of ['html_block', 'html_inline', 'link_open', 'image'])
      expect(kinds).not.toContain(kind);
    expect(tokens.filter(({ type }) => type === 'heading_open')).toHaveLength(3);
    const words = tokens.filter(({ type }) => type === 'text').map(({ content }) => content);
    expect(words.join('\n')).not.toMatch(/@team|#12|https:/);
    expect(words.join('\n')).toMatch(/<img src=x/);
  });
});

describe('JSON Lines', () => {
  test('is a line for each snippet, and one for the run', () => {
    const schema = readJson('../../schema/lines.schema.json');
    const isLine = addFormats.default(new Ajv2020({ strict: false })).compile(schema);
    const text = [...formatJsonLines(makeHostile())].join('');
    expect(text).not.toMatch(/[\u001b\u202e]/);
    const lines = text
      .trimEnd()
      .split('\n')
      .map((line) => JSON.parse(line) as unknown);
    for (const line of lines) {
      isLine(line);
      expect(isLine.errors).toBeNull();
    }
    const [held, blind, run] = lines.map((line) => lineSchema.parse(line));
    expect(held).toMatchObject({ type: 'snippet', name: NASTY, notJudged: [] });
    expect(blind).toMatchObject({ notJudged: [{ id: 'page-hangs' }] });
    expect(run).toMatchObject({ type: 'run', verdict: 'hold', snippets: 2 });
  });
});

test('the run document is as its JSON Schema says', () => {
  const isRun = addFormats
    .default(new Ajv2020({ strict: false }))
    .compile(readJson('../../schema/run.schema.json'));
  isRun(JSON.parse(JSON.stringify(makeRun())));
  expect(isRun.errors).toBeNull();
});

describe('a reply', () => {
  const mended = '<iframe width="100%"></iframe>';
  const blocker = makeFinding({ level: 'blocker' });
  const reply = (given: Partial<SnippetReport>, notJudged: RunDocument['notJudged'] = []) =>
    formatReply(makeDocument([makeSnippet(given)], { notJudged }));

  test('says in plain lines what to change, and sends what would do', () => {
    expect(reply({ verdict: 'hold', mended, findings: [blocker] })).toBe(
      `Thank you for map.html. It cannot go online yet; please change this:
1. Line 2: It reaches beyond its slot. It runs over the edge. Let it shrink.
Please send this instead:

<iframe width="100%"></iframe>
`,
    );
  });

  test.each<[string, Partial<SnippetReport>, RegExp]>([
    ['nothing', {}, /^Thank you for map\.html\. It can go online as it is\.\n$/],
    [
      'what is mere advice',
      { findings: [makeFinding({ level: 'advice' })] },
      /as it is\.\nThere is 1 thing more/,
    ],
    [
      'a concern',
      { findings: [makeFinding()], mended },
      /It would be better [^:]*:\n1\. .*\nPlease send this instead:\n\n<iframe/,
    ],
    [
      'a blocker that only a person can mend',
      { verdict: 'hold', findings: [makeFinding({ level: 'blocker', mend: null })] },
      /\n1\. .*\nPlease send it again with that changed\.\n$/,
    ],
    [
      'one of two',
      { verdict: 'hold', mended, findings: [blocker, makeFinding({ cause: 2, mend: null })] },
      /\n2\. .*\nThis has what we could change; the rest is yours to decide:\n/,
    ],
    [
      'what is waived',
      { findings: [makeFinding({ waiver: { ...WAIVER, reason: 'so', expired: false } })] },
      /as it is\.\n$/,
    ],
  ])('tells of %s', (_name, given, words) => {
    expect(reply(given)).toMatch(words);
  });

  test('asks for four things at most, and says what could not be seen', () => {
    const many = [1, 2, 3, 4, 5, 6].map((cause) =>
      makeFinding({ id: `finding-${cause}`, cause, mend: null }),
    );
    expect(reply({ findings: many })).toMatch(/\n4\. .*\nThere are 2 things more/);
    const notJudged = [{ id: 'page-hangs', why: 'it never came', snippet: 'map.html' }];
    expect(reply({ verdict: 'unsure' }, notJudged)).toBe(
      'Thank you for map.html. We cannot say yet whether it can go online (not all\nwas seen: it never came).\n',
    );
  });

  test('has nothing of a snippet’s control characters', () => {
    expect(formatReply(makeHostile())).not.toMatch(/[\u001b\u202e]/);
  });
});
