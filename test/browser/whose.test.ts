import { afterAll, beforeAll, expect, test } from '@jest/globals';
import { CHECKS } from '../../dist/src/checks/index.js';
import type { Evidence } from '../../dist/src/core/evidence.js';
import { makeViewport } from '../../dist/src/core/house/house.js';
import { readHouse } from '../../dist/src/core/house/read.js';
import { judgeSnippet } from '../../dist/src/core/judge/judge.js';
import { readMarkup } from '../../dist/src/core/markup/markup.js';
import { planRenders } from '../../dist/src/core/plan.js';
import { findBrowser } from '../../dist/src/render/browser/find.js';
import { Renderer } from '../../dist/src/render/renderer.js';

/** A page of which no two loads are the same: pictures, requests, widths, a script. */
const PAGE = `<!doctype html><html lang="en"><body><header>Seed library</header><div id="promo"></div>
<main data-mivket-slot="article" style="width: 300px; margin: 0 16px"></main>
<script>
const some = 1 + Math.floor(Math.random() * 9);
for (let i = 0; i < some; i++) promo.append(Object.assign(new Image(40, 40), { src: "https://r" + Math.random() + ".example/x.png" }));
promo.append(Object.assign(document.createElement("p"), { style: "width:" + (1300 + Math.random() * 900) + "px", textContent: "wide" }));
document.head.append(Object.assign(document.createElement("script"), { src: "https://r" + Math.random() + ".example/s.js" }));
</script><p class="end">End</p></body></html>`;
const house = readHouse(
  'viewports: [{ name: phone, width: 390 }, { name: desktop, width: 1280 }]\nslots: { article: {} }',
  'mivket.yaml',
);
let renderer: Renderer;

const open = async (ownPage: string) =>
  Renderer.open({
    program: await findBrowser(),
    house,
    ownPage,
    root: null,
    offline: false,
    limits: { load: 8000, settle: 4000, hang: 4000 },
  });

beforeAll(async () => {
  renderer = await open(PAGE);
}, 60_000);
afterAll(() => renderer.close());

async function look(text: string): Promise<{ evidence: Evidence[]; told: string[] }> {
  const snippet = { name: 'x', path: null, text };
  const markup = readMarkup(text);
  const renders = planRenders('x', house, house);
  const evidence = await renderer.renderSnippet(snippet, markup, renders, () => undefined);
  const baselines = await renderer.getBaselines(renders);
  const given = {
    snippet,
    markup,
    house,
    evidence,
    baselines,
    checks: CHECKS,
    today: '2026-01-01',
    markupOnly: null,
  };
  const { report } = judgeSnippet(given);
  return {
    evidence,
    told: report.findings.map(({ id, where }) =>
      `${id} ${where.offset} ${where.made ?? ''}`.trim(),
    ),
  };
}

test('what is unsteady in the page is never held against a snippet', async () => {
  const { evidence, told } = await look('<p>Sow</p>');
  expect(told).toEqual([]);
  for (const { elements, traffic, pictures } of evidence)
    expect([elements.map(({ tag }) => tag), traffic, pictures]).toEqual([['p'], [], []]);
}, 60_000);

test('of two that make things each has its own', async () => {
  const code = `<div id="own"></div><script>let x = 0;</script><script>
own.innerHTML = "<b><img src='https://vendor.invalid/a.png' width=30 height=30></b>";
for (let i = 0; i < 450; i++) document.body.append(document.createElement("i"));
</script>`;
  const { evidence, told } = await look(code);
  const made = `${code.lastIndexOf('<script')} #own > b > img`;
  expect(told.sort()).toEqual([`picture-missing ${made}`, `picture-without-alt ${made}`]);
  const [first] = evidence;
  expect(first!.elements.filter(({ tag }) => tag === 'i')).toHaveLength(450);
  expect(first!.traffic.map(({ host }) => host)).toEqual(['vendor.invalid']);
  expect(first!.host).toEqual([]);
}, 60_000);

test('on a page with code every width is loaded anew', async () => {
  const page = `<!doctype html><html lang="en"><meta name="viewport" content="width=device-width"><body><main data-mivket-slot="article"></main>
<div id="wide">x</div><script>wide.style.width = innerWidth > 1000 ? "1500px" : "9px"</script></body></html>`;
  const live = await open(page);
  const viewports = [700, 1280].map((width) => makeViewport({ name: `w${width}`, width }));
  const renders = planRenders('x', house, { ...house, viewports });
  const markup = readMarkup('<p>Sow</p>');
  const snippet = { name: 'x', path: null, text: '<p>Sow</p>' };
  const evidence = await live.renderSnippet(snippet, markup, renders, () => undefined);
  await live.close();
  // Only a page that was loaded at that width has made itself so wide.
  expect(evidence.map((one) => one.page.atLoad.scrollWidth)).toEqual([700, 1508]);
}, 60_000);

test('what the snippet gets from the page around it, and gives it', async () => {
  const page = `<!doctype html><html lang="en"><body><h2 id="beans">Beans</h2><h1 hidden>Old</h1>
<form action="/order"><main data-mivket-slot="article" style="margin: 0 16px"></main></form></body></html>`;
  const other = await open(page);
  try {
    const text =
      '<h1>Spring</h1><p id="beans">Sow</p><form action="/find"><button>Find</button></form>';
    const snippet = { name: 'x', path: null, text };
    const renders = planRenders('x', house, house);
    const evidence = await other.renderSnippet(snippet, readMarkup(text), renders, () => undefined);
    const baselines = await other.getBaselines(renders);
    const common = { snippet, house, evidence, baselines, checks: CHECKS };
    const { report } = judgeSnippet({
      ...common,
      markup: readMarkup(text),
      today: '2026-01-01',
      markupOnly: null,
    });
    // The page's own main heading is not to be seen: the snippet's is the only one.
    expect(report.findings.map(({ id, seen }) => `${id} ${seen.length}`)).toEqual([
      'form-inside-form 2',
      'id-used-twice 2',
    ]);
  } finally {
    await other.close();
  }
});
