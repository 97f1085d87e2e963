import { afterAll, beforeAll, describe, expect, test } from '@jest/globals';
import { readFileSync } from 'node:fs';
import { createServer, type Server, type ServerResponse } from 'node:http';
import { listen } from '../support/listen.js';
import { getIds, Workshop } from '../support/program.js';

const shop = new Workshop();
let vendor: Server;
const RAIN = readFileSync(new URL('../../demo/files/rain.mp4', import.meta.url));

/** A vendor that is not there for everybody. */
const ANSWERS: Record<string, (answer: ServerResponse) => void> = {
  '/never.js': () => undefined,
  '/held': () => undefined,
  '/drip.css': (answer) => answer.write('p {'),
  '/endless.js': (answer) => pour(answer),
  '/closed.js': (answer) => answer.writeHead(403).end(),
  '/never.mp4': () => undefined,
  '/rain.mp4': (answer) => answer.setHeader('Content-Type', 'video/mp4').end(RAIN),
  '/busy': (answer) => answer.writeHead(429).end(),
};

/** Goes on as long as it is listened to. */
function pour(answer: ServerResponse): void {
  const chunk = Buffer.alloc(1_000_000, ' ');
  const go = () => {
    while (!answer.destroyed && answer.write(chunk));
  };
  answer.on('drain', go);
  go();
}

beforeAll(async () => {
  vendor = createServer((ask, answer) => {
    const respond = ANSWERS[ask.url ?? ''];
    if (respond) respond(answer);
    else answer.end('');
  });
  const origin = `http://127.0.0.1:${await listen(vendor)}`;
  shop.write(
    'mivket.yaml',
    `viewports: [{ name: phone, width: 390 }, { name: desktop, width: 1280 }]\nreroute: { "*.fernmap.example": "${origin}" }`,
  );
});

afterAll(() => {
  vendor.closeAllConnections();
  vendor.close();
  shop.close();
});

const film = (name: string) =>
  `<video autoplay muted playsinline controls src="https://cdn.fernmap.example/${name}.mp4"></video>`;
const FRAME = '<iframe title="Map" style="border: 0; width: 100%; height: 90px"';

