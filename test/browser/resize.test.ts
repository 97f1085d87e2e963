import { afterAll, beforeAll, expect, test } from '@jest/globals';
import { readFileSync } from 'node:fs';
import { createServer } from 'node:http';
import type { Evidence } from '../../dist/src/core/evidence.js';
import { getDefaultHouse } from '../../dist/src/core/house/read.js';
import { readMarkup } from '../../dist/src/core/markup/markup.js';
import { getTraits } from '../../dist/src/core/markup/traits.js';
import { planRenders } from '../../dist/src/core/plan.js';
import type { Render } from '../../dist/src/core/render.js';
import { findBrowser } from '../../dist/src/render/browser/find.js';
import { Renderer } from '../../dist/src/render/renderer.js';
import { listen } from '../support/listen.js';
import { isSampled } from '../support/sample.js';

const house = getDefaultHouse();
const film = readFileSync(new URL('../../demo/files/talk.mp4', import.meta.url), 'base64');
const FILM = `data:video/mp4;base64,${film}`;
const CODES = [
  '<div style="width: 900px"><p>Sow in May.</p></div>',
  '<style>@media (max-width: 400px) { .a { display: none } } .a { width: 50vw }</style><p class="a">Sow</p><p>Reap</p>',
  '<table><tr><td style="width: 40%">Beans</td><td>Peas, of the kind that climbs up to two metres</td></tr></table>',
  '<style>@media (hover: none) { p { font-size: 30px } } @media (min-resolution: 2x) { p { color: red } }</style><p>Sow</p>',
  `<p style="white-space: nowrap">${'Water well. '.repeat(20)}</p><img src="/gone.png" alt="Beans" width="400">`,
  `<video src="${FILM}" controls style="width: 60%"></video><video src="/gone.mp4"></video>`,
  `<div style="width: 700px"><audio controls loop><source src="${FILM}" type="video/mp4"></audio></div>`,
  `<p>${'Sow in May. '.repeat(2000)}</p>`,
  '<div style="height: 3000px; width: 100vw; background: #eee">x</div><p style="position: fixed; bottom: 0">Sow</p>',
  `<div style="overflow: auto; height: 100px">${'Sow in May. '.repeat(200)}</div><div style="overflow: scroll; width: 200px"><p style="width: 500px">Beans</p></div>`,
  '<form><label>Bed <select><option>One</option></select></label><input type="time"><input type="range"><input type="checkbox"><textarea>x</textarea><button>Send</button><input type="file"><progress></progress></form><select multiple><option>One<option>Two</select>',
  '<details open><summary>Beans</summary>Sow</details><dialog open>Peas</dialog><marquee>z</marquee>',
  '<div style="width: 2000px; height: 2000px; background: #eee">Wide and tall</div>',
  '<div style="position: absolute; left: -300px; width: 400px">x</div><div style="position: sticky; top: 0">y</div>',
  `<div style="column-width: 200px">${'Sow in May. '.repeat(300)}</div>`,
  '<style>.s { overflow-x: auto; display: flex } .s p { flex: 0 0 400px }</style><div class="s"><p>One</p><p>Two</p></div><div style="height: 120vh">x</div>',
  '<svg viewBox="0 0 10 10" width="100%"><text x="1" y="5" font-size="2">Beans</text></svg><canvas width="500" height="50"></canvas>',
  `<p style="font-size: 9px; width: 900px">${'Sow in May, and water well. '.repeat(50)}</p>`,
  '<style>html { overflow-x: hidden } ::-webkit-scrollbar { width: 30px }</style><p style="height: 2000px">x</p>',
  '<img src="data:image/gif;base64,R0lGODlhAQABAIAAAAAAAP///yH5BAEAAAAALAAAAAABAAEAAAIBRAA7" alt="x" width="700" height="30">',
  '<div style="height: 100dvh; min-height: 100svh">x</div><div style="height: 50lvh">y</div>',
  '<a href="#b">to</a><div contenteditable>x</div><ruby>a<rt>b</rt></ruby><p style="writing-mode: vertical-rl; height: 200px">Beans</p>',
];

const open = async (alwaysLoad: boolean, ownPage: string | null = null, reroute = {}) =>
  Renderer.open({
    program: await findBrowser(),
    house: { ...house, reroute },
    ownPage,
    root: null,
    offline: true,
    alwaysLoad,
  });

let resizing: Renderer;
let loading: Renderer;

