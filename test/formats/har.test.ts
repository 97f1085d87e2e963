import { expect, test } from '@jest/globals';
import { formatHarEnd, formatHarEntry, formatHarHead, getPageId } from '../../src/formats/har.js';
import { parseHar } from '../../src/formats/har-read.js';
import type { Exchange } from '../../src/core/recording/exchange.js';
import { makeExchange } from '../support/exchange.js';

function formatHar(exchanges: Exchange[]): string {
  const loads = new Map(exchanges.map((one) => [getPageId(one.load), one]));
  return formatHarHead('1.0') + exchanges.map(formatHarEntry).join(',') + formatHarEnd(loads);
}

test('what is written is read back as it was', () => {
  const exchanges = [
    makeExchange({ load: { snippet: 'map.html', view: 'a at b' }, text: 'seed = "für alle"' }),
    makeExchange({ body: btoa('\x00\xff\xfe'), headers: [['content-type', 'image/png']], size: 3 }),
    makeExchange({ coded: btoa('packed'), headers: [['content-encoding', 'br']], text: 'plain' }),
    makeExchange({ method: 'POST', requestBody: btoa('\xff'), status: 204 }),
    makeExchange({ status: 206, left: 'media', body: null, size: 90_000 }),
    makeExchange({
      method: 'CONNECT',
      status: 0,
      headers: [],
      body: null,
      refused: { kind: 'private-address', words: 'the loopback' },
    }),
  ];
  const text = formatHar(exchanges);
  expect(parseHar(text, 'a.har')).toEqual(exchanges);
  const { log } = JSON.parse(text) as { log: { pages: { id: string }[]; entries: unknown[] } };
  expect(log.pages.map(({ id }) => id)).toEqual(['map.html, a at b', ', ']);
  expect(log.entries[2]).toMatchObject({
    time: 5,
    response: { content: { text: 'plain', size: 5, compression: 0 }, bodySize: 5 },
  });
});

/** An entry with the least that other programs write. */
function entry(response: object, url = 'https://tally.example/a.js') {
  return { request: { method: 'GET', url, headers: [] }, response: { status: 200, ...response } };
}

test('recordings of other programs are accepted, with what they lack', () => {
  const har = {
    log: {
      entries: [
        entry({
          headers: [{ name: 'Content-Type', value: 'text/css; charset=iso-8859-1' }],
          content: { mimeType: 'text/css', text: 'p { content: "ü" }' },
          bodySize: -1,
        }),
        entry({ headers: [], content: { text: 'AP8=', encoding: 'base64' } }),
        entry({ headers: [{ name: 'content-type', value: 'video/mp4' }], content: { size: 9 } }),
        entry({ headers: [], content: { size: 9 } }),
        entry({ headers: [], content: { size: 0 } }),
        entry({}, 'data:text/css,p{}'),
      ],
    },
  };
  const read = parseHar(`\uFEFF${JSON.stringify(har)}`, 'other.har');
  expect(read.map(({ body, left }) => [body, left])).toEqual([
    [Buffer.from('p { content: "ü" }').toString('base64'), null],
    ['AP8=', null],
    [null, 'media'],
    [null, 'too-large'],
    ['', null],
  ]);
  // Its text stands in the archive as Unicode: what it was sent as no longer holds.
  expect(read[0]!.headers).toEqual([['Content-Type', 'text/css; charset=utf-8']]);
});

test.each([
  ['{', /^a\.har is not JSON: /],
  ['[]', /^a\.har is no HTTP Archive: it must have a list `log\.entries`\.$/],
  ['{"log":{"entries":[{"request":{}}]}}', /`log\.entries\[0\]\.request\.method` is missing/],
])('what is none is told in a sentence: %s', (text, words) => {
  expect(() => parseHar(text, 'a.har')).toThrow(words);
});
