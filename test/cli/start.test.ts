import { afterAll, beforeEach, expect, test } from '@jest/globals';
import {
  chmodSync,
  existsSync,
  mkdirSync,
  mkdtempSync,
  readdirSync,
  readFileSync,
  rmSync,
  utimesSync,
  writeFileSync,
} from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { Chunks } from '../../src/cli/start/chunks.js';
import { CodeCache } from '../../src/cli/start/code-cache.js';

const folder = mkdtempSync(join(tmpdir(), 'mivket-start-'));
const bundle = join(folder, 'bundle');
const home = join(folder, 'home');
const cache = join(home, 'mivket');

afterAll(() => rmSync(folder, { recursive: true }));

beforeEach(() => {
  rmSync(home, { recursive: true, force: true });
  mkdirSync(bundle, { recursive: true });
  write('1');
});

/** Of the same length each time: that is all by which V8 tells one text from another. */
function write(digit: string): void {
  writeFileSync(
    join(bundle, 'bed.cjs'),
    `exports.getRow = () => [${digit}, require("./soil.js").depth, typeof require("node:fs").stat, moduleUrl, /[″′]/.source.length];`,
  );
  writeFileSync(join(bundle, 'soil.cjs'), 'exports.depth = 30; require("./bed.js");');
}

const open = (build = 'a', program = 'bed') =>
  new Chunks(bundle, new CodeCache(cache, build, program));

function getRow(chunks: Chunks): unknown[] {
  return (chunks.load('bed') as { getRow(): unknown[] }).getRow();
}

/** Loads, uses, keeps; what the first row has. */
function start(build?: string, program?: string): unknown {
  const chunks = open(build, program);
  const [digit] = getRow(chunks);
  chunks.keep(false);
  return digit;
}

const list = () => readdirSync(join(cache, 'code'));
const getKeptPath = (name = 'bed', program = 'bed') =>
  join(cache, 'code', list()[0]!, program, name);

test('a chunk is given other chunks, Node’s modules and its own place; each runs once', () => {
  const chunks = open();
  expect(getRow(chunks)).toEqual([1, 30, 'function', `file://${bundle}/bed.cjs`, 4]);
  expect(chunks.load('bed')).toBe(chunks.load('bed'));
});

test('what was compiled is taken the next time, by the same program of the same build alone', () => {
  expect(start()).toBe(1);
  write('2');
  expect([start(), start('b'), start('a', 'soil')]).toEqual([1, 2, 2]);
});

test('what is not whole, or could be somebody else’s, is not taken', () => {
  start();
  const kept = readFileSync(getKeptPath());
  write('2');
  for (const spoil of [() => (kept[kept.length >> 1]! ^= 1), () => kept.fill(0, 10)]) {
    spoil();
    writeFileSync(getKeptPath(), kept);
    expect(getRow(open())[0]).toBe(2);
  }
  writeFileSync(getKeptPath(), '');
  // It is kept anew then.
  expect(start()).toBe(2);
  write('3');
  expect(start()).toBe(2);
  chmodSync(cache, 0o777);
  expect(start()).toBe(3);
});

test('it is kept for its owner alone, and nowhere where folders cannot be made', () => {
  start();
  expect(existsSync(getKeptPath())).toBe(true);
  rmSync(home, { recursive: true });
  writeFileSync(home, '');
  expect(start()).toBe(1);
  const nowhere = new Chunks(bundle, new CodeCache('/proc/none/mivket', 'a', 'bed'));
  getRow(nowhere);
  expect(() => nowhere.keep(false)).not.toThrow();
});

test('of what has grown meanwhile more is kept, where that is looked for', () => {
  const many = Array.from({ length: 200 }, (_, i) => `exports.f${i} = (a) => a + ${i};`).join('');
  writeFileSync(join(bundle, 'bed.cjs'), many);
  const chunks = open();
  chunks.load('bed');
  chunks.keep(false);
  const { length } = readFileSync(getKeptPath());
  for (const grown of [false, true]) {
    const more = open();
    for (const run of Object.values(more.load('bed')) as ((a: number) => number)[]) run(1);
    more.keep(grown);
    const kept = readFileSync(getKeptPath()).length;
    expect(kept > length * 1.25).toBe(grown);
  }
});

test('of many builds the last eight are remembered', () => {
  for (let i = 0; i < 12; i++) {
    start(`build${i}`);
    const newest = list().find((name) => name.startsWith(`build${i}-`))!;
    utimesSync(join(cache, 'code', newest), i, i);
  }
  const numbers = list().map((name) => Number(/\d+/.exec(name)![0]));
  expect(numbers.sort((a, b) => a - b)).toEqual([4, 5, 6, 7, 8, 9, 10, 11]);
});
