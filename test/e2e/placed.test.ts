import { afterAll, beforeAll, expect, test } from '@jest/globals';
import { HOSTS, startStandIns, type StandIns } from '../../dist/demo/stand-ins/index.js';
import { getIds, Workshop } from '../support/program.js';
import { isSampled } from '../support/sample.js';

const shop = new Workshop();
let standIns: StandIns;

/** A site's usual look, which no snippet is to blame for taking. */
const LOOK =
  '* { box-sizing: border-box } body { margin: 0; font: 18px/1.6 serif; color: #222; background: #fffdf8 } h2 { line-height: 1.2; color: #1f4a2c } a { color: #2f5d3a } p { margin: 0 0 1em } ul { padding-left: 1.2em } img { max-width: 100%; height: auto } button, input { font: inherit } main { max-width: 680px; margin: 0 auto; padding: 0 16px }';
const SLOT = '<div data-mivket-slot="article"></div>';
const HEAD = `<!doctype html><html lang="en"><head><meta name="viewport" content="width=device-width"><title>Journal</title><style>${LOOK}</style></head><body>`;
const write = (count: number) =>
  Array.from(
    { length: count },
    (_, at) => `<p>Sow in rows a hand apart, and <a href="/${at}">water</a> them.</p>`,
  ).join('');

/** Where a snippet may stand in a page. */
const PAGES = {
  first: `<main>${SLOT}<h2>Spring</h2>${write(4)}</main>`,
  last: `<main><h2>Spring</h2>${write(4)}${SLOT}</main>`,
  'in a short one': `<main><p>Sow.</p>${SLOT}<p>Water.</p></main>`,
  'in a long one': `<header><a href="/">Seeds</a></header><main>${write(40)}${SLOT}${write(40)}</main><footer>Desk</footer>`,
};

const SOUND = {
  // What has to be fetched is early in one place, and late in another.
  'hours.html':
    '<iframe title="Hours" allowfullscreen srcdoc="<p>Open from nine to five, but for Mondays.</p>" style="display: block; border: 0; width: 100%; height: 60px"></iframe>',
  'opens.html':
    '<div class="care"><button type="button" aria-expanded="false">Care</button><p hidden>Water daily.</p></div><script>{ const [button, text] = document.querySelector(".care").children; button.onclick = () => { text.hidden = !text.hidden; button.setAttribute("aria-expanded", String(!text.hidden)) } }</script>',
  'table.html':
    '<div tabindex="0" role="region" aria-label="Sowing" style="overflow-x: auto"><table style="min-width: 600px"><tr><th scope="col">Seed</th><th scope="col">Month</th></tr><tr><td>Bean</td><td>May</td></tr></table></div>',
  'bar.html':
    '<div style="position: fixed; left: 0; right: 0; bottom: 0; padding: 6px 12px; background: #1f4a2c; color: #fff">Open on Sunday <button type="button" onclick="this.parentNode.remove()">Close</button></div>',
  'words.html':
    '<h2>Bean days</h2><p>Come and <a href="/may">see</a> them.</p><ul><li>Runner</li></ul><img src="https://static.rootcellar.example/beans.png" width="160" height="120" alt="Beans on a rack">',
};

beforeAll(async () => {
  standIns = await startStandIns();
  for (const [name, code] of Object.entries(SOUND)) shop.write(`in/${name}`, code);
});

afterAll(async () => {
  await standIns.close();
  shop.close();
});

test.each(Object.entries(PAGES).map(([where, page], at) => [where, page, at] as const))(
  'what is sound is sound wherever it stands: %s',
  async (_where, page, at) => {
    const names = Object.keys(SOUND).filter((_, i) => isSampled(at + i, 2));
    shop.write('page.html', `${HEAD}${page}</body></html>`);
    const reroute = HOSTS.map((host) => `  "${host}": ${standIns.origin}`).join('\n');
    shop.write(
      'mivket.yaml',
      `page: page.html\nviewports: [{ name: phone, width: 390, touch: true }, { name: desktop, width: 1280 }]\nreroute:\n${reroute}\n`,
    );
    const { document } = await shop.audit(names.map((name) => `in/${name}`));
    expect(getIds(document)).toEqual(Object.fromEntries(names.map((name) => [name, []])));
    expect(document.verdict).toBe('clear');
  },
  120_000,
);
