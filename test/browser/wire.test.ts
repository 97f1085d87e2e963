import { afterAll, beforeAll, expect, test } from '@jest/globals';
import { homedir, tmpdir } from 'node:os';
import { CHECKS } from '../../dist/src/checks/index.js';
import { readHouse } from '../../dist/src/index.js';
import { readMarkup } from '../../dist/src/core/markup/markup.js';
import {
  getSnippet,
  makeJob,
  packSetting,
  unpackAnswer,
  unpackJob,
  unpackSetting,
  type MeasureSetting,
} from '../../dist/src/core/measuring.js';
import { judgeSnippet } from '../../dist/src/core/judge/judge.js';
import { planRenders } from '../../dist/src/core/plan.js';
import { ALL_WANTED } from '../../dist/src/core/wants.js';
import { findBrowser } from '../../dist/src/render/browser/find.js';
import { Renderer } from '../../dist/src/render/renderer.js';
import { measure } from '../../dist/src/run/measure.js';
import { HOSTS, startStandIns, type StandIns } from '../../dist/demo/stand-ins/index.js';

let standIns: StandIns;
let setting: MeasureSetting;
let renderer: Renderer;

/** What is left of something that was sent as text. */
const send = (data: unknown) => JSON.parse(JSON.stringify(data)) as unknown;

beforeAll(async () => {
  standIns = await startStandIns();
  const reroute = HOSTS.map((host) => `  "${host}": ${standIns.origin}`).join('\n');
  const yaml = `viewports: [{ name: phone, width: 320 }]\nslots: { article: [{ from: 0, width: full }] }\nreroute:\n${reroute}`;
  setting = {
    house: readHouse(yaml, `${tmpdir()}/mivket.yaml`),
    ...{ ownPage: null, published: null, offline: false, cold: true, wants: ALL_WANTED },
  };
  const sent = unpackSetting(send(packSetting(setting)));
  renderer = await Renderer.open({ ...sent, program: await findBrowser(), root: null });
});

afterAll(async () => {
  await renderer.close();
  await standIns.close();
});

const CODE: [string, string[]][] = [
  ['<div style="width: 900px; background: #ddd">Beds</div>', ['page-scrolls-sideways']],
  [
    '<iframe title="Map" src="https://maps.fernmap.example/embed/glasshouse" width="640" height="300" style="border: 0"></iframe>',
    ['frame-fixed-size', 'page-scrolls-sideways'],
  ],
  [
    '<p>Sow</p><script>setTimeout(() => document.querySelector("footer").remove(), 9000); throw new Error("no bed")</script>',
    ['host-content-damaged', 'script-error'],
  ],
  [
    '<video src="https://media.loam.example/rain.mp4" autoplay muted loop playsinline controls title="Rain" poster="https://static.rootcellar.example/talk.png" style="width: 100%"></video>',
    ['autoplay-despite-reduced-motion'],
  ],
];

test.concurrent.each(CODE)(
  'a job and its answer are the same after they were sent: %s',
  async (text, found) => {
    const { house } = setting;
    const snippet = { name: 'beds', path: `${tmpdir()}/beds.html`, text };
    const renders = planRenders('beds', house, { ...house, search: { from: 280, to: 1400 } });
    const wish = { renders, checks: CHECKS.map(({ id }) => id), timeLimit: null };
    const job = makeJob(snippet, wish);
    const sent = unpackJob(send(job));
    expect(sent).toEqual(job);
    const ignore = { onMore: () => undefined, onRender: () => undefined };
    const answer = await measure(renderer, sent, ignore);
    const back = unpackAnswer(send(answer));
    expect(back).toEqual(answer);
    // Nothing that only one machine knows.
    const all = JSON.stringify([packSetting(setting), sent, back]);
    expect([tmpdir(), homedir(), process.cwd()].filter((path) => all.includes(`${path}/`))).toEqual(
      [],
    );
    const { report } = judgeSnippet({
      ...{ snippet: getSnippet(sent), markup: readMarkup(text), house, checks: CHECKS },
      ...{ evidence: back.evidence, baselines: new Map(back.baselines) },
      ...{ today: '2026-01-01', markupOnly: null },
    });
    const ids = [...new Set(report.findings.map(({ id }) => id))].sort();
    expect(ids).toEqual(expect.arrayContaining(found));
    expect(report.gaps).toEqual([]);
  },
);

test('what breaks down over a job is a gap in its answer', async () => {
  const { house } = setting;
  const renders = planRenders('beds', house, house).map((one) => ({
    ...one,
    snippets: [{ name: 'beds', slot: 'no such slot' }],
  }));
  const job = makeJob(
    { name: 'beds', path: null, text: '<p>Sow</p>' },
    {
      ...{ renders, checks: [], timeLimit: null },
    },
  );
  const ignore = { onMore: () => undefined, onRender: () => undefined };
  const { evidence, baselines } = await measure(renderer, job, ignore);
  expect(baselines).toEqual([]);
  expect(
    evidence.map(({ gaps }) => gaps.some(({ kind, kept }) => kind === 'page' && !kept)),
  ).toEqual(renders.map(() => true));
});
