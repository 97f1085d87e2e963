import { expect, test } from '@jest/globals';
import type { RequestFact } from '../../src/core/evidence.js';
import { tellFailure } from '../../src/core/measure/failed.js';
import { listOpenLines } from '../../src/core/measure/open-lines.js';

const ADDRESS = 'https://static.rootcellar.example/beans.png';
const make = (request: Partial<RequestFact>) =>
  ({ first: ADDRESS, status: 200, failed: null, refused: null, ...request }) as RequestFact;
const refused = (kind: 'unreachable' | 'offline') => ({ refused: { kind, words: '' } });

test.each<[string, Partial<RequestFact>[], string | null]>([
  ['came', [{}], null],
  [
    'was not asked for',
    [{ first: 'https://static.rootcellar.example/pea.png', status: 404 }],
    null,
  ],
  ['is not there', [{ status: 404 }], 'its address is answered with 404'],
  [
    'leads to what is not there',
    [{ status: 301 }, { status: 410 }],
    'its address is answered with 410',
  ],
  ['leads to what is there', [{ status: 301 }, {}], null],
  ['may be there for others', [{ status: 403, failed: 'cancelled' }], null],
  [
    'is of a host that is gone',
    [{ status: 502, ...refused('unreachable') }],
    'its host does not answer',
  ],
  ['was kept back by the run', [{ status: 502, ...refused('offline') }], null],
  ['was kept back by a policy', [{ status: null, failed: 'csp' }], null],
  [
    'is not shared with pages of other sites',
    [{ failed: 'not-shared' }],
    'its host does not let pages of other sites read it',
  ],
  [
    'is not there, nor shared',
    [{ status: 404, failed: 'not-shared' }],
    'its address is answered with 404',
  ],
  [
    'is a page',
    [{ failed: 'other-kind', contentType: 'text/html' }],
    'what comes is of another kind (text/html)',
  ],
  ['did not come', [{ status: null, failed: 'no-answer' }], 'its host does not answer'],
  [
    'leads nowhere',
    [{ status: null, failed: 'endless-redirects' }],
    'its address leads from one to the next without end',
  ],
])('a file that %s', (_, requests, why) => {
  expect(tellFailure(ADDRESS, requests.map(make))?.why ?? null).toBe(why);
});

test('a line that stays open is one that was let through, each host once', () => {
  const of = (host: string, more: Partial<RequestFact> = {}) =>
    make({ host, type: 'stream', failed: null, ...more });
  const first = [of('ticker.example'), of('chat.example', { type: 'socket' })];
  const second = [
    of('ticker.example'),
    of('gone.example', { failed: 'no-answer' }),
    of('kept.example', refused('offline')),
    of('data.example', { type: 'data', waited: 9 }),
    of('late.example', { type: 'data', status: 200, waited: null }),
    of('held.example', { type: 'data', status: null, waited: null }),
    of('down.example', { type: 'data', status: null, waited: null, failed: 'no-answer' }),
    of('script.example', { type: 'script', status: null, waited: null }),
  ];
  expect(listOpenLines([{ traffic: first }, { traffic: second }])).toEqual([
    'chat.example',
    'held.example',
    'ticker.example',
  ]);
});
