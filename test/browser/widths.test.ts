import { afterAll, beforeAll, describe, expect, test } from '@jest/globals';
import { FITTING } from '../support/recorded.js';
import { readHouse } from '../../dist/src/index.js';
import type { House } from '../../dist/src/core/house/house.js';
import { judgeSnippet } from '../../dist/src/core/judge/judge.js';
import { readMarkup } from '../../dist/src/core/markup/markup.js';
import { makeJob } from '../../dist/src/core/measuring.js';
import { planRenders } from '../../dist/src/core/plan.js';
import { findBrowser } from '../../dist/src/render/browser/find.js';
import { Renderer } from '../../dist/src/render/renderer.js';
import { measure } from '../../dist/src/run/measure.js';
import { HOSTS, startStandIns, type StandIns } from '../../dist/demo/stand-ins/index.js';

const SEARCH = { from: 280, to: 1400 };
const VIEWS = 'viewports: [{ name: phone, width: 320 }, { name: desktop, width: 1280 }]\n';
/** A page that is itself too wide below 400 px. */
const OWN =
  '<!doctype html><meta name="viewport" content="width=device-width"><title>x</title><div style="width: 400px; height: 9px"></div><div data-mivket-slot="column"></div>';

let standIns: StandIns;
let plain: Renderer;
let house: House;

beforeAll(async () => {
  standIns = await startStandIns();
  const reroute = HOSTS.map((host) => `  "${host}": ${standIns.origin}`).join('\n');
  house = readHouse(`${VIEWS}reroute:\n${reroute}`, 'mivket.yaml');
  plain = await open(house, null);
});
afterAll(async () => {
  await plain.close();
  await standIns.close();
});

async function open(of: House, ownPage: string | null): Promise<Renderer> {
  const program = await findBrowser();
  return Renderer.open({ program, house: of, ownPage, root: null, offline: false });
}

async function audit(text: string, renderer = plain, under = house) {
  const snippet = { name: 'x', path: null, text };
  const renders = planRenders('x', under, { ...under, search: SEARCH });
  const ignore = { onMore: () => undefined, onRender: () => undefined };
  const job = makeJob(snippet, { renders, checks: FITTING.map(({ id }) => id), timeLimit: null });
  const { evidence, baselines } = await measure(renderer, job, ignore);
  const measured = { markup: readMarkup(text), evidence, baselines: new Map(baselines) };
  const judged = { snippet, house: under, checks: FITTING, today: '2026-01-01', markupOnly: null };
  const { report } = judgeSnippet({ ...judged, ...measured });
  const ranges = report.findings.map(
    ({ id, ranges: found }) =>
      `${id} ${found.map(({ from, to, near }) => `${near ? '~' : ''}${from}-${to}`).join()}`,
  );
  return { ...report, ranges, evidence: measured.evidence };
}

const box = (width: string) => `<div style="width: ${width}; background: #ddd">Sow in May</div>`;

describe('ranges', () => {
  test('go to the last window in which it is too wide', async () => {
    const { ranges, fitsFrom, searched } = await audit(box('400px'));
    expect(ranges).toEqual(['page-scrolls-sideways 280-414']);
    expect(fitsFrom).toBe(400);
    expect(searched).toMatchObject({ windows: [SEARCH], why: null });
  });

  test('are found between the widths rendered, and rendered there', async () => {
    const band = `<style>@media (min-width: 600px) and (max-width: 640px) { .bed { width: 700px; background: #ddd } }</style><p class="bed">Sow</p>`;
    const { ranges, renders, findings } = await audit(band);
    expect(ranges).toEqual(['page-scrolls-sideways 600-640']);
    expect(renders.map(({ width }) => width)).toEqual([320, 600, 1280]);
    expect(findings[0]!.mend).not.toBeNull();
  });

  test('are not the page’s own', async () => {
    const own = await open(house, OWN);
    const found = await audit(box('700px'), own);
    const { ranges } = await audit(box('380px'), own);
    await own.close();
    expect(ranges).toEqual(['slot-overflow 280-394']);
    expect(found.ranges[0]).toBe('page-scrolls-sideways 280-706');
  });

  test.each<[string, string, string[]]>([
    [
      'a film as large as it is',
      '<video src="https://media.loam.example/talk.mp4"></video>',
      ['page-scrolls-sideways 280-334'],
    ],
    [
      'what an animation ends at',
      `<style>@keyframes in { from { margin-left: 900px } } .in { animation: in 50ms }</style><div class="in" style="width: 350px; background: #ddd">Sow</div>`,
      ['page-scrolls-sideways 280-364'],
    ],
    [
      'a picture that is loaded late',
      `<img loading="lazy" alt="" src="data:image/svg+xml,%3Csvg xmlns='http://www.w3.org/2000/svg' width='350' height='9'%3E%3C/svg%3E">`,
      ['page-scrolls-sideways 280-364'],
    ],
    [
      'a frame',
      '<iframe title="Map" style="border: 0; width: 350px" src="https://maps.fernmap.example/embed/x"></iframe>',
      ['page-scrolls-sideways 280-364'],
    ],
  ])('of %s', async (_, text, expected) => {
    const { ranges, evidence } = await audit(text);
    const unseen = evidence.flatMap(({ gaps, widths }) => [
      ...gaps.map(({ why }) => why),
      ...(widths.unsearched ?? []),
    ]);
    expect(unseen).toEqual([]);
    expect(ranges.filter((one) => one.startsWith('page-scrolls'))).toEqual(expected);
  });
});

