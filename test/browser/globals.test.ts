import { afterAll, beforeAll, describe, expect, test } from '@jest/globals';
import { CHECKS } from '../../dist/src/checks/index.js';
import { openLive, type Live } from '../support/live.js';
import { judgeRecorded } from '../support/recorded.js';

let live: Live;

beforeAll(async () => {
  live = await openLive();
}, 60_000);

afterAll(() => live.close());

/** What code does to a page goes by no width. */
const DESK = { viewports: [{ name: 'desktop', width: 1280 }] };

const makePage = (before: string, after = '') =>
  `<!doctype html><html lang="en"><title>Beds</title><meta name="viewport" content="width=device-width"><script>${before}</script><main><div data-mivket-slot="column"></div></main><script>${after}</script>`;

async function listChanged(code: string, under: Parameters<Live['render']>[1]) {
  const { evidence } = await live.render(code, { ...DESK, ...under }, BREAKS);
  const all = evidence.flatMap(({ scripts }) =>
    scripts.replaced.map(({ how, of, name }) => `${how} ${of} ${name}`),
  );
  return [...new Set(all)].sort();
}

/** Which of some checks find something. */
async function list(asked: readonly string[], code: string, under?: Parameters<Live['render']>[1]) {
  const checks = CHECKS.filter(({ id }) => asked.includes(id));
  return judgeRecorded(await live.render(code, { ...DESK, ...under }, asked), checks).map(
    ({ id }) => id,
  );
}

const SOUND =
  '<p>Sow in May.</p><script>document.querySelector("p").append(" Or in June.")</script>';

describe('what the page’s own code finds afterwards', () => {
  test.concurrent(
    'is told by its name, and whose it is',
    async () => {
      const page = makePage(
        'var seeds = {}; var count = 1; document.onclick = () => {}; var beds = "a"; function sow() {}',
      );
      const code =
        '<p>Sow</p><script>seeds = {}; count = 2; document.onclick = () => {}; beds = "b"; function sow() { return 1 } history.pushState = () => {}; window.fetch = () => {}; Element.prototype.remove = () => {}; String.prototype.first = () => {}; Object.defineProperty(String.prototype, "last", { value() {} }); delete Array.prototype.at</script>';
      expect(await listChanged(code, { page })).toEqual([
        'added browser String.prototype.first',
        'gone browser Array.prototype.at',
        'replaced browser Element.prototype.remove',
        'replaced browser fetch',
        'replaced browser history.pushState',
        'replaced page beds',
        'replaced page document.onclick',
        'replaced page seeds',
        'replaced page sow',
      ]);
    },
    60_000,
  );

  test.concurrent(
    'is not told where the page does it by itself, before the slot or after',
    async () => {
      const before = 'var seeds = {}; Array.prototype.first = () => {}; window.onload = () => {}';
      const after =
        'seeds = { late: true }; Array.prototype.last = () => {}; window.fetch = () => {}; window.onload = () => {}';
      expect(await listChanged(SOUND, { page: makePage(before, after) })).toEqual([]);
    },
    60_000,
  );

  test.concurrent(
    'is held against the moment at which a snippet is put in late',
    async () => {
      const page = makePage(
        'function sow() {}',
        'addEventListener("load", () => { sow = () => 1 })',
      );
      const late = { page, insert: 'late' as const, lateScripts: true };
      expect(await listChanged(SOUND, late)).toEqual([]);
      const code = '<p>Sow</p><script>sow = () => 2</script>';
      // What the page does by itself too is not told, whenever it does it.
      expect(await listChanged(code, late)).toEqual([]);
      const steady = { ...late, page: makePage('function sow() {}') };
      expect(await listChanged(code, steady)).toEqual(['replaced page sow']);
    },
    60_000,
  );
});

const BREAKS = ['script-breaks-host'];
const ASKS = ['asks-for-device'];
const WORKS = ['script-never-rests', 'script-time-over-limit'];

describe('errors of the page’s own code', () => {
  const read = 'document.querySelector(".bed").dataset.kind.trim()';

  test.concurrent(
    'count where they are not there without the snippet',
    async () => {
      const page = makePage(
        `addEventListener("load", () => { if (document.querySelector(".bed")) ${read} })`,
      );
      expect(await list(BREAKS, '<p class="bed">Sow</p>', { page })).toEqual([
        'script-breaks-host',
      ]);
      expect(await list(BREAKS, '<p class="bed" data-kind="bean">Sow</p>', { page })).toEqual([]);
    },
    60_000,
  );

  test.concurrent(
    'do not where they are there anyway',
    async () => {
      const page = makePage(`addEventListener("load", () => { ${read} })`);
      expect(await list(BREAKS, '<p>Sow</p>', { page })).toEqual([]);
    },
    60_000,
  );
});

describe('what visitors are asked for', () => {
  const ask = 'navigator.geolocation.getCurrentPosition(() => {}, () => {})';
  const frame = (allow: string) =>
    `<iframe title="Map" ${allow} style="border: 0; width: 100%; height: 90px" srcdoc="<p>x</p><script>${ask}</script>"></iframe>`;

  test.concurrent(
    'is told of frames too, and not of the page’s own code',
    async () => {
      expect(await list(ASKS, frame(''))).toEqual(['asks-for-device']);
      expect(await list(ASKS, SOUND, { page: makePage(ask) })).toEqual([]);
    },
    60_000,
  );
});

test.concurrent(
  'who is at work all the time is told, and who takes long once',
  async () => {
    const rests =
      '<p>Sow in May.</p><script>let sum = 0; for (let i = 0; i < 2e6; i++) sum += i % 7</script>';
    const code =
      '<p>Sow in May.</p><script>let sum = 0; requestAnimationFrame(function count() { for (let i = 0; i < 5e5; i++) sum += Math.sqrt(i + sum); requestAnimationFrame(count) })</script>';
    expect(await list(WORKS, code)).toEqual(['script-never-rests']);
    const slow = '<p>Sow in May.</p><script async src="https://tally.example/sums.js"></script>';
    expect(await list(WORKS, slow)).toEqual(['script-time-over-limit']);
    expect(await list(WORKS, rests)).toEqual([]);
  },
  60_000,
);
