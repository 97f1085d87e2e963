import { afterAll, expect, test } from '@jest/globals';
import { mkdtempSync, readdirSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { gunzipSync, gzipSync } from 'node:zlib';
import { audit, readHouse, runSchema, type AuditEvent } from '../../dist/src/index.js';
import { formatHtml } from '../../dist/src/formats/html/report.js';
import { rejudge } from '../../dist/src/run/rejudge.js';
import { readShot } from '../../dist/src/run/shots.js';

const folder = mkdtempSync(join(tmpdir(), 'mivket-audit-'));
afterAll(() => rmSync(folder, { recursive: true }));

const wide = { name: 'wide', text: '<div style="width: 500px">Spring sowing list</div>' };
const bare = { name: 'bare', text: '<img src="data:,">' };

test('two audits with two houses in one process do not disturb each other', async () => {
  const houses = ['320', '900'].map((width) =>
    readHouse(
      `viewports: [{ name: only, width: ${width} }]\nsearchWidths: [${width}, 1000]\nlanguage: ${width === '320' ? 'de' : 'en'}`,
      'x',
    ),
  );
  const runs = houses.map((house) => audit({ snippets: [wide], house }));
  const documents = await Promise.all(runs.map((run) => run.document));
  const found = documents.map(({ verdict, snippets, house }) => [
    verdict,
    house.viewports.map(({ width }) => width),
    snippets[0]!.findings.map(({ id }) => id),
  ]);
  expect(found).toEqual([
    ['hold', [320], ['page-scrolls-sideways']],
    ['clear', [900], []],
  ]);
  for (const document of documents) expect(runSchema.parse(document)).toEqual(document);
  await Promise.all(runs.map((run) => run.finished));
});

test('tells what happens as it happens', async () => {
  const run = audit({ snippets: [wide, bare], widths: [320, '390@2'], only: ['slot-overflow'] });
  const events: AuditEvent[] = [];
  for await (const event of run) events.push(event);
  const of = <T extends AuditEvent['type']>(type: T) =>
    events.filter((event): event is Extract<AuditEvent, { type: T }> => event.type === type);
  expect(of('planned').map(({ renders }) => renders)).toEqual([4]);
  expect(of('browser')).toHaveLength(1);
  expect(of('rendered')).toHaveLength(4);
  expect(
    of('judged')
      .map(({ report }) => report.name)
      .sort(),
  ).toEqual(['bare', 'wide']);
  expect((await run.document).snippets.map(({ name }) => name)).toEqual(['wide', 'bare']);
});

test('what reads the markup alone starts no browser', async () => {
  const run = audit({ snippets: [bare], only: ['attribute-misspelt'], browser: '/nowhere/chrome' });
  const { engines, notJudged } = await run.document;
  expect([engines, notJudged]).toEqual([[], []]);
  await expect(audit({ snippets: [bare], browser: '/nowhere/chrome' }).document).rejects.toThrow(
    '/nowhere/chrome',
  );
});

test.each([
  [{ snippets: [bare], slots: ['aside'] }, '`slots` names "aside"'],
  [{ snippets: [bare], widths: [9] }, '`widths` must be px from 100 to 10000'],
  [{ snippets: [bare, bare] }, 'Two snippets have the name "bare".'],
])('%j is refused, also to who only listens', async (request, complaint) => {
  const run = audit(request);
  await expect(run.document).rejects.toThrow(complaint);
  await expect(
    (async () => {
      for await (const event of audit(request)) expect(event).toBeNull();
    })(),
  ).rejects.toThrow(complaint);
});

test('aborted, it gives what was finished', async () => {
  const controller = new AbortController();
  const slow = { name: 'slow', text: '<script>for (;;);</script>' };
  const request = { snippets: [bare, slow], widths: [390], jobs: 1 };
  const run = audit(request, { signal: controller.signal });
  for await (const event of run) if (event.type === 'judged') controller.abort();
  const { verdict, snippets } = await run.document;
  expect([verdict, snippets.map(({ name }) => name)]).toEqual(['hold', ['bare']]);
});

test('a report is made from a kept run document and its shots alone; the run is judged again', async () => {
  const kept = join(folder, 'kept');
  const shots = join(kept, 'pictures');
  const run = audit({ snippets: [wide, bare], widths: [390], keep: kept, shots });
  const document = await run.document;
  await run.finished;
  const read = runSchema.parse(JSON.parse(readFileSync(join(kept, 'run.json'), 'utf8')));
  expect(read).toEqual(document);
  const write = async (of: typeof document) => {
    let html = '';
    for await (const piece of formatHtml(of, (hash) => readShot(shots, hash))) html += piece;
    return html;
  };
  const html = await write(read);
  expect(html).toBe(await write(document));
  expect(html.match(/data:image\/png;base64,/g)).toHaveLength(2);
  const request = { folder: kept, shown: 'kept' };
  const again = await rejudge(request, (part) => part);
  expect(again.differs).toBe(false);
  expect(again.document.snippets).toEqual(document.snippets);

  // What was kept is looked through before it is used.
  const [name] = readdirSync(join(kept, 'evidence'));
  const file = join(kept, 'evidence', name!);
  const text = gunzipSync(readFileSync(file)).toString();
  writeFileSync(file, gzipSync(text.replaceAll('"clipped":false', '"clipped":"no"')));
  await expect(rejudge(request, (part) => part)).rejects.toThrow(
    /^kept\/evidence\/\w+\.jsonl\.gz is broken: `elements\.0\.clipped` is missing or wrong\.$/,
  );
  writeFileSync(file, gzipSync(text));
  const list = join(kept, 'kept.json');
  writeFileSync(list, readFileSync(list, 'utf8').replace(/mivket-kept-\d+/, 'mivket-kept-1'));
  await expect(rejudge(request, (part) => part)).rejects.toThrow(
    'of a run that this version keeps',
  );
});
