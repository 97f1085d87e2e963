import { expect, test } from '@jest/globals';
import { compareCandidates } from '../../src/core/compare/candidates.js';
import { compareRuns } from '../../src/core/compare/runs.js';
import { formatRunComparison } from '../../src/formats/compared-runs.js';
import { formatComparison } from '../../src/formats/compared.js';
import { formatComparisonPage } from '../../src/formats/html/compared.js';
import { getAttribute, getText, listNodes } from '../support/nodes.js';
import { makeDocument, makeFinding, makeRender, makeSnippet } from '../support/document.js';

const plain = (text: string) => text;
const paint = {
  ...{ blocker: plain, concern: plain, advice: plain },
  ...{ sound: plain, strong: plain, faint: plain },
};

const traffic = [{ host: 'a.example', requests: 2, wire: 20_000, unpacked: 20_000, failed: 0 }];
const heavy = makeSnippet({
  name: 'heavy\u001b.html',
  findings: [makeFinding()],
  fitsFrom: null,
  renders: [{ ...makeRender('column', 320, null), traffic, slotHeight: 120.4, fits: false }],
});
const light = makeSnippet({ name: 'light.html', renders: [makeRender('column', 320, null)] });
const comparison = compareCandidates(makeDocument([heavy, light]));

test('candidates stand side by side where there is room', () => {
  const text = formatComparison(comparison, { paint, width: 80 });
  expect(text).toMatch(/code +\d+ characters +\d+ characters/);
  expect(text).toMatch(/on the wire +20 kB +–/);
  expect(text).toMatch(/height in column, 320 +120 px +not known/);
  expect(text).toMatch(/fits +not everywhere +everywhere/);
  expect(text).toMatch(/◧ slot-overflow +1 +–/);
  expect(text).toContain('Lighter: light.html.');
  expect(text).toContain('Fits better: light.html.');
  expect(text).not.toContain('\u001b');
});

test('else one below the other', () => {
  const text = formatComparison(comparison, { paint, width: 40 });
  expect(text).toContain('    on the wire: 20 kB\n');
  expect(text.split('\n').filter((line) => line.trim() === 'light.html')).toHaveLength(2);
});

test('where one was not wholly seen no more is claimed than is known', () => {
  const gap = { kind: 'traffic', why: 'the page was left', seen: null, kept: null };
  const lost = { ...light, gaps: [{ ...gap, slot: 'column', viewport: '320', variant: 'as-is' }] };
  const both = compareCandidates(makeDocument([lost, { ...light, name: 'b' }]));
  const text = formatComparison(both, { paint, width: 80 });
  expect(text).toContain('Not all of light.html was seen: the page was left.');
  expect(text).toContain('Equally heavy on the wire, as far as is known.');
  expect(text).toMatch(/other hosts +not known +–/);
});

const region = { x: 0, y: 400, width: 320, height: 200 };
const shots = ['a', 'b'].map((name) => ({ hash: name.repeat(64), region }));
const area = { x: 32, y: 420, width: 64, height: 50 };
const row = (viewport: number, alike: boolean | null, of: (typeof area)[][]) => ({
  ...{ slot: 'column', viewport: String(viewport), width: viewport, alike },
  of: of.map((areas, i) => ({ shot: shots[i]!, areas })),
});
const seen = compareCandidates(makeDocument([heavy, light]), {
  scriptTimes: new Map([['light.html', 1234]]),
  pictures: [
    row(320, false, [[area], [area]]),
    row(768, true, [[], []]),
    row(900, false, [[], []]),
  ],
});

test('where they look alike is said, and where not', () => {
  const text = formatComparison(seen, { paint, width: 80 });
  expect(text).toContain('They look alike in column at 768 px.');
  expect(text).toContain('They look different in column at 320 and 900 px.');
  expect(text).toMatch(/script time +– +1\.2 s/);
});

test('as a page with pictures side by side, and outlines where they differ', async () => {
  const getShot = (hash: string) => Promise.resolve(hash.startsWith('a') ? 'QUJD' : null);
  const page = await formatComparisonPage(seen, getShot);
  const nodes = listNodes(page);
  const texts = (tag: string) => nodes.filter(({ tagName }) => tagName === tag).map(getText);
  const ofClass = (name: string) => nodes.filter((one) => getAttribute(one, 'class') === name);
  expect(texts('h2')).toEqual([
    'Slot column, 320 px',
    'Slot column, 768 px: they look alike',
    'Slot column, 900 px',
  ]);
  expect(texts('figcaption').slice(0, 2)).toEqual(['heavy␛.html', 'light.html']);
  expect([texts('img').length, ofClass('missing').length]).toEqual([3, 3]);
  const outlines = ofClass('area').map((one) => getAttribute(one, 'style'));
  expect(outlines).toEqual(Array(2).fill('left: 10%; top: 10%; width: 20%; height: 25%'));
  expect(texts('th')).toContain('slot-overflow');
  expect(texts('li')).toContain('Lighter: light.html.');
  expect(texts('script')).toEqual([]);
});

test('of two runs what is new, gone and the same', () => {
  const before = { name: 'run-1', document: makeDocument([heavy, light]) };
  const fixed = { ...heavy, findings: [], hash: 'x', verdict: 'unsure' as const };
  const after = { name: 'run-2', document: makeDocument([fixed, light]) };
  const text = formatRunComparison(compareRuns(before, after), { paint, width: 80 });
  expect(text).toMatch(/heavy.*\.html {2}CLEAR → UNSURE\n/);
  expect(text).toContain('    gone      ◧ slot-overflow: beyond its slot\n');
  expect(text).toContain('  1 snippet as before.\n');
  const row = { slot: 'article', viewport: 'phone', width: 320, alike: false, of: [null, null] };
  const looks = compareRuns(before, before, new Map([[light.name, [row]]]));
  expect(formatRunComparison(looks, { paint, width: 80 })).toMatch(
    /light\.html {2}\w+ {2}\(the same text\)\n {4}looks {5}otherwise in article at 320 px\n {2}1 snippet/,
  );
  const same = formatRunComparison(compareRuns(before, before), { paint, width: 80 });
  expect(same).toContain('  2 snippets as before.\n');
});
