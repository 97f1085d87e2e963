import { afterAll, beforeAll, describe, expect, test } from '@jest/globals';
import { readFileSync } from 'node:fs';
import { createServer, type Server } from 'node:http';
import { join } from 'node:path';
import type { RunDocument, SnippetReport } from '../../src/core/run.js';
import { listen } from '../support/listen.js';
import { Workshop } from '../support/program.js';

const shop = new Workshop();
let vendor: Server;

const WIDE = 'bed.style.width = "2500px"';
/** What a vendor answers with, by its path. */
const FILES: Record<string, [type: string, text: string]> = {
  '/dark.js': [
    'text/javascript',
    `if (matchMedia("(prefers-color-scheme: dark)").matches) ${WIDE}`,
  ],
  '/calm.css': ['text/css', '@media (prefers-reduced-motion: reduce) { #bed { width: 2500px } }'],
  '/again.js': ['text/javascript', `if (localStorage.been) ${WIDE}; localStorage.been = 1`],
};

const BED = '<p id="bed">Beans</p>';
const SNIPPETS: Record<string, string> = {
  script: `${BED}<script src="https://tally.example/dark.js"></script>`,
  sheet: `<link rel="stylesheet" href="https://tally.example/calm.css">${BED}`,
  again: `${BED}<script src="https://tally.example/again.js"></script>`,
  page: '<div style="background: #fff"><p style="color: #1d1b18">Beans</p></div><p class="lead">Peas</p>',
};

/** A page with a dark scheme of its own, whose leads are hard to read in it. */
const PAGE =
  '<!doctype html><html lang="en"><meta name="viewport" content="width=device-width"><title>Seeds</title><style>@media (prefers-color-scheme: dark) { body { background: #1d1b18; color: #fff } .lead { color: #24211e; background: #1d1b18 } }</style><h1>Seeds</h1><main data-mivket-slot="column"></main>';

let told: RunDocument;
let text: string;

beforeAll(async () => {
  vendor = createServer(({ url = '' }, answer) => {
    const [type, body] = FILES[url] ?? ['text/plain', ''];
    answer.setHeader('content-type', type).end(body);
  });
  const port = await listen(vendor);
  const reroute = `reroute: { "tally.example": "http://127.0.0.1:${port}" }\n`;
  shop.write('host.html', PAGE);
  shop.write('mivket.yaml', `page: host.html\nslots: { column: {} }\n${reroute}`);
  for (const [name, code] of Object.entries(SNIPPETS)) shop.write(`in/${name}.html`, code);
  const args = ['audit', 'in', '--width', '390,1280', '--save', 'run.json'];
  text = (await shop.run(args)).out;
  told = JSON.parse(readFileSync(join(shop.folder, 'run.json'), 'utf8')) as RunDocument;
});

afterAll(() => {
  vendor.close();
  shop.close();
});

function getReport(name: string): SnippetReport {
  return told.snippets.find((one) => one.name === `${name}.html`)!;
}

describe('what is asked for and is no window of the house', () => {
  test.each([
    ['script', 'in the dark scheme'],
    ['sheet', 'for visitors who want less motion'],
    ['again', 'on a second visit'],
  ])('by a file that is loaded: %s', (name, condition) => {
    const wide = getReport(name).findings.find(({ id }) => id === 'page-scrolls-sideways');
    expect(wide?.message).toMatch(new RegExp(` It is so ${condition}`));
    const places = wide!.seen.map((one) => `${one.width} ${one.condition}`);
    expect(places.every((one) => one.includes(condition))).toBe(true);
    expect(new Set(wide!.seen.map(({ width }) => width))).toEqual(new Set([390, 1280]));
  });

  test('the scheme also by the page around', () => {
    const { renders } = getReport('page');
    expect(new Set(renders.map(({ scheme }) => scheme))).toEqual(new Set(['light', 'dark']));
  });

  test('stands in a row of its own', () => {
    expect(text).toMatch(/column, on a second visit +■ +■/);
  });
});
