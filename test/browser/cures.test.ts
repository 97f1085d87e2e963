import { afterAll, beforeAll, describe, expect, test } from '@jest/globals';
import { applyEdits } from '../../dist/src/core/mend/apply.js';
import { openLive, type Live } from '../support/live.js';
import { reportRecorded } from '../support/recorded.js';
import { isSampled } from '../support/sample.js';

const MAP = 'src="https://maps.fernmap.example/embed/x" title="Map"';
const PLAYER = 'src="https://player.loam.example/embed/talk" title="Talk" allowfullscreen';
const BEANS = 'src="https://static.rootcellar.example/beans.png" alt="Beans"';
const TALK = 'src="https://media.loam.example/talk.mp4" controls';
const LONG = 'A line that goes on and on beyond what a phone has room for at any time of day';
const PAINT = 'background: #eee';

/** Everyday faults for which a change is offered. */
const CURED = [
  `<iframe ${MAP} width="640" height="360" style="border:0"></iframe>`,
  `<iframe ${MAP} width=640 height=360 style=border:0></iframe>`,
  `<iframe ${MAP} style='width:640px;height:360px;border:0;font-family:"Loam"'></iframe>`,
  `<iframe ${MAP} style="width:640px;border:0;font-family:&quot;Loam&quot;"></iframe>`,
  `<iframe ${PLAYER} width="560" height="315" frameborder="0"></iframe>`,
  `<style>.map { width: 700px; height: 400px; border: 0 }</style><iframe class="map" ${MAP}></iframe>`,
  `<style>iframe { border: 0 } @media print { .map { width: 900px } }</style><iframe class="map" ${MAP} width="640" height="300"></iframe>`,
  `<div style="width: 100%; min-width: 600px; ${PAINT}">Sow</div>`,
  `<div style="width: 900px; padding: 20px; ${PAINT}">Sow</div>`,
  `<div style="width: 900px"><img ${BEANS} width="900" height="300"></div>`,
  `<div style="width: 640px !important; ${PAINT}">Sow</div>`,
  `<div style="width: 100vw; ${PAINT}">Sow</div>`,
  `<div style="width: 100vw; margin-left: calc(50% - 50vw); ${PAINT}"><p>Sow</p></div>`,
  `<style>.band { width: 100vw; position: relative; left: 50%; margin-left: -50vw; ${PAINT} }</style><div class="band"><p>Sow</p></div>`,
  `<div style="width: 100vw; position: relative; left: 50%; right: 50%; margin: 0 -50vw; ${PAINT}"><p>Sow</p></div>`,
  `<div style="width: 100vw; position: relative; left: 50%; transform: translateX(-50%); ${PAINT}"><p>Sow</p></div>`,
  `<div style="display: flex; gap: 10px"><p style="min-width: 200px">a</p><p style="min-width: 200px">b</p></div>`,
  `<style>.c { width: 400px; ${PAINT} }</style>${'<div class="c">a</div>'.repeat(6)}`,
  '<table><tr><td style="min-width: 300px">Bean</td><td style="min-width: 300px">Pea</td></tr></table>',
  '<table><tr><th>Germination</th><th>Inflorescence</th><th>Transplantation</th><th>Hardening</th></tr></table>',
  '<table style="width: 700px"><tr><td>Bean</td><td>Pea</td></tr></table>',
  `<pre>${LONG}</pre>`,
  `<div style="white-space: nowrap"><p>${LONG}</p></div>`,
  `<button style="white-space: nowrap">${LONG}</button>`,
  `<h2 style="font-size: 60px">Seedbankgenossenschaft</h2>`,
  `<img ${BEANS} width="900">`,
  `<img ${BEANS} style="width: 900px; height: 400px">`,
  '<svg width="900" height="100" viewBox="0 0 900 100" role="img" aria-label="Line"><rect width="900" height="100"/></svg>',
  `<video ${TALK} width="800" height="450"></video>`,
  '<input size="120" aria-label="Seed">',
  `<select aria-label="Seed"><option>${LONG}</option></select>`,
  `<img ${BEANS} style="min-width: 600px">`,
  `<p>x <span style="white-space: nowrap">${LONG}</span></p>`,
  `<p><code>${LONG.replaceAll(' ', '_')}</code></p>`,
  `<div style="display: flex"><p>${LONG.replaceAll(' ', '_')}</p><p>x</p></div>`,
  `<style>.a { width: 900px } @media (max-width: 500px) { .a { width: 600px } }</style><p class="a" style="${PAINT}">x</p>`,
  `<div style="width: 560px"><iframe ${PLAYER} width="560" height="315" style="border: 0"></iframe></div>`,
  `<div style="position: relative; padding-bottom: 56.25%; width: 640px"><iframe ${PLAYER} style="position: absolute; inset: 0; width: 100%; height: 100%; border: 0"></iframe></div>`,
  `<div style="width: 900px"><p style="width: 900px; ${PAINT}">Sow</p></div>`,
  `<ul style="display: flex; list-style: none; gap: 20px">${'<li>Pumpkins</li>'.repeat(6)}</ul>`,
  '<style>.a::after { content: ""; display: block; width: 1500px; height: 1px }</style><p class="a">Sow</p>',
  `<div style="width: 900px; margin-left: 40px; ${PAINT}">Sow</div>`,
  `<table><tr><td><img ${BEANS} width="600" height="200"></td></tr></table>`,
  '<svg width="900" height="100" role="img" aria-label="Line"><rect width="900" height="100"/></svg>',
  '<div style="display: flex"><p style="flex: none; width: 300px">a</p><p style="flex: none; width: 300px">b</p></div>',
  `<video ${TALK} autoplay="false" style="width: 100%"></video>`,
  `<iframe ${MAP} style="border: 0; width: 100%; height: 100%"></iframe>`,
  `<iframe title="Hours" srcdoc="<p style='margin: 0; height: 260px'>Open.</p>" style="border: 0; width: 100%; height: 100%"></iframe>`,
  `<iframe ${PLAYER} height="320" style="border: 0; width: 100%"></iframe>`,
  `<video ${TALK} style="width: 100%; height: 300px"></video>`,
  `<iframe ${PLAYER} style="border: 0; width: 50%; aspect-ratio: 16 / 9"></iframe>`,
  `<iframe ${PLAYER} width="640" height="300" style="border: 0"></iframe>`,
  '<style>p { color: green } blockquote em { color: #060 }</style><div class="beds"><p>Sow</p><blockquote>In <em>May</em></blockquote></div>',
  '<div class="a"><p>Sow</p>',
  '<select aria-label="Seed"><option>Sow',
  '<b>Sow',
];

