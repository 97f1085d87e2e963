import { describe, expect, test } from '@jest/globals';
import type { Evidence, RequestFact } from '../../src/core/evidence.js';
import { readMarkup } from '../../src/core/markup/markup.js';
import { readFreshness } from '../../src/core/measure/freshness.js';
import { reportLoads } from '../../src/core/measure/loads.js';
import type { LoadReport } from '../../src/core/loads-report.js';

const MARKUP = readMarkup('<p>Visits</p>\n<script src="https://tally.example/a.js"></script>');
const AT = MARKUP.text.indexOf('<script');

const ask = (path: string, more: Partial<RequestFact> = {}) =>
  ({
    ...{ address: `https://tally.example/${path}`, first: `https://tally.example/${path}` },
    ...{ host: 'tally.example', type: 'script', status: 200, wire: 9, unpacked: 9 },
    ...{ failed: null, refused: null, from: null, by: null, inFrame: false },
    ...more,
  }) as RequestFact;

const see = (traffic: RequestFact[], variant = 'as-is', name = 'phone') =>
  ({
    render: { snippets: [{ slot: 'column' }], viewport: { name }, variant },
    ...{ of: 0, traffic, gaps: [] },
  }) as unknown as Evidence;

const report = (...evidence: Evidence[]) =>
  reportLoads(MARKUP, evidence, 'https://www.seedlibrary.example');
const draw = (requests: readonly LoadReport[]) =>
  requests.map(({ address, by, line }) => `${new URL(address).pathname} ${by} ${line}`);

describe('who loads whom', () => {
  test('is told of the render as it is that asked for most', () => {
    const many = [ask('a.js', { from: { offset: AT } }), ask('b.js')];
    const told = report(
      see([ask('a.js')]),
      see(many, 'as-is', 'wide'),
      see([...many, ...many], 'dark'),
    );
    expect([told!.viewport, draw(told!.requests)]).toEqual([
      'wide',
      ['/a.js null 2', '/b.js null null'],
    ]);
    expect(report(see([]))).toBeNull();
  });

  test('leads from what asked to what it asked for, and through what sends the browser elsewhere', () => {
    const [A, GONE] = ['https://tally.example/a.js', 'https://tally.example/gone'];
    const told = report(
      see([
        ask('a.js', { from: { offset: AT } }),
        ask('new', { first: GONE, by: A }),
        ask('gone', { status: 301, by: A }),
        ask('there', { first: GONE, status: 302, by: A }),
        ask('kept', { status: 304, by: A }),
        // Made by a script, of which it is not known which.
        ask('made', { from: { script: null, line: null } }),
      ]),
    );
    expect(draw(told!.requests)).toEqual([
      '/a.js null 2',
      '/new 3 null',
      '/gone 0 null',
      '/there 2 null',
      '/kept 0 null',
      '/made null null',
    ]);
  });

  test('scripts that ask for each other, and one for itself, have an end', () => {
    const by = (path: string) => ({ by: `https://tally.example/${path}` });
    const told = report(see([ask('a', by('b')), ask('b', by('a')), ask('c', by('c'))]));
    expect(draw(told!.requests)).toEqual(['/a null null', '/b null null', '/c null null']);
  });

  test('what the run refused is told with its reason, and what is the page’s own as that', () => {
    const refused = { kind: 'offline', words: '' } as const;
    const own = { host: 'static.seedlibrary.example', failed: 'cancelled' };
    const told = report(see([ask('a.js', { refused, failed: 'refused' }), ask('b.js', own)]));
    expect(told!.requests.map(({ failed, thirdParty }) => [failed, thirdParty])).toEqual([
      ['offline', true],
      ['cancelled', false],
    ]);
    // What is refused, or breaks off, weighs nothing: how much of it came goes by the moment.
    expect(told!.requests.map(({ wire, unpacked }) => wire + unpacked)).toEqual([0, 0]);
  });
});

test.each([
  [{ 'Cache-Control': 'public, max-age=300' }, 300],
  [{ 'cache-control': 'max-age=300, s-maxage=9' }, 300],
  [{ 'cache-control': 'no-store' }, 0],
  [{ 'cache-control': 'no-cache' }, 0],
  [{ date: 'Tue, 05 May 2026 09:00:00 GMT', expires: 'Tue, 05 May 2026 09:01:00 GMT' }, 60],
  [{ expires: '0' }, 0],
  [{ 'last-modified': 'Tue, 05 May 2020 09:00:00 GMT' }, null],
] as [Record<string, string>, number | null][])(
  'an answer with %j is kept for %s s',
  (headers, kept) => {
    expect(readFreshness(200, headers)).toBe(kept);
  },
);
