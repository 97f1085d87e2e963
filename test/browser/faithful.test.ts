import { afterAll, beforeAll, describe, expect, test } from '@jest/globals';
import type { Evidence } from '../../dist/src/core/evidence.js';
import { completeHouse } from '../../dist/src/core/house/house.js';
import { houseSchema } from '../../dist/src/core/house/schema.js';
import { readMarkup } from '../../dist/src/core/markup/markup.js';
import { planRenders } from '../../dist/src/core/plan.js';
import { findBrowser } from '../../dist/src/render/browser/find.js';
import { Renderer } from '../../dist/src/render/renderer.js';
import { openLive, type Live } from '../support/live.js';

let live: Live;
beforeAll(async () => {
  live = await openLive();
}, 60_000);
afterAll(() => live.close());

/** Code that writes what it sees into its own element. */
const toCode = (expression: string) =>
  `<p id="said">?</p><script>document.querySelector("#said").style.width = (${expression}) ? "11px" : "22px"</script>`;

/** What code sees at the phone and at the desktop, when the page has come to rest. */
const ask = async (expression: string) => answers(await live.look(toCode(expression)));

function answers(evidence: Evidence[]): boolean[] {
  return evidence.map(({ elements }) => elements.find(({ tag }) => tag === 'p')!.box.width === 11);
}

/** Those of first visits, and of the second ones that code asks for by storing something. */
function byVisit(evidence: Evidence[]): Record<1 | 2, boolean[]> {
  const of = (visit: number) =>
    answers(evidence.filter(({ render }) => render.viewport.visit === visit));
  return { 1: of(1), 2: of(2) };
}

test('what is told of play() cannot be steered', async () => {
  const code = `<p>Rain</p><script>
    for (const name of ["handed", "play", "write"]) document.dispatchEvent(new MouseEvent(name, { relatedTarget: document.createElement("i") }));
    new Audio("https://media.example/rain.mp3").play().catch(() => {});
  </script>`;
  const { evidence } = await live.render(code);
  for (const { scripts } of evidence)
    expect(scripts.sounds).toEqual(['https://media.example/rain.mp3']);
});

