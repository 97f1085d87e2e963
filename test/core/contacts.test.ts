import { expect, test } from '@jest/globals';
import type { RequestFact, StoredFact } from '../../src/core/evidence.js';
import { listContacts } from '../../src/core/measure/contacts.js';

const make = (host: string, more: Partial<RequestFact> = {}) =>
  ({
    ...{ host, type: 'picture', wire: 100, unpacked: 300, failed: null, refused: null },
    ...more,
  }) as RequestFact;
const stored = (host: string, name: string) =>
  ({ kind: 'local', host, name, days: null }) as StoredFact;
const list = (...renders: { traffic: RequestFact[]; stored?: StoredFact[] }[]) =>
  listContacts(
    renders.map((one) => ({ stored: [], ...one })),
    'https://www.seedlibrary.example',
  );

test('whom a snippet contacts is told by host, as in the render that asked it most', () => {
  const small = { traffic: [make('a.tally.example'), make('maps.fernmap.example')] };
  const large = {
    traffic: [
      make('a.tally.example', { type: 'script', wire: 900 }),
      make('a.tally.example', { failed: 'no-answer', wire: 50 }),
    ],
    stored: [stored('a.tally.example', 'visit'), stored('else.example', 'x')],
  };
  const told = list(small, large, { ...small, stored: [stored('a.tally.example', 'visit')] });
  expect(told).toEqual([
    {
      ...{ host: 'a.tally.example', site: 'tally.example', requests: 2, wire: 900 },
      ...{ unpacked: 300, scripts: 1, stored: 1 },
    },
    {
      ...{ host: 'maps.fernmap.example', site: 'fernmap.example', requests: 1, wire: 100 },
      ...{ unpacked: 300, scripts: 0, stored: 0 },
    },
  ]);
});

test('the page’s own site, and what is nobody’s, are no contacts', () => {
  const inside = { kind: 'private-address' as const, words: '' };
  expect(
    list({ traffic: [make('cdn.seedlibrary.example'), make('10.0.0.9', { refused: inside })] }),
  ).toEqual([]);
});