beforeAll(async () => {
  [resizing, loading] = await Promise.all([open(false), open(true)]);
});
afterAll(() => Promise.all([resizing.close(), loading.close()]));

/** Downward and upward, with and without touch, on denser screens and less dense ones. */
function listRenders(): Render[] {
  const renders = planRenders('x', house, house);
  const order = [3, 2, 0, 1, 2, 3].map((at) => renders[at]!);
  const dense = [order[0]!, order[3]!].map((one) => {
    const density = one.viewport.density === 1 ? 3 : 1;
    return { ...one, viewport: { ...one.viewport, name: 'dense', density } };
  });
  return [...order, dense[0]!, order[3]!, dense[1]!];
}

/** What comes before the first picture of the page, and how many frames by then, is chance. */
function makeSteady(evidence: readonly Evidence[]) {
  return evidence.map(({ traffic, shifts, media, ...rest }) => ({
    ...rest,
    // A busy machine may paint a page before it is whole: little moves by that.
    shifts: media.length > 0 ? null : { ...shifts, score: shifts.score > 0.05 },
    media: media.map((one) => ({ ...one, frames: null })),
    traffic: traffic.map(({ address }) => address),
  }));
}

async function render(renderer: Renderer, code: string) {
  const snippet = { name: 'x', path: null, text: code };
  const found = await renderer.renderSnippet(
    snippet,
    readMarkup(code),
    listRenders(),
    () => undefined,
  );
  return makeSteady(found);
}

test.each(CODES.filter((_, at) => isSampled(at, 5)).map((code) => [code.slice(0, 80), code]))(
  'brought to a width or loaded at it, the evidence is the same: %s',
  async (_, code) => {
    expect(getTraits(readMarkup(code)).resizable).toBe(true);
    const [resized, loaded] = await Promise.all([render(resizing, code), render(loading, code)]);
    expect(resized).toEqual(loaded);
  },
);

const SLOT =
  '<h1>Seeds</h1><div data-mivket-slot="column"></div><p style="height: 1500px">Foot</p>';

test.each([
  ['for no phone', ''],
  ['of a fixed width on phones', '<meta name="viewport" content="width=600">'],
  [
    'with rules for widths',
    '<meta name="viewport" content="width=device-width"><style>body { min-height: 100vh } h1 { position: fixed; bottom: 0 } @media (max-width: 600px) { h1 { display: none } }</style>',
  ],
])('also on a page %s', async (_, head) => {
  const page = `<!doctype html><html lang="en"><title>Seeds</title>${head}${SLOT}`;
  const renderers = await Promise.all([open(false, page), open(true, page)]);
  const code = '<p>Sow in May.</p><div style="width: 500px; height: 40px"><p>Wide</p></div>';
  try {
    const [resized, loaded] = await Promise.all(renderers.map((one) => render(one, code)));
    expect(resized).toEqual(loaded);
  } finally {
    await Promise.all(renderers.map((one) => one.close()));
  }
});

test('whoever is asked is asked by each kind of browser', async () => {
  const phones = new Set<boolean>();
  const vendor = createServer(({ headers }, answer) => {
    phones.add(/Mobile/.test(headers['user-agent'] ?? ''));
    answer.end();
  });
  const reroute = { 'cdn.rootcellar.example': `http://127.0.0.1:${await listen(vendor)}` };
  const renderer = await open(false, null, reroute);
  try {
    await render(renderer, '<img alt="Beans" src="https://cdn.rootcellar.example/beans.png">');
    expect([...phones].sort()).toEqual([false, true]);
  } finally {
    await renderer.close();
    vendor.close();
  }
});

test.each([
  '<script>innerWidth</script>',
  '<iframe srcdoc="x"></iframe>',
  '<img srcset="a.png 1x, b.png 2x" alt="">',
  '<picture><source media="(min-width: 600px)" srcset="a.png"><img alt=""></picture>',
  '<style>p { transition: width 1s }</style><p>Sow</p>',
  '<style>@media (min-width: 600px) { p { background: url(a.png) } }</style><p>Sow</p>',
  '<img loading="lazy" src="a.png" alt="">',
  '<video src="a.mp4" autoplay muted></video>',
  '<video><source media="(min-width: 600px)" src="a.mp4"></video>',
])('what can tell is loaded at every width: %s', (code) => {
  expect(getTraits(readMarkup(code)).resizable).toBe(false);
});
