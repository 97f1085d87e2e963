import { expect, test } from '@jest/globals';
import type { PictureRow } from '../../src/core/compare/pictures.js';
import type { Box } from '../../src/core/evidence.js';
import type { MendedSnippet } from '../../src/core/mend/work.js';
import { formatMendedPage } from '../../src/formats/html/mended.js';
import { makeDocument, makeFinding, makeSnippet } from '../support/document.js';
import { getAttribute, getText, listNodes } from '../support/nodes.js';

const region = { x: 0, y: 0, width: 320, height: 100 };
const picture = (name: string, areas: Box[] = []) => ({
  shot: { hash: name.repeat(64), region },
  areas,
});
const pictures: PictureRow[] = [
  {
    ...{ slot: 'column', viewport: '320', width: 320, alike: false },
    of: [picture('a', [{ x: 0, y: 0, width: 32, height: 10 }]), picture('b')],
  },
  {
    ...{ slot: 'column', viewport: '900', width: 900, alike: true },
    of: [picture('a'), picture('a')],
  },
];
const before = makeSnippet({
  name: '<b>map.html',
  verdict: 'hold',
  text: '<p style="width: 640px">',
});
const mended: MendedSnippet = {
  before,
  after: { ...before, verdict: 'clear', text: '<p style="width: 100%">', findings: [] },
  cured: [makeFinding()],
  takenBack: [],
  pictures,
};
const left: MendedSnippet = {
  ...{ before: makeSnippet({ name: 'left.html' }), after: makeSnippet({ name: 'left.html' }) },
  ...{ cured: [], takenBack: [], pictures: [] },
};

test('a mending as a page: what was cured, the change, and before and after where it looks otherwise', async () => {
  const getShot = () => Promise.resolve('QUJD');
  const nodes = listNodes(await formatMendedPage([mended, left], makeDocument([]), getShot));
  const texts = (tag: string) => nodes.filter(({ tagName }) => tagName === tag).map(getText);
  expect(texts('h2')).toEqual(['<b>map.html', 'Slot column, 320 px', 'left.html']);
  expect(texts('figcaption')).toEqual(['before', 'after']);
  expect(texts('dd')).toEqual(['slot-overflow (line 2)', 'as before in column at 900 px']);
  expect(texts('pre')).toEqual([
    expect.stringMatching(/-<p style="width: 640px">.*\+<p style="width: 100%">/),
  ]);
  expect(texts('title')).toEqual(['Mended: 2 snippets']);
  expect(nodes.filter((one) => getAttribute(one, 'class') === 'area')).toHaveLength(1);
  expect(nodes.filter((one) => getAttribute(one, 'src')?.startsWith('http'))).toEqual([]);
});
