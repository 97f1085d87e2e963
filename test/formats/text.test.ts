import { describe, expect, test } from '@jest/globals';
import type { RunDocument, SnippetReport } from '../../src/core/run.js';
import { formatText } from '../../src/formats/text.js';
import {
  makeDocument,
  makeFinding,
  makeLoads,
  makeRender,
  makeSeen,
  makeSnippet,
} from '../support/document.js';
import { paint } from '../support/paint.js';

function format(
  snippet: Partial<SnippetReport>,
  more: Partial<RunDocument> = {},
  width = 80,
): string {
  const document = makeDocument([makeSnippet(snippet)], more);
  return formatText(document, {
    paint,
    width,
  });
}

describe('the text report', () => {
  test('reads from verdict over grid and findings to what was not seen', () => {
    const renders = [
      { ...makeRender('column', 320, 'concern'), fits: false },
      { ...makeRender('column', 1280, null), slotWidth: 680 },
    ];
    expect(format({ renders, findings: [makeFinding()] })).toBe(
      `No house file: slot “column” on the neutral page, at 320, 390, 768 and 1280 px.

map.html  CLEAR, 1 concern · fits 680, not 288

           320  1280
  column     ◧     ·

  1  ◧ concern  slot-overflow  line 2, column 9
    It reaches beyond its slot.
    2 │ <iframe width="640"></iframe>
      │         ^^^^^^^^^^^
    measured   everywhere  12.345 px beyond the slot
    visitors   It runs over the edge.
    change     Let it shrink.
    corrected  <iframe width="100%"></iframe>

1 snippet: 1 clear.
Seen in Chromium 147.0 alone: not in Firefox or Safari, not signed in, not after
a click.
`,
    );
  });

  test('says what is left out, and which waivers accept nothing', () => {
    const given = { reason: 'x', until: '2027-01-01', by: null };
    const words = format(
      { known: 2 },
      {
        since: { run: 'last', startedAt: '2026-01-01T09:30:00.000Z' },
        idleWaivers: [
          { ...given, finding: 'slot-overflow', snippet: 'map.html', piece: 'width' },
          { ...given, finding: 'off-centre', snippet: null, piece: null },
        ],
      },
    ).replace(/\s+/g, ' ');
    expect(words).toContain('map.html CLEAR, 2 as before ·');
    expect(words).toContain('Only what last (2026-01-01) did not have already is told.');
    expect(words).toContain(
      'The waiver until 2027-01-01 of slot-overflow in map.html at “width” accepts nothing any more',
    );
    expect(words).toContain('The waiver until 2027-01-01 of off-centre accepts nothing any more');
  });

  test('says over the whole snippet what is left for a person to decide', () => {
    const mended = '<iframe width="100%"></iframe>';
    const at = (cause: number, mend = makeFinding().mend) =>
      makeFinding({ id: `finding-${cause}`, cause, mend });
    expect(format({ mended, findings: [at(1), at(2)] })).toContain(
      '  The whole snippet, corrected:',
    );
    expect(format({ mended, findings: [at(1), at(2, null), at(3), at(4, null)] })).toContain(
      '  The whole snippet, corrected as far as that is certain; left to decide: 2 and 4:',
    );
    const many = Array.from({ length: 12 }, (_, i) => at(i + 3, null));
    expect(format({ mended, findings: [at(1), at(2), ...many] })).toContain('10 and 4 more:');
  });

  test('tells slots with the same widths together, and differing measures apart', () => {
    const places = [
      makeSeen('article', 320, 9),
      makeSeen('aside', 320, 9),
      makeSeen('article', 390, 5),
    ];
    const renders = ['article', 'aside'].flatMap((slot) =>
      [320, 390].map((width) => makeRender(slot, width, null)),
    );
    expect(format({ renders, findings: [makeFinding({ seen: places })] })).toContain(
      `    measured   article and aside  320 px  9 px beyond the slot
               article            390 px  5 px beyond the slot
    visitors`,
    );
  });

  test('says what is from the markup alone, waived, or waived no more', () => {
    const waiver = {
      snippet: null,
      piece: null,
      reason: 'spring',
      until: '2026-05-01',
      by: 'desk',
      expired: false,
    };
    const text = format({
      findings: [
        makeFinding({ confirmed: false, waiver, seen: [] }),
        makeFinding({ cause: 2, waiver: { ...waiver, expired: true } }),
      ],
    });
    expect(text).toContain('map.html  CLEAR, 1 concern, 1 waived · fits');
    expect(text).toContain('line 2, column 9 · from the markup alone ·\n    waived');
    expect(text).toContain('waiver     until 2026-05-01: spring (desk)');
    expect(text).toContain('waiver     ran out on 2026-05-01, so it counts as none: spring (desk)');
  });

  test('says what was not judged, and why', () => {
    const notJudged = ['slot-overflow', 'page-hangs'].map((id) => ({
      id,
      why: 'the page hangs',
      snippet: 'map.html',
    }));
    const text = format({ verdict: 'unsure', fitsFrom: null }, { notJudged });
    expect(text).toMatch(/map\.html {2}UNSURE · fits/);
    expect(text).toContain('Not judged: slot-overflow and page-hangs (the page hangs).');
  });

  test('who asks whom is drawn where what came asks for more, those alike in one line', () => {
    const loads = makeLoads([
      { address: 'https://tally.example/a.js', type: 'script', line: 2, wire: 2000 },
      { address: 'https://cdn.tally.example/deep/b.js?v=2', type: 'script', by: 0, status: 404 },
      { address: 'https://cdn.tally.example/1.png', by: 0, wire: 600 },
      { address: 'https://cdn.tally.example/2.png', by: 0, wire: 600 },
      { address: 'https://hits.example/h', type: 'ping', failed: 'no-answer' },
    ]);
    expect(format({ loads })).toContain(`
  Who asks whom: 5 requests in column, phone
    line 2  tally.example/a.js  script, 2 kB
              cdn.tally.example/deep/b.js?…  script, answered with 404
              cdn.tally.example  2 × picture, 1.2 kB
    line ?  hits.example/h  report, no answer
`);
    expect(format({ loads }, {}, 40)).toContain(
      '    line 2  tally.ex…le/a.js  script, 2 kB\n              cdn.tall…/b.js?…  script',
    );
    const flat = { ...loads, requests: loads.requests.slice(0, 1) };
    expect(format({ loads: flat })).not.toContain('Who asks whom');
  });

  test('names the hosts that a line stays open to', () => {
    const tell = (openLines: string[]) => format({ openLines }).replace(/\s+/g, ' ');
    expect(tell([])).not.toContain('open to');
    expect(tell(['chat.example'])).toContain(
      'A line stays open to chat.example: what comes over it later was not seen.',
    );
    expect(tell(['chat.example', 'ticker.example'])).toContain(
      'Lines stay open to chat.example and ticker.example: what comes over them later was not seen.',
    );
  });

  test('tells whom a snippet contacts, also where nothing is wrong with it', () => {
    const host = (name: string, wire: number) => ({
      ...{ host: `${name}.tally.example`, site: 'tally.example', requests: 2, wire },
      ...{ unpacked: 2 * wire, scripts: 1, stored: 0 },
    });
    expect(format({})).not.toContain('Contacts');
    const told = format({ contacts: [host('a', 205_000), { ...host('b', 0), stored: 3 }] });
    expect(told).toContain(
      [
        '  Contacts 2 hosts of 1 site, 205 kB',
        '    host             requests  on the wire  unpacked  scripts  stored',
        '    a.tally.example         2       205 kB    410 kB        1       –',
        '    b.tally.example         2            –         –        1       3',
      ].join('\n'),
    );
    const many = Array.from({ length: 10 }, (_, i) => host(String(i), 10_000));
    expect(format({ contacts: many })).toContain('and 2 more: in the HTML and JSON reports');
  });

  test('keeps to a narrow terminal: grid in rows, words wrapped', () => {
    const renders = [320, 390, 600, 768, 1024, 1280].map((width) =>
      makeRender('column', width, null),
    );
    const text = format({ renders, findings: [makeFinding({ mend: null })] }, {}, 40);
    expect(Math.max(...text.split('\n').map((line) => line.length))).toBeLessThanOrEqual(40);
    expect(text.match(/column {3}/g)!.length).toBeGreaterThan(1);
  });

  test('of a table the four worst rows, and how many more there are', () => {
    const seen = [320, 390, 600, 768, 1024, 1280].map((width, i) => makeSeen('column', width, i));
    const text = format({ findings: [makeFinding({ seen })] });
    expect(text.match(/\d px beyond the slot/g)!.map((one) => one[0])).toEqual([
      '5',
      '4',
      '3',
      '2',
    ]);
    expect(text).toContain('and 2 more rows');
  });

  test('one cause is one block: one caret, one measure, one correction, the others a sentence each', () => {
    const other = makeFinding({ id: 'frame-fixed-size', message: 'It stays 640 px wide.' });
    const text = format({ findings: [makeFinding({ level: 'blocker' }), other, other] });
    expect(text.match(/\^+/g)).toHaveLength(1);
    expect(text.match(/frame-fixed-size/g)).toHaveLength(1);
    expect(text.match(/measured|corrected|change/g)).toHaveLength(3);
    expect(text).toContain('also       ◧ frame-fixed-size: It stays 640 px wide.');
  });

  test('what is alike at many places is told once, then a line each, and not without end', () => {
    const findings = Array.from({ length: 40 }, (_, i) =>
      makeFinding({ cause: i + 1, where: { ...makeFinding().where, line: i + 2 } }),
    );
    const text = format({ findings, text: '\n'.repeat(60) });
    expect(text.match(/visitors/g)).toHaveLength(1);
    expect(text).toContain('likewise   2  line 3, column 9: It reaches beyond its slot.');
    expect(text).toContain('and 29 more places, down to line 41');
    const twoKinds = [...findings.slice(0, 2), makeFinding({ cause: 3, level: 'blocker' })];
    expect(format({ findings: twoKinds }).match(/visitors/g)).toHaveLength(2);
  });

  test('a long line is cut around the change, and what is put at the end is said once', () => {
    const line = `<p>${'sow '.repeat(300)}</p>`;
    const at = line.indexOf('sow', 600);
    const mend = [{ offset: at, endOffset: at + 3, text: 'reap' }];
    const [corrected] = /corrected.*/.exec(
      format({ text: line, findings: [makeFinding({ mend })] }),
    )!;
    expect(corrected).toMatch(/…(sow )+reap( sow)+…/);
    expect(corrected.length).toBeLessThan(400);
    const end = [{ offset: line.length, endOffset: line.length, text: '</div>' }];
    expect(format({ text: line, findings: [makeFinding({ mend: end })] })).not.toContain(
      'corrected',
    );
  });

  test.each([
    [[true, true], 'fits all tested, from 288 px'],
    [[false, false], 'fits none tested'],
    [[false, true], 'fits 680, not 288'],
    [[true, false], 'fits 288, not 680'],
  ])('fits as tried: %p', (fits, words) => {
    const renders = [288, 680].map((slotWidth, i) => ({
      ...makeRender('column', slotWidth, null),
      slotWidth,
      fits: fits[i]!,
    }));
    expect(format({ renders })).toContain(`· ${words}\n`);
  });

  test('a run of several begins with a line each, the worst first, with the reason', () => {
    const held = makeSnippet({
      name: 'b.html',
      verdict: 'hold',
      findings: [makeFinding({ level: 'blocker' })],
    });
    const snippets = [
      makeSnippet({ name: 'a.html' }),
      { ...held, name: 'd.html', findings: [makeFinding()] },
      held,
      makeSnippet({ name: 'c.html', verdict: 'unsure' }),
    ];
    const notJudged = [{ id: 'page-hangs', why: 'the page was left', snippet: 'c.html' }];
    const text = formatText(makeDocument(snippets, { notJudged }), { paint, width: 80 });
    expect(
      text
        .split('\n\n')[1]!
        .split('\n')
        .map((line) => line.trim()),
    ).toEqual([
      'b.html  HOLD    beyond its slot',
      'd.html  HOLD    beyond its slot',
      'c.html  UNSURE  not all was seen: the page was left',
      'a.html  CLEAR',
    ]);
    const titles = text.match(/^[abcd]\.html {2}[A-Z]+(,| ·)/gm)!.map((one) => one[0]);
    expect(titles).toEqual(['b', 'd', 'c', 'a']);
  });

  test('a waived finding has its own mark in the grid, and what is told all the same is not confirmed', () => {
    const render = { ...makeRender('column', 320, null), waived: true };
    expect(format({ renders: [render] })).toContain('column     ◇');
    const notJudged = [{ id: 'slot-overflow', why: 'the page was left', snippet: 'map.html' }];
    const tell = (confirmed: boolean) =>
      format({ findings: [makeFinding({ confirmed })] }, { notJudged });
    expect(tell(false)).toContain('Not confirmed: slot-overflow (the page was left).');
    expect(tell(true)).toContain('Judged in part: slot-overflow (the page was left).');
  });

  test('without a render says so', () => {
    expect(format({ renders: [] }, { engines: [] })).toContain(
      'Nothing was rendered: only the markup was read.',
    );
  });
});
