import { afterAll, beforeAll, expect, test } from '@jest/globals';
import { CHECKS } from '../../dist/src/checks/index.js';
import { openLive, type Live } from '../support/live.js';
import { FITTING, judgeRecorded } from '../support/recorded.js';

let live: Live;
beforeAll(async () => {
  live = await openLive();
}, 60_000);
afterAll(() => live.close());

const SEEING = CHECKS.filter((one) => one.tooWide || /^(text|nothing|content)-/.test(one.id));
const ids = (checks: typeof CHECKS) => checks.map(({ id }) => id);

const PHONE = { viewports: [{ name: 'phone', width: 320 }] };
const GROWS = '<style>@keyframes g { from { width: 50px } to { width: 1500px } }</style>';
const BED = '<div id="a" style="background: #eee; height: 900px">Beds</div>';

test.concurrent.each([
  ['load', '<div style="width: 1500px; background: #eee">Beds</div>'],
  ['load', '<div style="width: 1500px; background: #eee">Beds</div><script>0</script>'],
  [
    'animation',
    `${GROWS}<div style="background: #eee; animation: g 2s steps(1, end) forwards">Beds</div>`,
  ],
  [
    'later',
    `${BED}<script>addEventListener("load", () => setTimeout(() => { document.querySelector("#a").style.width = "1500px" }, 300))</script>`,
  ],
  [
    'scroll',
    `${BED}<script>addEventListener("scroll", () => { document.querySelector("#a").style.width = "1500px" })</script>`,
  ],
])(
  'what is too wide since %s says so: %s',
  async (when, code) => {
    const [found] = judgeRecorded(await live.render(code, PHONE, ids(FITTING)), FITTING);
    expect(found!.id).toBe('page-scrolls-sideways');
    expect(new Set(found!.seen.map(({ measured }) => measured.at))).toEqual(new Set([when]));
  },
  60_000,
);

/** Unseen for the first part of its course, in which it is read. */
const fades = (seen: string) =>
  `<style>@keyframes f { 0%, 70% { opacity: 0 } 71%, 100% { opacity: 1; ${seen} } } .b { animation: f 9s infinite }</style><p class="b">Sow</p>`;

test.concurrent.each<[string, string, string[]]>([
  ['is there', fades(''), []],
  [
    'is as clear as it gets',
    '<style>@keyframes f { 0%, 100% { opacity: 0.3 } 50% { opacity: 1 } } .b { animation: f 9s infinite }</style><p class="b">Sow</p>',
    [],
  ],
  ['is too wide where it is seen', fades('translate: 1400px'), ['page-scrolls-sideways']],
])(
  'what is unseen at the instant at which it is looked at %s: %s',
  async (_what, code, expected) => {
    const found = judgeRecorded(await live.render(code, PHONE, ids(SEEING)), SEEING);
    expect(found.map(({ id }) => id)).toEqual(expected);
  },
);