describe('the page is as when published', () => {
  test.concurrent.each([
    [
      'its address and origin',
      'location.href === "https://www.seedlibrary.example/"',
      [true, true],
    ],
    ['a secure context', 'isSecureContext', [true, true]],
    ['standards mode', 'document.compatMode === "CSS1Compat"', [true, true]],
    ['no visitor has touched it', '!navigator.userActivation.hasBeenActive', [true, true]],
    ['a phone is touched, a desktop is not', 'matchMedia("(hover: none)").matches', [true, false]],
    ['the pointer of a desktop is fine', 'matchMedia("(pointer: fine)").matches', [false, true]],
    ['the phone is dense', 'devicePixelRatio === 2', [true, false]],
    [
      'classic scroll bars take room',
      'document.documentElement.clientWidth < innerWidth',
      [false, true],
    ],
    ['a window’s width counts the bar', 'innerWidth === 1280', [false, true]],
    [
      'nothing of the tool is in the page’s world',
      'Object.keys(window).every((key) => !/mivket/i.test(key))',
      [true, true],
    ],
    [
      'a watched timer looks like the native one',
      'setTimeout.name === "setTimeout" && /native code/.test(setTimeout)',
      [true, true],
    ],
    [
      'what is told of timers and of play() cannot be heard',
      `(() => {
        let heard = 0;
        const hear = (of, name) => {
          const real = of[name];
          of[name] = function (...all) { heard++; return real.apply(this, all); };
        };
        for (const name of ["has", "add", "delete"]) hear(Set.prototype, name);
        for (const name of ["create", "assign"]) hear(Object, name);
        hear(EventTarget.prototype, "dispatchEvent");
        hear(Reflect, "apply");
        const walk = Array.prototype[Symbol.iterator];
        for (const name of ["bubbles", "composed", "submitter"])
          Object.defineProperty(Object.prototype, name, { configurable: true, get() { heard++; } });
        hear(Array.prototype, Symbol.iterator);
        clearTimeout(setTimeout(() => {}, 500));
        new Audio("data:audio/wav,").play().catch(() => {});
        Array.prototype[Symbol.iterator] = walk;
        for (const name of ["bubbles", "composed", "submitter"]) delete Object.prototype[name];
        return heard === 0;
      })()`,
      [true, true],
    ],
    [
      'storage is empty at every load',
      'localStorage.length + sessionStorage.length === 0 && (localStorage.setItem("a", "b"), sessionStorage.setItem("a", "b"), true)',
      [true, true],
    ],
    [
      'what the page stored when it was left is gone too',
      'localStorage.length === 0 && (addEventListener("pagehide", () => localStorage.setItem("a", "b")), true)',
      [true, true],
    ],
    ['the window has no name at any load', 'name === "" && (name = "a", true)', [true, true]],
    [
      'the window has no past at any load',
      'history.length < 3 && navigation.entries().length === 1 && history.state === null && (history.pushState(1, "", "#a"), true)',
      [true, true],
    ],
    [
      'the browser is one that visitors have',
      String.raw`/ Chrome\/(\d+)\.0\.0\.0 /.exec(navigator.userAgent)[1] === navigator.userAgentData.brands.at(-1).version && !/headless/i.test(navigator.userAgent + JSON.stringify(navigator.userAgentData))`,
      [true, true],
    ],
    [
      'on a phone it is a phone’s',
      '/Android.* Mobile /.test(navigator.userAgent) && navigator.userAgentData.mobile && navigator.userAgentData.platform === "Android" && /arm/.test(navigator.platform)',
      [true, false],
    ],
    [
      'the language is the house’s, not the machine’s',
      'navigator.languages.join() === "en-US,en" && Intl.DateTimeFormat().resolvedOptions().locale === "en-US"',
      [true, true],
    ],
    [
      'cookies are empty at every load',
      'document.cookie === "" && (document.cookie = "a=b", true)',
      [true, true],
    ],
  ])('%s', async (_name, expression, expected) => {
    expect(await ask(expression)).toEqual(expected);
  });

  test('at a second visit there is what the first has stored, but for what belongs to its tab', async () => {
    const kept = 'localStorage.length === 1 || (localStorage.setItem("a", "b"), false)';
    expect(byVisit((await live.render(toCode(kept))).evidence)).toEqual({
      1: [false, false],
      2: [true, true],
    });
    const lost =
      'sessionStorage.length === 0 && (sessionStorage.setItem("a", "b"), document.cookie = "a=b", true)';
    expect(byVisit((await live.render(toCode(lost))).evidence)).toEqual({
      1: [true, true],
      2: [true, true],
    });
  });
});

