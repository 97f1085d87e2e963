import { afterAll, beforeAll, describe, expect, test } from '@jest/globals';
import { createServer, type Server, type ServerResponse } from 'node:http';
import type { RunDocument, SnippetReport } from '../../src/core/run.js';
import { listen } from '../support/listen.js';
import { Workshop } from '../support/program.js';

const shop = new Workshop();
let vendor: Server;

const SEND = (type: string, text: string) => (answer: ServerResponse) =>
  void answer.setHeader('Content-Type', type).end(text);
const ANSWERS: Record<string, (answer: ServerResponse) => void> = {
  '/order': SEND(
    'text/html',
    `<script>setTimeout(() => { document.body.innerHTML = "<p style='height: 850px'>x</p>"; parent.postMessage({ height: 900 }, "*") }, 9000)</script>`,
  ),
  '/big.js': SEND('text/javascript', `/*${' '.repeat(3_000_000)}*/`),
  '/lines': (answer) =>
    void answer.setHeader('Content-Type', 'text/event-stream').write('data: x\n\n'),
};

const WIDE = 'document.getElementById("bed").style.width = "3000px"';
const bed = (script: string) => `<p id="bed">Beans</p><script>${script}</script>`;
const moving = (style: string, script = '') =>
  `<style>@keyframes grow { to { width: 3000px } } ${style}</style><p id="bed">Beans</p>${script && `<script>${script}</script>`}`;

/** What a visitor meets after a while, with the finding that tells of it and from when on, s of its page's time. */
const LATE: Record<string, [id: string, from: number, code: string]> = {
  timer: ['page-scrolls-sideways', 12, bed(`setTimeout(() => { ${WIDE} }, 12000)`)],
  text: ['page-taken-over', 9, `<p>Beans</p><script>setTimeout("alert('Join')", 9000)</script>`],
  chain: [
    'page-scrolls-sideways',
    16,
    bed(`let n = 0; (function go() { if (++n > 4) ${WIDE}; else setTimeout(go, 4000) })()`),
  ],
  interval: [
    'page-scrolls-sideways',
    20,
    bed(`let n = 0; setInterval(() => { if (++n === 4) ${WIDE} }, 5000)`),
  ],
  clock: [
    'page-scrolls-sideways',
    7,
    bed(`const t = Date.now(); setInterval(() => { if (Date.now() - t > 7000) ${WIDE} }, 3500)`),
  ],
  frames: [
    'page-scrolls-sideways',
    8,
    bed(
      `let begun; (function go(t) { begun ??= t; if (t - begun > 8000) ${WIDE}; else requestAnimationFrame(go) })()`,
    ),
  ],
  idle: [
    'page-scrolls-sideways',
    9,
    bed(`requestIdleCallback(() => setTimeout(() => { ${WIDE} }, 9000))`),
  ],
  task: [
    'page-scrolls-sideways',
    10,
    bed(`scheduler.postTask(() => { ${WIDE} }, { delay: 10000 })`),
  ],
  signal: [
    'page-scrolls-sideways',
    6,
    bed(`AbortSignal.timeout(6000).onabort = () => { ${WIDE} }`),
  ],
  delay: ['page-scrolls-sideways', 20, moving('#bed { animation: grow 1s 20s forwards }')],
  ended: [
    'page-scrolls-sideways',
    14,
    moving(
      '@keyframes turn { to { rotate: 1deg } } #bed { animation: turn 7s 2 }',
      `document.getElementById("bed").onanimationend = () => { ${WIDE} }`,
    ),
  ],
  transition: [
    'page-scrolls-sideways',
    12,
    moving(
      '#bed { transition: opacity 12s } .dim { opacity: .9 }',
      `const bed = document.getElementById("bed"); bed.ontransitionend = () => { ${WIDE} }; requestAnimationFrame(() => requestAnimationFrame(() => bed.className = "dim"))`,
    ),
  ],
  worker: [
    'page-scrolls-sideways',
    15,
    bed(
      `new Worker(URL.createObjectURL(new Blob(["setTimeout(() => postMessage(1), 15000)"]))).onmessage = () => { ${WIDE} }`,
    ),
  ],
  inside: [
    'frame-cuts-content',
    5,
    `<iframe title="Order" style="width: 100%; height: 200px; border: 0" srcdoc="<p style='height: 150px; margin: 0'>x</p><script>setTimeout(() => { document.body.innerHTML = '<p style=&quot;height: 900px&quot;>x</p>' }, 5000)</script>"></iframe>`,
  ],
  message: [
    'frame-resize-unheard',
    9,
    '<iframe title="Order" style="width: 100%; height: 200px; border: 0" src="https://order.fernmap.example/order"></iframe>',
  ],
  popup: [
    'covers-host-controls',
    30,
    bed(
      'setTimeout(() => { const veil = document.createElement("div"); veil.style.cssText = "position: fixed; inset: 0; background: #fff"; veil.textContent = "Join us"; document.body.append(veil) }, 30000)',
    ),
  ],
  leave: [
    'page-taken-over',
    8,
    bed('setTimeout(() => { location.href = "https://elsewhere.example/" }, 8000)'),
  ],
  window: [
    'page-taken-over',
    10,
    bed('setTimeout(() => open("https://elsewhere.example/"), 10000)'),
  ],
  picture: [
    'picture-without-alt',
    15,
    bed(
      'setTimeout(() => document.getElementById("bed").append(new Image(40, 40)), 15000); setTimeout(() => { document.querySelector("#bed img").src = "data:image/gif;base64,R0lGODlhAQABAIAAAAAAAP///yH5BAEAAAAALAAAAAABAAEAAAIBRAA7" }, 15001)',
    ),
  ],
  error: ['script-error', 25, bed('setTimeout(() => { beds.sow() }, 25000)')],
  heavy: [
    'weight-over-limit',
    4,
    bed(
      'setTimeout(() => { const s = document.createElement("script"); s.src = "https://order.fernmap.example/big.js"; document.head.append(s) }, 4000)',
    ),
  ],
  keys: [
    'page-scrolls-sideways',
    11,
    bed(`document.addEventListener("keydown", () => {}); setTimeout(() => { ${WIDE} }, 11000)`),
  ],
};

