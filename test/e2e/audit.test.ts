import { afterAll, afterEach, beforeAll, describe, expect, test } from '@jest/globals';
import { existsSync, readdirSync, readFileSync } from 'node:fs';
import { join } from 'node:path';
import { gunzipSync } from 'node:zlib';
import { HOSTS, startStandIns, type StandIns } from '../../dist/demo/stand-ins/index.js';
import { runSchema } from '../../dist/src/core/run.js';
import { findProcesses } from '../support/processes.js';
import { getIds, Workshop } from '../support/program.js';

const shop = new Workshop();
let standIns: StandIns;
let house: string;

beforeAll(async () => {
  standIns = await startStandIns();
  house = shop.write('mivket.yaml', makeHouse(standIns.origin));
});

afterAll(async () => {
  await standIns.close();
  shop.close();
});

afterEach(() => {
  // Nothing may be left: no profile, no browser that works on one.
  expect(readdirSync(shop.temporary)).toEqual([]);
  expect(findProcesses(shop.temporary)).toEqual([]);
});

function makeHouse(origin: string, more = ''): string {
  const reroute = HOSTS.map((host) => `  "${host}": ${origin}`).join('\n');
  return `viewports: [{ name: phone, width: 390 }, { name: desktop, width: 1280 }]\nreroute:\n${reroute}\n${more}`;
}

describe('a run', () => {
  test('gives a document that holds to its schema, results in input order', async () => {
    const names = Array.from({ length: 12 }, (_, i) => `s${String(i).padStart(2, '0')}.html`);
    names.forEach((name, i) =>
      shop.write(`many/${name}`, `<p>${i}</p>${i % 5 === 0 ? '<img src="x.png">' : ''}`),
    );
    const { code, document } = await shop.audit(['many']);
    expect(code).toBe(1);
    expect(runSchema.parse(document)).toEqual(document);
    expect(document.snippets.map(({ name }) => name)).toEqual(names);
    expect(document.snippets.filter(({ verdict }) => verdict === 'hold')).toHaveLength(3);
    expect(document.snippets[1]).toMatchObject({
      verdict: 'clear',
      fitsFrom: 248,
      findings: [],
      gaps: [],
    });
  });

  test('tells the slot, the widths and the source in its text', async () => {
    const code =
      '<h2>Find us</h2>\n<iframe title="Map" width="640" height="360" src="https://maps.fernmap.example/embed/x"></iframe>';
    const { out } = await shop.run(['audit', '--code', code]);
    expect(out).toMatch(
      /^House mivket\.yaml: slot “column” on the neutral page, at 390 and 1280 px\./,
    );
    expect(out).toMatch(/code {2}HOLD, 1 blocker, 1 concern, 2 advice · fits from 644 px/);
    expect(out).toMatch(/390 {2}1280\n {2}column {5}■ {5}◧/);
    expect(out).toMatch(/2 │ <iframe title="Map" width="640".*\n +│ {21}\^{11}\n/);
    expect(out).toMatch(/corrected .*max-width: 640px/);
    expect(out).toMatch(/Seen in Chromium [\d.]+ alone/);
  });

  test('says in its first line when there is no house file', async () => {
    const { out } = await shop.run([
      'audit',
      '--markup-only',
      '--code',
      '<p>x</p>',
      '--house',
      house,
    ]);
    expect(out).toMatch(/^House/);
    const bare = new Workshop();
    const without = await bare.run(['audit', '--markup-only', '--code', '<p>x</p>']);
    bare.close();
    expect(without.out).toMatch(
      /^No house file: slot “column” on the neutral page, at 320, 390, 768 and 1280 px\./,
    );
  });

  test('saves and keeps whole files', async () => {
    const { document } = await shop.audit([
      '--code',
      '<p>x</p>',
      '--save',
      'out/run.json',
      '--keep',
      'kept',
    ]);
    const saved: unknown = JSON.parse(readFileSync(join(shop.folder, 'out/run.json'), 'utf8'));
    expect(saved).toEqual(document);
    const [file] = readdirSync(join(shop.folder, 'kept/evidence'));
    const lines = gunzipSync(readFileSync(join(shop.folder, 'kept/evidence', file!)))
      .toString()
      .trim()
      .split('\n');
    expect(lines).toHaveLength(3);
    expect(JSON.parse(lines[1]!)).toMatchObject({
      render: { viewport: { name: 'phone' } },
      slot: { box: { width: 358 } },
    });
    expect(existsSync(join(shop.folder, 'kept/run.json'))).toBe(true);
  });

  test('judges at the widths asked for, with their density', async () => {
    const { document } = await shop.audit(['--code', '<p>x</p>', '--width', '390,500@3,1280']);
    expect(document.snippets[0]!.renders.map(({ width, density }) => [width, density])).toEqual([
      [390, 2],
      [500, 3],
      [1280, 1],
    ]);
  });
});

