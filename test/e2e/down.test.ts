import { afterAll, beforeAll, describe, expect, test } from '@jest/globals';
import type { RunDocument, SnippetReport } from '../../src/core/run.js';
import { Workshop } from '../support/program.js';

const shop = new Workshop();

/** A page of several screens, whose head grows smaller by its own code. */
const PAGE = `<!doctype html><html lang="en"><meta name="viewport" content="width=device-width"><title>Seeds</title><style>body { margin: 0 } header { position: sticky; top: 0; background: #fff } .small nav { font-size: 12px }</style>
<header><nav><a href="/">Home</a></nav></header><h1>Seeds</h1><main data-mivket-slot="column"></main>
<h2>Summer</h2><p style="height: 1400px">Beans</p><p><a href="/desk">Members’ desk</a></p><p style="height: 1400px">Peas</p><h2 id="winter">Winter</h2>
<script>addEventListener("scroll", () => document.querySelector("header").classList.toggle("small", scrollY > 100))</script>`;

const onScroll = (script: string) =>
  `<p id="bed">Beans</p><script>const bed = document.getElementById("bed"); addEventListener("scroll", () => { ${script} })</script>`;

/** What is met only further down, with the finding that tells of it. */
const FAULTY: Record<string, [id: string, code: string]> = {
  wide: ['page-scrolls-sideways', onScroll('bed.style.width = scrollY > 200 ? "500px" : ""')],
  middle: [
    'page-scrolls-sideways',
    onScroll('bed.style.width = scrollY > 900 && scrollY < 1500 ? "500px" : ""'),
  ],
  timeline: [
    'page-scrolls-sideways',
    '<style>@keyframes grow { 50% { width: 500px } } #bed { width: 100px; animation: grow linear; animation-timeline: scroll() }</style><p id="bed">Beans</p>',
  ],
  veil: [
    'covers-host-controls',
    `<div id="veil" style="position: fixed; inset: 0; display: none">Join</div><script>addEventListener("scroll", () => { document.getElementById("veil").style.display = scrollY > 300 ? "block" : "none" })</script>`,
  ],
  slides: [
    'covers-host-controls',
    `<style>#veil { position: fixed; inset: 0; transform: translateY(-100%); transition: transform .4s } #veil.on { transform: none }</style><div id="veil">Join</div><script>addEventListener("scroll", () => document.getElementById("veil").classList.toggle("on", scrollY > 300))</script>`,
  ],
  hides: [
    'host-content-damaged',
    onScroll(
      'document.querySelector("h2").style.visibility = scrollY > 300 ? "hidden" : "visible"',
    ),
  ],
  seen: [
    'covers-host-controls',
    `<div id="veil" style="position: fixed; inset: 0; display: none">Join</div><script>addEventListener("load", () => new IntersectionObserver(([one]) => { document.getElementById("veil").style.display = one.isIntersecting ? "block" : "none" }, { rootMargin: "1400px" }).observe(document.getElementById("winter")))</script>`,
  ],
};

/** What everybody has on a long page. */
const SOUND: Record<string, string> = {
  bar: `<style>#bar { position: fixed; left: 0; right: 0; bottom: 0; height: 40px; margin: 0; display: none; background: #fff }</style><p id="bar">Join</p><script>addEventListener("scroll", () => { document.getElementById("bar").style.display = scrollY > 200 ? "block" : "none" })</script>`,
  // Higher than what is scrolled at a time.
  half: `<style>#bar { position: fixed; left: 0; right: 0; bottom: 0; height: 65vh; margin: 0; display: none; background: #fff }</style><p id="bar">Join</p><script>addEventListener("scroll", () => { document.getElementById("bar").style.display = scrollY > 200 ? "block" : "none" })</script>`,
  top: `<button id="up" type="button" style="position: fixed; right: 8px; bottom: 8px; width: 48px; height: 48px; display: none">Up</button><script>const up = document.getElementById("up"); up.onclick = () => scrollTo(0, 0); addEventListener("scroll", () => { up.style.display = scrollY > 400 ? "block" : "none" })</script>`,
  shows: `<style>.beds p { opacity: 0; transition: opacity .5s } .beds p.on { opacity: 1 }</style><div class="beds"><p>Beans</p><p>Peas</p></div><script>const seen = new IntersectionObserver((all) => all.forEach((one) => one.isIntersecting && one.target.classList.add("on"))); document.querySelectorAll(".beds p").forEach((one) => seen.observe(one))</script>`,
  progress:
    '<style>@keyframes grow { from { scale: 0 1 } to { scale: 1 1 } } #bar { position: fixed; left: 0; top: 0; width: 100%; height: 3px; background: #2d6a4f; transform-origin: 0 0; animation: grow linear; animation-timeline: scroll(); pointer-events: none }</style><div id="bar"></div><p>Beans</p>',
};

let faulty: RunDocument;
let sound: RunDocument;

beforeAll(async () => {
  shop.write('page.html', PAGE);
  shop.write('mivket.yaml', 'page: page.html\nslots: { column: {} }');
  for (const [name, [, code]] of Object.entries(FAULTY)) shop.write(`faulty/${name}.html`, code);
  for (const [name, code] of Object.entries(SOUND)) shop.write(`sound/${name}.html`, code);
  faulty = (await shop.audit(['faulty', '--width', '390'])).document;
  sound = (await shop.audit(['sound', '--width', '390,1280', '--no-ranges'])).document;
}, 240_000);

afterAll(() => shop.close());

function pick({ snippets }: RunDocument, name: string): SnippetReport {
  return snippets.find((one) => one.name.endsWith(`${name}.html`))!;
}

describe('what is met further down the page', () => {
  test.each(Object.entries(FAULTY))('is found: %s', (name, [id]) => {
    const snippet = pick(faulty, name);
    expect(snippet.findings.map((one) => one.id)).toContain(id);
    const { seen, message } = snippet.findings.find((one) => one.id === id)!;
    const [{ scrolled }] = seen as [SnippetReport['findings'][number]['seen'][number]];
    expect(scrolled).toBeGreaterThan(0);
    expect(message).toContain(`It shows once the page is scrolled down, by ${scrolled} px.`);
    expect(snippet.verdict).toBe('hold');
  });

  test.each(Object.keys(SOUND))('is no fault where it is none: %s', (name) => {
    const { findings, verdict, gaps } = pick(sound, name);
    const told = findings.map(({ id, message }) => `${id}: ${message}`);
    expect({ told, gaps, verdict }).toEqual({ told: [], gaps: [], verdict: 'clear' });
  });
});