/** Goes by frames, and is as far ahead of the time as the machine is late with a frame: which is said. */
const ANIMATED = new Set(['delay', 'ended', 'transition']);

/** What goes on all the time, and nobody minds. */
const SOUND: Record<string, string> = {
  carousel:
    '<style>.row { overflow: hidden } #row { display: flex; transition: transform .6s } #row p { flex: 0 0 100%; margin: 0 }</style><div class="row"><div id="row"><p>Beans</p><p>Peas</p><p>Lettuce</p></div></div><script>let n = 0; setInterval(() => { n = (n + 1) % 3; document.getElementById("row").style.transform = `translateX(-${n * 100}%)` }, 4000)</script>',
  countdown: bed(
    'let n = 90; setInterval(() => { document.getElementById("bed").textContent = `Sown in ${--n} days` }, 1000)',
  ),
  spinner: moving(
    '@keyframes turn { to { rotate: 360deg } } #bed { animation: turn 1s infinite; width: 40px; height: 40px; margin: 20px; overflow: hidden }',
  ),
  fades: moving('@keyframes show { from { opacity: 0 } } #bed { animation: show 2s 5s backwards }'),
  grows: bed(
    'let n = 0; const more = setInterval(() => { const p = document.createElement("p"); p.textContent = "Peas"; document.getElementById("bed").after(p); if (++n > 5) clearInterval(more) }, 2000)',
  ),
  lines: bed('new EventSource("https://order.fernmap.example/lines").onmessage = () => {}'),
  fetched: bed('fetch("https://order.fernmap.example/lines").then((one) => one.text())'),
  rests: bed('addEventListener("resize", () => {})'),
};