/** Faults for which no change was seen to cure, or none is certain. */
const UNCURED = [
  `<div style="display: flex"><div style="overflow: hidden; flex: none"><p style="width: 900px; ${PAINT}">x</p></div></div>`,
  '<style>@keyframes in { to { transform: translateX(1300px) } } p { animation: in 0.3s forwards }</style><p>Sow</p>',
  '<script src="https://tally.example/small.js"></script><script>window.tally</script><p>Sow</p>',
  `<script>document.write('<p style="width: 900px">Sow</p>')</script>`,
];

let live: Live;

beforeAll(async () => {
  live = await openLive();
}, 60_000);

afterAll(() => live.close());

describe('a change that is offered cures, and does no harm', () => {
  test.concurrent.each(CURED.filter((_, at) => isSampled(at, 8)))('%s', async (code) => {
    const before = reportRecorded(await live.render(code));
    const offered = before.causes.filter(({ mend }) => mend);
    expect(offered.length).toBeGreaterThan(0);
    for (const { mend, cures } of offered) {
      const after = reportRecorded(await live.render(applyEdits(code, mend!)));
      const count = (id: string, { findings }: typeof before) =>
        findings.filter((one) => one.id === id).length;
      for (const id of cures) expect([id, count(id, after)]).toEqual([id, count(id, before) - 1]);
      const fresh = after.findings.filter(({ id }) => count(id, before) < count(id, after));
      expect(fresh.map(({ id }) => id)).toEqual([]);
    }
  });
});

describe('where no change is certain none is offered', () => {
  test.concurrent.each(UNCURED)('%s', async (code) => {
    const { findings, causes, mended } = reportRecorded(await live.render(code));
    expect(findings.length).toBeGreaterThan(0);
    expect([causes.filter(({ mend }) => mend), mended]).toEqual([[], null]);
  });
});