describe('what was not seen is never taken for sound', () => {
  test.concurrent.each([
    [
      '5,200 elements before a picture',
      `${'<b></b>'.repeat(5200)}<img>`,
      'more elements than are read',
    ],
    [
      'code that waits for the clock',
      '<p>x</p><script>setTimeout(() => { const now = Date.now(); while (Date.now() - now < 50); }, 25000)</script>',
      'its code keeps the page from answering within its first minute, at least while time stands',
    ],
    [
      'a vendor that never answers',
      '<p>x</p><script src="https://cdn.fernmap.example/never.js"></script>',
      'the page had not loaded when the time was over',
    ],
    [
      'a film whose size does not come',
      '<video controls src="https://cdn.fernmap.example/never.mp4"></video>',
      'the size of a film had not come when the time was over',
    ],
    [
      'a vendor that drips',
      '<p>x</p><link rel="stylesheet" href="https://cdn.fernmap.example/drip.css">',
      'the page had not loaded when the time was over',
    ],
    [
      'a vendor that never ends',
      '<p>x</p><script async src="https://cdn.fernmap.example/endless.js"></script>',
      'the page loads more than 100 MB: loading was ended there',
    ],
    [
      'a vendor that lets nobody in',
      '<div id="desk"></div><script async src="https://cdn.fernmap.example/closed.js"></script>',
      'cdn.fernmap.example answers with 403: visitors may see more',
    ],
    [
      'a frame that is too busy',
      `${FRAME} src="https://cdn.fernmap.example/busy"></iframe>`,
      'cdn.fernmap.example answers with 429: visitors may see more',
    ],
    [
      'a file that the page’s site may have',
      '<p>x</p><img alt="Beans" src="/beans.png">',
      'the host page’s site is not here, only the page',
    ],
    [
      'a page that was left',
      '<p>x</p><script>location = "about:blank"</script>',
      'the page was left',
    ],
  ])(
    '%s',
    async (_name, code, why) => {
      const { document } = await shop.audit(['--code', code, '--width', '390', '--no-ranges']);
      const [snippet] = document.snippets;
      expect(snippet!.verdict).toBe(why === 'the page was left' ? 'hold' : 'unsure');
      expect(snippet!.fitsFrom).toBeNull();
      expect(snippet!.gaps.map((gap) => gap.why)).toContain(why);
      expect(document.notJudged.map(({ why: told }) => told).join()).toContain(why);
      expect(getIds(document).code).not.toContain('nothing-rendered');
    },
    120_000,
  );

  test.concurrent('what a server lets wait is a line that stays open', async () => {
    const code =
      '<p>x</p><script>fetch("https://cdn.fernmap.example/held").catch(() => undefined)</script>';
    const { document } = await shop.audit(['--code', code, '--width', '390', '--no-ranges']);
    expect(document.snippets[0]).toMatchObject({ verdict: 'clear', gaps: [] });
    expect(document.snippets[0]!.openLines).toEqual(['cdn.fernmap.example']);
  });

  test.concurrent.each([
    ['a script', '<div id="desk"></div><script async src="https://tally.example/a.js"></script>'],
    ['a picture', '<p>x</p><img alt="Beans" src="https://tally.example/a.png">'],
    ['a frame', `${FRAME} src="https://tally.example/a"></iframe>`],
  ])('without a network: %s', async (_name, code) => {
    const offline = await shop.audit([
      '--code',
      code,
      '--width',
      '390',
      '--no-ranges',
      '--offline',
    ]);
    expect(getIds(offline.document).code).toEqual([]);
    expect([offline.code, offline.document.verdict]).toEqual([3, 'unsure']);
    const sound = await shop.audit(['--code', '<p>x</p>', '--width', '390', '--offline']);
    expect(sound.document.verdict).toBe('clear');
  });

  test('a slot that does not exist at any width asked for is bad usage', async () => {
    shop.write('side.yaml', 'slots: { main: {}, side: { from: 900, width: 300 } }');
    const args = ['audit', '--code', '<p>x</p>', '--house', 'side.yaml', '--width', '390'];
    const { code, err } = await shop.run([...args, '--slot', 'side']);
    expect(err).toMatch(
      /^mivket: The slot "side" does not exist at 390 px: there is nothing to render\./,
    );
    expect(code).toBe(2);
    expect((await shop.run(args)).code).toBe(0);
  });

  test.concurrent('one film that is late is told of, beside one that is there', async () => {
    const code = `<p>x</p>${film('rain')}${film('never')}`;
    const { document } = await shop.audit(['--code', code, '--width', '390', '--no-ranges']);
    const [snippet] = document.snippets;
    const told = snippet!.gaps.map(({ kind, why }) => `${kind}: ${why}`);
    expect(told).toContain('media: media had not come to rest when the time was over');
    expect(told).toContain('page: the size of a film had not come when the time was over');
    // What goes by nothing that is laid out was seen.
    expect(snippet!.gaps.map(({ kind }) => kind)).not.toContain('scripts');
    expect(snippet!.verdict).toBe('unsure');
  });

  test.concurrent('a film that is not there to come is not waited for', async () => {
    const { document } = await shop.audit([
      '--code',
      '<p>x</p><video autoplay muted playsinline style="width: 100%"></video>',
    ]);
    expect(document.snippets[0]!.gaps).toEqual([]);
  });
});

describe('a loop that begins late', () => {
  test.concurrent(
    'ends, at two widths, and is named at its own place',
    async () => {
      const code = '<p>x</p>\n<script>\nsetTimeout(() => {\n  while (true) {}\n}, 1500)</script>';
      const { document } = await shop.audit(['--code', code]);
      const [finding] = document.snippets[0]!.findings;
      expect(finding).toMatchObject({ id: 'page-hangs', where: { line: 4 } });
      expect(finding!.seen).toHaveLength(2);
    },
    120_000,
  );

  test.concurrent(
    'in a vendor’s script, at the tag that brings it in',
    async () => {
      ANSWERS['/loop.js'] = (answer) =>
        answer.end('setTimeout(function grow() { for (;;); }, 300)');
      const code = '<p>x</p>\n<script async src="https://cdn.fernmap.example/loop.js"></script>';
      const { document } = await shop.audit(['--code', code, '--width', '390', '--no-ranges']);
      const [finding] = document.snippets[0]!.findings;
      expect(finding).toMatchObject({ id: 'page-hangs', where: { line: 2, column: 1 } });
      expect(finding!.message).toMatch(/in grow\(\) of https:\/\/cdn\.fernmap\.example\/loop\.js/);
    },
    120_000,
  );
});