let late: RunDocument;
let sound: RunDocument;

beforeAll(async () => {
  vendor = createServer((ask, answer) => {
    answer.setHeader('Access-Control-Allow-Origin', '*');
    (ANSWERS[ask.url ?? ''] ?? SEND('text/plain', ''))(answer);
  });
  const origin = `http://127.0.0.1:${await listen(vendor)}`;
  shop.write(
    'mivket.yaml',
    `viewports: [{ name: phone, width: 390 }, { name: desktop, width: 1280 }]\nreroute: { "*.fernmap.example": "${origin}" }`,
  );
  for (const [name, [, , code]] of Object.entries(LATE)) shop.write(`late/${name}.html`, code);
  for (const [name, code] of Object.entries(SOUND)) shop.write(`sound/${name}.html`, code);
  late = (await shop.audit(['late', '--width', '390'])).document;
  // The other kind of window in which a minute is lived on.
  sound = (await shop.audit(['sound', '--width', '1280', '--no-ranges'])).document;
}, 240_000);

afterAll(() => {
  vendor.closeAllConnections();
  vendor.close();
  shop.close();
});

function pick({ snippets }: RunDocument, name: string): SnippetReport {
  return snippets.find((one) => one.name.endsWith(`${name}.html`))!;
}

describe('what comes within the first minute', () => {
  test.each(Object.entries(LATE))('is found: %s', (name, [id, from]) => {
    const snippet = pick(late, name);
    const finding = snippet.findings.find((one) => one.id === id);
    expect(snippet.findings.map((one) => one.id)).toContain(id);
    const [after] = finding!.seen.map((one) => one.after);
    // To one look exact by its own time, of which some is over before it rests: the more, the slower the machine.
    expect(after).toBeGreaterThan(0);
    if (!ANIMATED.has(name)) expect(after).toBeLessThanOrEqual(2 * from + 6);
    expect(finding!.message).toContain(
      `It comes later: within ${after} s after the page has come to rest.`,
    );
  });

  test.each(Object.keys(SOUND))('is no fault where it is none: %s', (name) => {
    const { findings, verdict, gaps, openLines } = pick(sound, name);
    expect({ findings: findings.map(({ id, message }) => `${id}: ${message}`), gaps }).toEqual({
      findings: [],
      gaps: [],
    });
    expect(verdict).toBe('clear');
    // What is told of what came over them is no claim.
    expect(openLines).toEqual(/lines|fetched/.test(name) ? ['order.fernmap.example'] : []);
  });

  test('does not fit where it fits only at first', () => {
    expect(pick(late, 'timer').fitsFrom).toBeNull();
    const [first] = pick(late, 'timer').renders;
    expect([first!.after, first!.fits]).toEqual([null, false]);
  });

  test('is not blamed on a snippet where the page does it by itself', async () => {
    shop.write(
      'own.html',
      '<!doctype html><title>Seeds</title><h1>Seeds</h1><main data-mivket-slot="column"></main><p id="news">News</p><script>setTimeout(() => { const bar = document.createElement("div"); bar.id = "bar"; bar.textContent = "Join"; bar.style.cssText = "position: fixed; inset: 0"; document.body.append(bar); document.getElementById("news").style.display = "none" }, 20000)</script>',
    );
    shop.write('own.yaml', 'page: own.html\nslots: { column: {} }');
    const code = bed('setTimeout(() => document.getElementById("bed").append("!"), 10000)');
    const args = ['--code', code, '--house', 'own.yaml', '--width', '390'];
    const { document } = await shop.audit(args);
    expect(document.snippets[0]!.findings).toEqual([]);
    expect(document.verdict).toBe('clear');
    const hides = bed(
      'setTimeout(() => { document.querySelector("h1").style.display = "none" }, 10000)',
    );
    const other = await shop.audit(['--code', hides, ...args.slice(2)]);
    expect(other.document.snippets[0]!.findings.map(({ id }) => id)).toEqual([
      'host-content-damaged',
    ]);
  });
});
