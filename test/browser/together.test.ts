import { afterAll, beforeAll, expect, test } from '@jest/globals';
import { HOSTS, startStandIns, type StandIns } from '../../dist/demo/stand-ins/index.js';
import { readMarkup } from '../../dist/src/core/markup/markup.js';
import { findBrowser } from '../../dist/src/render/browser/find.js';
import { Renderer } from '../../dist/src/render/renderer.js';
import type { Render } from '../../dist/src/core/render.js';
import { EXAMPLE_HOUSE } from '../support/recorded.js';

let standIns: StandIns;
let renderer: Renderer;

const [column] = EXAMPLE_HOUSE.slots;
const slots = ['article', 'aside'].map((name) => ({ ...column!, name }));
const PAGE = `<!doctype html><title>Seed library</title>
  <aside data-mivket-slot="aside"></aside><main data-mivket-slot="article"></main>`;

beforeAll(async () => {
  standIns = await startStandIns();
  const reroute = Object.fromEntries(HOSTS.map((host) => [host, standIns.origin]));
  renderer = await Renderer.open({
    program: await findBrowser(),
    house: { ...EXAMPLE_HOUSE, slots, reroute },
    ownPage: PAGE,
    root: null,
    offline: false,
  });
});

afterAll(async () => {
  await renderer.close();
  await standIns.close();
});

test('of several snippets on one page each has its own elements, pictures and requests', async () => {
  const texts = [
    '<p>Beans</p><img alt="Beans" src="https://static.rootcellar.example/beans.png">',
    '<h3>Desk</h3><script src="https://tally.example/small.js"></script><script>document.currentScript.after(document.createElement("hr"))</script>',
  ];
  const names = ['beans', 'desk'];
  const render: Render = {
    snippets: names.map((name, i) => ({ name, slot: slots[i]!.name })),
    insert: 'inline',
    viewport: EXAMPLE_HOUSE.viewports[0]!,
    engine: 'chromium',
    variant: 'as-is',
    after: null,
    scrolled: null,
    search: [],
  };
  const snippets = texts.map((text, i) => ({
    snippet: { name: names[i]!, path: null, text },
    markup: readMarkup(text),
  }));
  const [told] = await renderer.renderTogether(snippets, [render], () => undefined);
  const of = told!.map(({ of, slot, elements, pictures, traffic }) => ({
    of,
    slot: slot.name,
    elements: elements.map(({ tag, from }) => `${tag} ${Object.values(from).join(' ')}`),
    pictures: pictures.map(({ name }) => name),
    hosts: traffic.map(({ host }) => host),
  }));
  const script = texts[1]!.indexOf('<script>');
  expect(of).toEqual([
    {
      of: 0,
      slot: 'article',
      elements: ['p 0', `img ${texts[0]!.indexOf('<img')}`],
      pictures: ['Beans'],
      hosts: ['static.rootcellar.example'],
    },
    {
      of: 1,
      slot: 'aside',
      elements: [
        'h3 0',
        `script ${texts[1]!.indexOf('<script src')}`,
        `script ${script}`,
        expect.stringMatching(/^hr /),
      ],
      pictures: [],
      hosts: ['tally.example'],
    },
  ]);
  expect(told!.map(({ gaps }) => gaps)).toEqual([[], []]);
});