describe('the house', () => {
  test('its page, slots, files, levels and waivers count', async () => {
    shop.write('site/public/site.css', '.side { width: 240px } header { width: 1500px }');
    shop.write(
      'site/public/leaf.png',
      readFileSync(new URL('../../demo/files/beans.png', import.meta.url)),
    );
    shop.write(
      'site/host.html',
      '<!doctype html><meta name="viewport" content="width=device-width"><link rel="stylesheet" href="/site.css"><header>Seed library</header><main data-mivket-slot="article">old</main><div class="side" data-mivket-slot="sidebar"></div>',
    );
    const rules = [
      'page: host.html',
      'root: public',
      'levels: { picture-without-alt: advice }',
      'waivers:',
      '  - { finding: slot-overflow, snippet: "*.html", until: 2099-01-01, reason: goes in spring }',
    ];
    const file = shop.write('site/mivket.yaml', makeHouse(standIns.origin, rules.join('\n')));
    shop.write(
      'site/leaf.html',
      '<img src="/leaf.png" width="300" height="60" style="object-fit: cover; image-rendering: pixelated">',
    );
    const { code, document } = await shop.audit(['site/leaf.html', '--house', file]);
    const [snippet] = document.snippets;
    // The host page is 1500 px wide by itself: that is not the snippet's doing.
    expect(getIds(document)).toEqual({ 'leaf.html': ['slot-overflow', 'picture-without-alt'] });
    expect(snippet!.findings[0]!.seen.map(({ slot, viewport }) => `${slot} ${viewport}`)).toEqual([
      // Beyond the widths of the house, found by the search.
      'article 280',
      'sidebar phone',
      'sidebar desktop',
    ]);
    expect(snippet!.findings[0]!.waiver).toMatchObject({ expired: false, until: '2099-01-01' });
    expect(snippet!.findings[1]).toMatchObject({
      level: 'advice',
      seen: expect.arrayContaining([
        expect.objectContaining({ measured: { name: null, width: 300, height: 60 } }),
      ]),
    });
    expect(code).toBe(0);
  });

  test('a wrong key is told with file, line and the nearest right one', async () => {
    const file = shop.write('bad.yaml', 'slots:\n  column:\n    widht: 300\n');
    const { code, err } = await shop.run(['audit', '--code', '<p>x</p>', '--house', file]);
    expect(code).toBe(2);
    expect(err).toMatch(
      /^mivket: bad\.yaml, line 3: `slots\.column\.widht` is not a key of "slots\.column"\. Did you mean "width"\?/,
    );
  });
});

test('a reader that stops early is no fault', async () => {
  const { child, done } = shop.start(['audit', '--code', '<img src="x.png">', '--width', '390']);
  child.stdout!.destroy();
  const { code, err } = await done;
  expect([code, err.replace(/.*sandbox.*\n/, '')]).toEqual([1, '']);
});