describe('what is read', () => {
  test('text is as wide as on any other machine, whatever its letters', async () => {
    // A browser of the machine has the machine's fonts.
    if ((await findBrowser()).origin !== 'bundled') return;
    const words = ['Sow beans in May', 'مرحبا بكم', 'नमस्ते', 'ยินดีต้อนรับ', '🌱👩🏽‍🌾', '✓ ☰ →'];
    const code = words.map((text) => `<p style="float: left; clear: left">${text}</p>`).join('');
    const evidence = await live.look(code);
    const widths = evidence[0]!.elements.map(({ box }) => box.width);
    expect(widths).toEqual([130.73, 59.55, 33.8, 75.81, 39.84, 52.64]);
  });

  test('the slot is as wide as the house says', async () => {
    const evidence = await live.look('<p>Sow</p>');
    expect(evidence.map(({ slot }) => slot.box.width)).toEqual([288, 680]);
  });

  test('what a script made is told apart from what the parser made, and from the host', async () => {
    const evidence = await live.look(
      '<p id=a>a</p><script>document.querySelector("#a").after(document.createElement("hr"))</script>',
    );
    expect(
      evidence[0]!.elements.map(({ tag, from }) => [
        tag,
        'offset' in from ? from.offset : 'script',
      ]),
    ).toEqual([
      ['p', 0],
      ['hr', 'script'],
      ['script', 13],
    ]);
    expect(evidence[0]!.host).toEqual([]);
  });

  test('host parts that a snippet changes are kept with both readings', async () => {
    const evidence = await live.look('<style>h1 { color: red } footer { display: none }</style>');
    const changed = evidence[0]!.host.map(({ tag, without, with: now }) => [
      tag,
      without?.shown,
      now?.shown,
    ]);
    expect(changed).toEqual(
      expect.arrayContaining([
        ['h1', true, true],
        ['footer', true, false],
      ]),
    );
  });

  test('attempts to leave, dialogs and rewriting are evidence, and the page stays', async () => {
    const evidence = await live.look(
      '<p>Sow</p><script>confirm("Sure?"); setTimeout(() => location.reload(), 100)</script>',
    );
    const [{ scripts, elements }] = evidence as [Evidence, Evidence];
    expect(scripts.dialogs).toEqual([{ kind: 'confirm', text: 'Sure?' }]);
    expect(scripts.navigations).toEqual([
      { kind: 'reload', address: 'https://www.seedlibrary.example/' },
    ]);
    expect(elements.some(({ tag }) => tag === 'p')).toBe(true);
    const [written] = await live.look(
      '<p>Sow</p><script>addEventListener("load", () => document.write("<p>Gone</p>"))</script>',
    );
    expect(written!.page.replaced).toBe(true);
  });

  test('all that a frame and a worker ask for is in the traffic', async () => {
    const code = `<iframe title="Visits" src="https://tally.example/frame"></iframe><script>new Worker(URL.createObjectURL(new Blob(["importScripts('https://tally.example/small.js')"])))</script>`;
    const evidence = await live.look(code);
    const scripts = evidence[0]!.traffic.filter(
      ({ type }) => type === 'script' || type === 'other',
    );
    expect(scripts.map(({ address }) => address)).toEqual(
      expect.arrayContaining([
        'https://cdn.tallyroot.example/charts.js',
        'https://tally.example/small.js',
      ]),
    );
    const charts = scripts.find(({ host }) => host === 'cdn.tallyroot.example')!;
    expect(charts).toMatchObject({ inFrame: true, status: 200, from: { offset: 0 } });
    expect(charts.unpacked).toBeGreaterThan(charts.wire);
  });

  test('whether a film has a sound track is known, also where it never played', async () => {
    const film = (name: string) =>
      `<video src="https://media.loam.example/${name}.mp4" autoplay controls></video>`;
    const evidence = await live.look(film('talk') + film('rain'));
    expect(
      evidence.map(({ media }) => media.map(({ sound, started }) => [sound, started])),
    ).toEqual([
      [
        [true, false],
        [false, false],
      ],
      [
        [true, false],
        [false, false],
      ],
    ]);
  });
});

test('a host page that is never twice the same is not blamed on the snippet', async () => {
  const house = completeHouse(
    houseSchema.parse({ viewports: [{ name: 'phone', width: 390 }], slots: { a: {} } }),
    null,
  );
  const ownPage = `<!doctype html><meta name="viewport" content="width=device-width"><h1>Seed</h1>
<script>document.querySelector("h1").style.width = 100 + Math.random() * 1e5 + "px"; document.body.append(document.createElement("hr"))</script>
<div data-mivket-slot="a"></div>`;
  const renderer = await Renderer.open({
    program: await findBrowser(),
    house,
    ownPage,
    root: null,
    offline: true,
  });
  try {
    const code = '<p>Sow</p>';
    const [evidence] = await renderer.renderSnippet(
      { name: 'x', path: null, text: code },
      readMarkup(code),
      planRenders('x', house, house),
      () => undefined,
    );
    expect(evidence!.host.filter(({ tag }) => tag === 'h1')).toEqual([]);
    expect(evidence!.elements.map(({ tag }) => tag)).toEqual(['p']);
  } finally {
    await renderer.close();
  }
});
