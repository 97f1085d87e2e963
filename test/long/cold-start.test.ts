import { afterAll, beforeEach, expect, test } from '@jest/globals';
import {
  chmodSync,
  existsSync,
  mkdirSync,
  readdirSync,
  rmdirSync,
  statSync,
  utimesSync,
  watch,
} from 'node:fs';
import { join } from 'node:path';
import { PROGRAM, Workshop, type Outcome } from '../support/program.js';

const shop = new Workshop();
const ARGS = ['audit', '--quiet', '--width', '390', '--code', '<p>Sow in May.</p>'];
let cache: string;
let count = 0;

beforeEach(() => {
  cache = join(shop.folder, `cache-${++count}`);
  mkdirSync(cache);
});

afterAll(() => shop.close());

const start = () => shop.start(ARGS, { XDG_CACHE_HOME: cache });
const list = () => readdirSync(join(cache, 'mivket')).sort();
const WHOLE = [expect.stringMatching(/^browser-/), 'code', expect.stringMatching(/^fonts-/)];

function expectClear({ code, out, err }: Outcome): void {
  expect({ code, err }).toMatchObject({ code: 0 });
  expect(out).toMatch(/code {2}CLEAR/);
}

test('one start with an empty cache: the browser is unpacked, for its owner alone', async () => {
  expectClear(await start().done);
  expect(list()).toEqual(WHOLE);
  expect(statSync(join(cache, 'mivket')).mode & 0o777).toBe(0o700);
});

test('two at once: both work, and one copy is left', async () => {
  const outcomes = await Promise.all([start().done, start().done]);
  outcomes.forEach(expectClear);
  expect(list()).toEqual(WHOLE);
});

test('one cut off in the middle: the next one works, and what was half done is gone', async () => {
  mkdirSync(join(cache, 'mivket'), { mode: 0o700 });
  const { child, done } = start();
  const watcher = watch(join(cache, 'mivket'), () => {
    const making = list().map((name) => join(cache, 'mivket', name, 'chromium'));
    if (making.some((path) => existsSync(path))) child.kill('SIGKILL');
  });
  expect((await done).code).toBeNull();
  watcher.close();
  expect(list()).toContainEqual(expect.stringMatching(/^making-/));
  expectClear(await start().done);
  expect(list()).toEqual(WHOLE);
});

test('what was left long ago goes, what others are making stays, and what was open is closed', async () => {
  const folder = join(cache, 'mivket');
  mkdirSync(folder);
  const [old, fresh] = ['making-elsewhere-1-a', 'making-elsewhere-1-b'] as const;
  for (const name of [old, fresh]) mkdirSync(join(folder, name));
  const hoursAgo = new Date(Date.now() - 2 * 3600e3);
  utimesSync(join(folder, old), hoursAgo, hoursAgo);
  chmodSync(folder, 0o755);
  // To look at the machine asks for the browser twice in one process.
  const { code } = await shop.run(['doctor'], { env: { XDG_CACHE_HOME: cache } });
  expect(code).toBe(0);
  expect(list()).toEqual([...WHOLE, fresh]);
  expect(statSync(folder).mode & 0o777).toBe(0o700);
});

test('a cache that lost its end is made anew', async () => {
  mkdirSync(join(cache, 'mivket'), { mode: 0o700 });
  await start().done;
  const browser = list().find((name) => name.startsWith('browser-'))!;
  rmdirSync(join(cache, 'mivket', browser, 'ready'));
  expectClear(await start().done);
  expect(list()).toEqual(WHOLE);
});

test('a cache that may only be read: one sentence, or no matter where all is there', async () => {
  expectClear(await start().done);
  for (const name of ['', ...list()]) chmodSync(join(cache, 'mivket', name), 0o500);
  expectClear(await start().done);
  for (const name of ['', ...list()]) chmodSync(join(cache, 'mivket', name), 0o700);
  // To an administrator only some folders are closed.
  const closed = process.getuid?.() === 0 ? '/proc' : cache;
  chmodSync(cache, 0o500);
  const { code, out, err } = await shop.run(ARGS, { env: { XDG_CACHE_HOME: join(closed, 'in') } });
  chmodSync(cache, 0o700);
  expect([code, out]).toEqual([3, '']);
  expect(err).toMatch(
    /^mivket: The browser that came along has nowhere to be unpacked: \/.*in\/mivket cannot be made \([a-z ]+\); XDG_CACHE_HOME names another place\. Try [^\n]*\n$/,
  );
});

test('a cache that is full: the first cause in one sentence, and nothing is left', async () => {
  // Not the disk is full here, but a file may have no more than 10 MB: what is written fails alike.
  const limited = `ulimit -f 20000; exec "$0" "$@"`;
  const args = ['-c', limited, process.execPath, PROGRAM, ...ARGS];
  const { code, out, err } = await shop.launch('sh', args, { XDG_CACHE_HOME: cache }).done;
  expect([code, out]).toEqual([3, '']);
  expect(err).toMatch(
    /^mivket: The browser that came along could not be unpacked in \/.*mivket: files may not be that large there; XDG_CACHE_HOME [^\n]*\n$/,
  );
  expect(list().filter((name) => name.startsWith('making-'))).toEqual([]);
});
