import { expect, test } from '@jest/globals';
import type { Mark } from '../../src/core/judge/marks.js';
import type { RunDocument, SnippetReport } from '../../src/core/run.js';
import { formatHtml, formatSheetPage } from '../../src/formats/html/report.js';
import {
  makeDocument,
  makeFinding,
  makeLoads,
  makeRender,
  makeSnippet,
} from '../support/document.js';
import { getAttribute, listNodes } from '../support/nodes.js';

const NASTY = '"><img src=x onerror=alert(1)><script>alert(2)</script>\u202e\u001b[2J';
const region = { x: 0, y: 100, width: 656, height: 200 };
const mark = (number: number, box: Mark['box'], level: Mark['level'] = 'blocker'): Mark => ({
  number,
  level,
  box,
});
const BOX = { x: 16, y: 124, width: 328, height: 50 };

const HASH = 'a'.repeat(64);
const SHOTS = new Map([[HASH, 'UE5H']]);

function makeReport(name = 'map.html'): RunDocument {
  const findings = [makeFinding({ level: 'blocker' }), makeFinding({ id: 'frame-unnamed' })];
  const render = {
    ...makeRender('column', 320, 'blocker'),
    shot: { hash: HASH, region },
    marks: [mark(1, BOX), mark(2, BOX, 'concern')],
  };
  return makeDocument([makeSnippet({ name, findings, renders: [render] })]);
}

async function format(document: RunDocument): Promise<string> {
  let html = '';
  for await (const piece of formatHtml(document, (hash) =>
    Promise.resolve(SHOTS.get(hash) ?? null),
  ))
    html += piece;
  return html;
}

test('the overview stays a table where a phone lays its rows out otherwise', async () => {
  const report = makeReport();
  report.snippets.push(makeSnippet({ name: 'beds.html' }));
  const nodes = listNodes(await format(report));
  const roles = nodes.flatMap((node) => getAttribute(node, 'role') ?? []);
  const count = (role: string) => roles.filter((one) => one === role).length;
  expect(['table', 'row', 'columnheader', 'cell'].map(count)).toEqual([1, 3, 5, 10]);
});

test('shows those of one verdict alone, where there are several', async () => {
  const choices = async (...verdicts: SnippetReport['verdict'][]) => {
    const snippets = verdicts.map((verdict, i) => makeSnippet({ name: `${i}.html`, verdict }));
    const nodes = listNodes(await format(makeDocument(snippets)));
    const ids = nodes.flatMap((node) => getAttribute(node, 'id') ?? []);
    for (const [tag, role] of [
      ['section', null],
      ['tr', 'row'],
    ] as const)
      expect(
        nodes.filter(
          (one) =>
            one.tagName === tag &&
            getAttribute(one, 'role') === role &&
            /of-/.test(getAttribute(one, 'class') ?? ''),
        ),
      ).toHaveLength(verdicts.length);
    return ids.filter((id) => id.startsWith('show-'));
  };
  expect(await choices('clear', 'hold', 'clear')).toEqual(['show-all', 'show-hold', 'show-clear']);
  expect(await choices('hold', 'hold')).toEqual([]);
});

test('says at its end what is left out', async () => {
  const report = makeReport();
  report.since = { run: '<b>last', startedAt: '2026-01-01T09:30:00.000Z' };
  expect(await format(report)).toContain('Only what &lt;b&gt;last (2026-01-01) did not have');
});

