import { afterAll, afterEach, beforeAll, describe, expect, test } from '@jest/globals';
import type { ChildProcess } from 'node:child_process';
import { rmSync } from 'node:fs';
import { request } from 'node:http';
import { join } from 'node:path';
import { Workshop, type Outcome } from '../support/program.js';

const shop = new Workshop();
const WIDE = '<div style="width: 900px; background: #eee">Sow in May</div>';
const SOUND = '<p>Sow in May</p>';
const ONCE = [
  '--width',
  '390',
  '--no-ranges',
  '--only',
  'page-scrolls-sideways,picture-without-alt',
];

/** What is said on standard output, line by line, as it comes. */
class Lines {
  #text = '';
  #wake: () => void = () => undefined;

  constructor({ stdout }: ChildProcess) {
    stdout!.on('data', (chunk: Buffer) => {
      this.#text += chunk.toString();
      this.#wake();
    });
  }

  /** The next line that is like that; those before it are gone. */
  async find(like: RegExp): Promise<RegExpExecArray> {
    for (;;) {
      const found = like.exec(this.#text);
      if (found) {
        this.#text = this.#text.slice(found.index + found[0].length);
        return found;
      }
      await new Promise<void>((resolve) => (this.#wake = resolve));
    }
  }
}

let child: ChildProcess;
let done: Promise<Outcome>;
let lines: Lines;
let origin: string;

const get = (path: string, host?: string) =>
  new Promise<{ status: number; body: string; policy: string | undefined }>((resolve, reject) => {
    const asking = request(
      `${origin}${path}`,
      { agent: false, ...(host && { headers: { host } }) },
      (answer) => {
        let body = '';
        answer.on('data', (chunk: Buffer) => (body += chunk.toString()));
        const { statusCode: status = 0, headers } = answer;
        answer.on('end', () =>
          resolve({ status, body, policy: headers['content-security-policy'] as string }),
        );
      },
    );
    asking.on('error', reject);
    asking.end();
  });

/** Resolves with the event after so many. */
function follow(): { next: (like: RegExp) => Promise<RegExpExecArray>; close: () => void } {
  let text = '';
  let wake: () => void = () => undefined;
  const asking = request(`${origin}/events`, { agent: false }, (answer) =>
    answer.on('data', (chunk: Buffer) => {
      text += chunk.toString();
      wake();
    }),
  );
  asking.on('error', () => undefined);
  asking.end();
  const next = async (like: RegExp) => {
    for (;;) {
      const found = like.exec(text);
      text = found ? text.slice(found.index + found[0].length) : text;
      if (found) return found;
      await new Promise<void>((resolve) => (wake = resolve));
    }
  };
  return { next, close: () => asking.destroy() };
}

beforeAll(async () => {
  shop.write('mivket.yaml', 'slots: { column: { width: 300 } }\n');
  shop.write('in/wide.html', WIDE);
  shop.write('in/sound.html', SOUND);
  ({ child, done } = shop.start(['watch', 'in', ...ONCE]));
  lines = new Lines(child);
  [, origin = ''] = await lines.find(/The report is at (http:\/\/127\.0\.0\.1:\d+)\//);
  await lines.find(/sound\.html {2}CLEAR|wide\.html {2}HOLD/);
  await lines.find(/sound\.html {2}CLEAR|wide\.html {2}HOLD/);
});

afterAll(async () => {
  child.kill('SIGINT');
  await done;
  shop.close();
});

describe('what is saved', () => {
  const followed: { close: () => void }[] = [];
  afterEach(() => followed.splice(0).forEach((one) => one.close()));

  test('is looked at again, that alone, and the page is told', async () => {
    const events = follow();
    followed.push(events);
    await events.next(/event: report\ndata: 1\n/);
    expect((await get('/report')).body).toContain('<title>HOLD: 2 snippets</title>');
    shop.write('in/wide.html', SOUND.replace('May', 'June'));
    const [said] = await lines.find(/\d\d:\d\d {2}.*\n/);
    expect(said).toContain('wide.html  HOLD → CLEAR');
    await events.next(/event: state\ndata: CLEAR: 2 snippets\n/);
    await events.next(/event: report\ndata: 2\n/);
    const { body } = await get('/report');
    expect(body).toContain('<title>CLEAR: 2 snippets</title>');
    expect(body).toContain('data:image/png;base64,');
  });

  test('may be new, gone, or the house', async () => {
    shop.write('in/new.html', WIDE);
    await lines.find(/new\.html {2}HOLD/);
    rmSync(join(shop.folder, 'in/new.html'));
    shop.write('mivket.yaml', 'slots: { column: { width: 280 } }\n');
    await lines.find(/(sound|wide)\.html {2}CLEAR.*\n.*(sound|wide)\.html {2}CLEAR/);
    expect((await get('/report')).body).not.toContain('new.html');
  });

  test('may be wrong for a while, which is said', async () => {
    const events = follow();
    followed.push(events);
    shop.write('mivket.yaml', 'slots: 3\n');
    await events.next(/event: state\ndata: mivket\.yaml/);
    shop.write('mivket.yaml', 'slots: { column: { width: 290 } }\n');
    await lines.find(/(sound|wide)\.html {2}CLEAR.*\n.*(sound|wide)\.html {2}CLEAR/);
  });
});

test('the page is for this machine alone, and its own code is all that runs on it', async () => {
  expect((await get('/', 'rebound.example')).status).toBe(403);
  expect((await get('/report', 'rebound.example')).status).toBe(403);
  const { status, body, policy } = await get('/');
  expect(status).toBe(200);
  const nonce = /nonce-([^']+)'/.exec(policy ?? '')![1]!;
  expect(body).toContain(`<script nonce="${nonce}">`);
  expect(body.match(/<script/g)).toHaveLength(1);
  expect(body).toContain('sandbox="allow-same-origin"');
});

test.each([
  [[], 'There is nothing to watch: give files, folders or patterns.'],
  [['-'], '`watch` looks at files and folders, which are saved: found -.'],
  [['in', '--port', 'x'], '`--port` must be a number up to 65535, found “x”.'],
])('%j is wrong', async (args, words) => {
  const { code, err } = await shop.run(['watch', ...args]);
  expect([code, err]).toEqual([2, expect.stringContaining(words)]);
});

test('Ctrl-C ends it in good order', async () => {
  child.kill('SIGINT');
  const { code, err } = await done;
  expect([code, err.replace(/mivket: (The browser runs|mivket\.yaml).*\n/g, '')]).toEqual([0, '']);
  await expect(get('/')).rejects.toThrow();
});