describe('where the kind of window matters', () => {
  const when = (condition: string) =>
    `<style>.x { width: 200px; background: #ddd } @media ${condition} { .x { width: 900px } }</style><p class="x">Sow</p>`;

  test.each([
    ['a mouse', when('(pointer: fine)'), 'page-scrolls-sideways 801-1132'],
    ['touch', when('(hover: none)'), 'page-scrolls-sideways 280-800'],
    [
      'room for a scroll bar',
      '<p style="width: 350px; height: 2000px; background: #ddd">Sow</p>',
      'page-scrolls-sideways 280-364',
    ],
  ])('%s is there only where it is', async (_, text, range) => {
    const { ranges, evidence } = await audit(text);
    const page = ranges.filter((one) => one.startsWith('page-scrolls'));
    expect(page).toEqual([range]);
    expect(evidence.map(({ widths }) => widths.searched)).toEqual(
      evidence.map(({ render }) => render.search),
    );
  });
});

describe('where only loads can tell', () => {
  const wide = (last: number) =>
    `<div id="a"></div><script>document.getElementById('a').innerHTML = '<p style="background: #ddd; width: ' + (innerWidth > ${last} ? 200 : 560) + 'px">Sow</p>'</script>`;

  test('the edge is found by loads', async () => {
    const { ranges, searched } = await audit(wide(451));
    expect(ranges).toEqual(['page-scrolls-sideways 280-451']);
    expect(searched.tried).toBeLessThanOrEqual(12);
    expect(searched.why).toMatch(/script/);
  });

  test('with a script of the page’s own they are as exact as without', async () => {
    const page = OWN.replace(
      /<div style[^]*$/,
      '<body style="margin: 0"><main data-mivket-slot="column"></main><script>document.title</script>',
    );
    const renderer = await open(house, page);
    const [found, sound] = [
      await audit(box('595px'), renderer),
      await audit(box('90px'), renderer),
    ];
    await renderer.close();
    expect(found.ranges).toEqual(['page-scrolls-sideways 280-593']);
    expect(found.fitsFrom).toBe(595);
    expect([sound.ranges, sound.fitsFrom]).toEqual([[], 280]);
  });

  test.each([
    ['a script', box('100px') + '<script>innerWidth</script>', /script/],
    ['a choice of pictures', '<img alt="" srcset="data:, 1x, data:,a 2x">', /chooses/],
  ])('%s is not searched where nothing is too wide', async (_, text, why) => {
    const { searched } = await audit(text);
    expect(searched).toEqual({ windows: [], tried: 0, why: expect.stringMatching(why) });
  });
});

test('in a copy nothing runs, and nothing is loaded again', async () => {
  const asked: string[] = [];
  const text = `<img alt="" src="https://static.rootcellar.example/beans.png"><iframe title="Map" src="https://maps.fernmap.example/embed/x"></iframe>${box('400px')}`;
  const { evidence } = await audit(text);
  const last = evidence.find(({ render }) => render.search.length > 0)!;
  asked.push(...last.traffic.map(({ address }) => address));
  expect(new Set(asked).size).toBe(asked.length);
  expect(last.widths.tried).toBeGreaterThan(20);
});

test('a slot that is there only from a width on is searched only where it is', async () => {
  const late = readHouse(`${VIEWS}slots: { column: { from: 700, width: 300 } }`, 'mivket.yaml');
  const renderer = await open(late, null);
  const { fitsFrom, ranges } = await audit(box('320px'), renderer, late);
  await renderer.close();
  expect(fitsFrom).toBeNull();
  expect(ranges).toEqual(['slot-overflow 700-1400']);
});