test('asks for nothing outside, has no script, and every picture has its words', async () => {
  const html = await format(makeReport());
  const nodes = listNodes(html);
  expect(nodes.some(({ tagName }) => /^(script|link|iframe|base)$/.test(tagName))).toBe(false);
  const addresses = nodes.flatMap(
    (node) => getAttribute(node, 'src') ?? getAttribute(node, 'href') ?? [],
  );
  expect(addresses.filter((address) => !/^(data:image\/png|#)/.test(address))).toEqual([]);
  expect(html).not.toMatch(/url\(|@import/);
  const pictures = nodes.filter(({ tagName }) => tagName === 'img');
  expect(pictures.map((node) => getAttribute(node, 'alt'))).toEqual([
    'map.html in the slot column of a window of 320 px; outlined: finding 1, 2',
  ]);
});

test('has all snippets in its one main part, and its foot behind them', async () => {
  const report = makeReport();
  report.snippets.push({ ...report.snippets[0]!, name: 'other.html' });
  const nodes = listNodes(await format(report));
  const [main] = nodes.filter(({ tagName }) => tagName === 'main');
  const sections = nodes.filter(({ tagName }) => tagName === 'section');
  expect(sections.map(({ parentNode }) => parentNode)).toEqual([main, main]);
  const body = nodes.find(({ tagName }) => tagName === 'body')!;
  const parts = body.childNodes.flatMap((node) => ('tagName' in node ? [node.tagName] : []));
  expect(parts).toEqual(['header', 'main', 'footer']);
});

test('has one first heading, no level left out, and no id twice', async () => {
  const nodes = listNodes(await format(makeReport()));
  const levels = nodes.flatMap(({ tagName }) => /^h(\d)$/.exec(tagName)?.[1] ?? []).map(Number);
  expect(levels.filter((level) => level === 1)).toHaveLength(1);
  expect(levels.filter((level, i) => i > 0 && level > levels[i - 1]! + 1)).toEqual([]);
  const ids = nodes.flatMap((node) => getAttribute(node, 'id') ?? []);
  expect(new Set(ids).size).toBe(ids.length);
});

test('what lies on one box has one outline with all numbers, placed within the picture', async () => {
  const outlines = listNodes(await format(makeReport())).filter((node) =>
    getAttribute(node, 'class')?.startsWith('mark'),
  );
  expect(outlines.map((node) => getAttribute(node, 'style'))).toEqual([
    'left: 2.439%; top: 12%; width: 50%; height: 25%',
  ]);
});

test('numbers stand over what they mark, and never on it: where that begins above the picture, in the strip over it', async () => {
  const report = makeReport();
  const render = report.snippets[0]!.renders[0]!;
  render.marks = [mark(1, BOX), mark(2, { ...BOX, y: 40 }), mark(3, { ...BOX, x: 650, y: 250 })];
  const tags = listNodes(await format(report)).filter(
    (node) => getAttribute(node, 'class') === 'tags',
  );
  expect(tags.map((node) => getAttribute(node, 'style'))).toEqual([
    'left: min(2.439% + -2px, 100% - 20px); bottom: 88%',
    'left: min(2.439% + -2px, 100% - 20px); bottom: 100%',
    'left: min(99.085% + -2px, 100% - 20px); bottom: 25%',
  ]);
});

test('nothing of a snippet is markup in the report', async () => {
  const report = makeReport(NASTY);
  const [snippet] = report.snippets;
  const address = `https://tally.example/${NASTY}`;
  Object.assign(snippet!, { text: NASTY, mended: NASTY, loads: makeLoads([{ address }]) });
  const finding = snippet!.findings[0]!;
  Object.assign(finding, { message: NASTY, notice: NASTY, cure: NASTY, excerpt: NASTY });
  finding.where = { line: 1, column: 1, endLine: 1, endColumn: 9, offset: 0, endOffset: 8 };
  finding.mend = [{ offset: 0, endOffset: 0, text: NASTY }];
  finding.waiver = {
    snippet: null,
    piece: null,
    reason: NASTY,
    until: NASTY,
    by: NASTY,
    expired: true,
  };
  report.notJudged = [{ id: 'page-hangs', why: NASTY, snippet: NASTY }];
  for (const html of [await format(report), formatSheetPage(report.snippets, SHOTS)]) {
    const nodes = listNodes(html);
    expect(nodes.filter(({ tagName }) => tagName === 'script')).toEqual([]);
    expect(nodes.flatMap(({ attrs }) => attrs).some(({ name }) => name.startsWith('on'))).toBe(
      false,
    );
    expect(nodes.filter(({ tagName }) => tagName === 'img')).toHaveLength(1);
    expect(html).not.toMatch(/[\u202e\u001b]/);
  }
});

test('without pictures there is no sheet, and it says why', async () => {
  const report = makeReport();
  report.engines = [];
  report.snippets[0]!.renders[0]!.shot = null;
  const html = await format(report);
  expect(html).not.toContain('<figure');
  expect(html).toContain('only the markup was read');
});

test('where the page around is harmed it is shown without and with the snippet, at the narrowest and the widest', async () => {
  const other = 'b'.repeat(64);
  const renders = [1280, 390, 320].map((width) => ({
    ...makeRender('column', width, 'blocker'),
    harm: { with: { hash: HASH, region }, without: width > 320 ? null : { hash: other, region } },
  }));
  const nodes = listNodes(await format(makeDocument([makeSnippet({ renders })])));
  const shown = nodes.filter(({ tagName }) => tagName === 'img');
  expect(shown.map((one) => getAttribute(one, 'alt'))).toEqual([
    'The page around at 320 px, with the snippet',
    'The page around at 1280 px, with the snippet',
  ]);
  const missing = nodes.filter((one) => getAttribute(one, 'class') === 'missing');
  expect(missing).toHaveLength(2);
  const same = await format(makeDocument([makeSnippet({ renders: [renders[2]!] })]));
  expect(same.match(/The page around, /g)).toHaveLength(1);
});
