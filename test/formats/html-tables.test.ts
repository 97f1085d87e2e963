import { expect, test } from '@jest/globals';
import type { RenderReport, SnippetReport } from '../../src/core/run.js';
import { formatHtmlMedia } from '../../src/formats/html/media.js';
import { drawWeights as draw } from '../../src/formats/html/weights.js';
import { hasWeights } from '../../src/formats/weights.js';
import { makeRender, makeSnippet } from '../support/document.js';
import { getAttribute, getText, listNodes } from '../support/nodes.js';

const contact = (host: string, wire: number): SnippetReport['contacts'][number] => ({
  ...{ host, site: host, requests: 1, wire, unpacked: wire, scripts: 0, stored: 0 },
});

test('how much comes from each host is drawn, the heaviest first, in the colours of the page', () => {
  const heavy = contact('a-very-long-name-of-a-host.tallyroot.example', 300_000);
  const drawn = String(draw([contact('tally.example', 100_000), heavy, contact('x.example', 0)]));
  const nodes = listNodes(drawn);
  const [chart] = nodes.filter((node) => getAttribute(node, 'class') === 'chart');
  expect(getAttribute(chart!, 'aria-label')).toBe(
    'Weight by host: …e-of-a-host.tallyroot.example 300 kB and tally.example 100 kB',
  );
  expect(nodes.filter(({ tagName }) => tagName === 'text').map(getText)).toEqual([
    '…e-of-a-host.tallyroot.example',
    'tally.example',
    '300 kB',
    '100 kB',
  ]);
  const widths = nodes
    .filter((node) => getAttribute(node, 'fill') === 'var(--advice)')
    .map((node) => Number(/l([\d.]+) 0/.exec(getAttribute(node, 'd')!)![1]));
  expect(widths[0]! / widths[1]!).toBeCloseTo(3, 1);
  expect(drawn).not.toMatch(/#00000|ecmeta|<style|<script|class="zr/);
  expect(
    getAttribute(
      nodes.find(({ tagName }) => tagName === 'svg')!,
      'width',
    ),
  ).toBeNull();
});

test('of one host there is nothing to draw; of very many the rest is one bar', () => {
  const one = [contact('a.example', 9), contact('b.example', 0)];
  expect([hasWeights({ contacts: one }), draw(one)]).toEqual([false, null]);
  const many = Array.from({ length: 15 }, (_, i) => contact(`h${i}.example`, 15_000 - i * 1000));
  expect(hasWeights({ contacts: many })).toBe(true);
  const texts = listNodes(String(draw(many))).filter(({ tagName }) => tagName === 'text');
  expect(texts.map(getText)).toEqual(
    expect.arrayContaining(['h11.example', '3 more hosts', '6 kB']),
  );
  expect(texts.map(getText)).not.toContain('h12.example');
});

test('what can play is told file by file: what was asked, and what happened', () => {
  const film: RenderReport['media'][number] = {
    ...{ tag: 'video', line: 2, address: 'https://films.example/in/glass<house.mp4' },
    ...{ width: 320, height: 180, autoplay: true, muted: true, started: true },
    ...{ sound: null, duration: null },
  };
  const song = { ...film, tag: 'audio', line: 5, autoplay: false, started: false, address: '' };
  const render = (width: number, ...media: RenderReport['media']) => ({
    ...makeRender('column', width, null),
    media,
  });
  const renders = [
    render(320, { ...film, started: false }, song),
    render(768, { ...film, sound: false, duration: 75.4 }, song),
    render(1280, { ...film, started: true }, song),
    { ...render(1280, { ...film, line: 9 }), variant: 'reduced-motion' as const },
  ];
  const nodes = listNodes(String(formatHtmlMedia(makeSnippet({ renders }))));
  const texts = (name: string) => nodes.filter(({ tagName }) => tagName === name).map(getText);
  expect(texts('summary')).toEqual(['What can play: 1 film and 1 sound']);
  expect(texts('td')).toEqual([
    ...['film glass%3Chouse.mp4, line 2', 'to start by itself, muted'],
    ...['it started at 768 and 1280 px, and not at 320 px', 'none', '1:15'],
    ...['sound, line 5', 'nothing', 'it did not start', 'not known', 'not known'],
  ]);
  expect(formatHtmlMedia(makeSnippet())).toBeNull();
});
