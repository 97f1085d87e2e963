import { afterAll, beforeAll, expect, test } from '@jest/globals';
import { readFileSync } from 'node:fs';
import { join } from 'node:path';
import type { RunDocument } from '../../dist/src/core/run.js';
import { getIds, Workshop, type Outcome } from '../support/program.js';

const shop = new Workshop();
afterAll(() => shop.close());

const FRAME = '<iframe src="about:blank" style="border: 0"></iframe>';
const DAY_BEFORE = '2026-01-02T09:30:00.000Z';
const ASKED = ['--width', '390', '--no-ranges', '--only', 'frame-unnamed,picture-without-alt'];

beforeAll(async () => {
  shop.write('in/map.html', FRAME);
  shop.write('in/beds.html', '<p>Beans</p>');
  await shop.run(['audit', 'in', ...ASKED, '--keep', 'before']);
  // As if it were from the day before.
  const list = readFileSync(join(shop.folder, 'before/kept.json'), 'utf8');
  shop.write(
    'before/kept.json',
    list.replace(/"startedAt": "[^"]+"/, `"startedAt": "${DAY_BEFORE}"`),
  );
  shop.write('in/map.html', `<h2>Find us</h2>\n${FRAME}<img src="data:,">`);
});

const audit = (args: string[]): Promise<Outcome> => shop.run(['audit', 'in', ...ASKED, ...args]);

test('a run tells only what the one before did not have', async () => {
  const { out, code } = await audit(['--new-since', 'before', '--keep', 'after']);
  expect(out).toContain('map.html  HOLD, 1 blocker, 1 as before');
  expect(out).toContain('Only what before (2026-01-02) did not have already is told.');
  expect(code).toBe(1);
  const kept = await shop.run(['judge', 'after', '--new-since', 'before', '--format', 'json']);
  const document = JSON.parse(kept.out) as RunDocument;
  expect(getIds(document)).toEqual({ 'beds.html': [], 'map.html': ['picture-without-alt'] });
  expect(document.since).toEqual({ run: 'before', startedAt: DAY_BEFORE });
  const again = await shop.run(['judge', 'before', '--format', 'json']);
  expect((JSON.parse(again.out) as RunDocument).renderedAt).toBe(DAY_BEFORE);
  const same = await shop.run(['judge', 'after', '--new-since', 'after']);
  expect([same.code, same.out]).toEqual([
    0,
    expect.stringMatching(/map\.html  CLEAR, \d as before/),
  ]);
});

test('a run to go on from that is none is told before anything is rendered', async () => {
  const { code, err, out } = await audit(['--new-since', 'in']);
  expect(err).toMatch(/^mivket: in .*Give a folder that `mivket audit --keep` made\.\n$/s);
  expect([code, out]).toEqual([2, '']);
});

test('each snippet is a line as soon as it is finished, and the run the last', async () => {
  const { child, done } = shop.start(['audit', 'in', ...ASKED, '--jobs', '1', '--format', 'jsonl']);
  const first = await new Promise<string>((resolve) =>
    child.stdout!.once('data', (chunk: Buffer) => resolve(chunk.toString())),
  );
  expect(first).not.toContain('"type":"run"');
  const { out, code } = await done;
  const lines = out
    .trimEnd()
    .split('\n')
    .map((line) => JSON.parse(line) as { type: string });
  expect(lines.map(({ type }) => type)).toEqual(['snippet', 'snippet', 'run']);
  expect(code).toBe(1);
});

test('what is found becomes waivers, which hold for it alone', async () => {
  const wrote = await audit(['--markup-only', '--write-waivers', 'waivers.yaml']);
  expect(wrote.code).toBe(1);
  const waivers = readFileSync(join(shop.folder, 'waivers.yaml'), 'utf8');
  shop.write('house.yaml', waivers);
  const unsaid = await audit(['--house', 'house.yaml', '--markup-only']);
  expect(unsaid.err).toMatch(/house\.yaml, line \d+: `waivers\.0\.reason` must/);
  shop.write('house.yaml', waivers.replaceAll('reason: ""', 'reason: The vendor mends it'));
  const waived = await audit(['--house', 'house.yaml', '--markup-only', '--format', 'json']);
  const document = JSON.parse(waived.out) as RunDocument;
  expect([document.counts, document.idleWaivers]).toEqual([
    { blocker: 0, concern: 0, advice: 0 },
    [],
  ]);
  shop.write('in/map.html', '<img src="data:,x">');
  const whole = ['audit', 'in', '--only', 'frame-unnamed,picture-without-alt', '--markup-only'];
  const { out } = await shop.run([...whole, '--house', 'house.yaml']);
  expect(out).toContain('map.html  HOLD, 1 blocker');
  expect(out.replace(/\s+/g, ' ')).toMatch(
    /The waiver until \S+ of picture-without-alt in map\.html at “<img src="data:,">” accepts nothing any more/,
  );
  // What was looked at in part may have it elsewhere.
  const part = await shop.run([...whole, '--house', 'house.yaml', '--width', '390']);
  expect(part.out).not.toContain('any more');
});

test('a budget says how much may be', async () => {
  const within = await audit(['--markup-only', '--budget', 'blocker:1']);
  const over = await audit(['--markup-only', '--budget', 'blocker:0,advice:3']);
  expect([within.code, over.code]).toEqual([0, 1]);
  expect(over.err).toContain(
    'mivket: Over the budget: 1 finding of the level blocker, and 0 may be.',
  );
});
