import { expect, test } from '@jest/globals';
import { isMediaType, type Exchange } from '../../src/core/recording/exchange.js';
import { Recording } from '../../src/core/recording/recording.js';
import { makeExchange } from '../support/exchange.js';

const PHONE = { snippet: 'map.html', view: 'article at phone' };
const DESKTOP = { snippet: 'map.html', view: 'article at desktop' };
const OTHER = { snippet: 'bean.html', view: 'article at phone' };
const url = 'https://tally.example/count';

function ask(exchanges: Exchange[], load: Exchange['load'], nth = 0, to = url, body?: string) {
  const found = new Recording(exchanges).find(load, nth, {
    method: 'GET',
    url: to,
    body: body ?? null,
  });
  return found && atob(found.body!);
}

test('a load is answered by its own answers, in their order; the last stays', () => {
  const list = [
    makeExchange({ url, load: PHONE, text: '1' }),
    makeExchange({ url, load: PHONE, text: '2' }),
    makeExchange({ url, load: DESKTOP, text: '3' }),
  ];
  expect([0, 1, 2].map((nth) => ask(list, PHONE, nth))).toEqual(['1', '2', '2']);
  expect(ask(list, DESKTOP)).toBe('3');
});

test('else by those of its snippet, else by any', () => {
  const list = [
    makeExchange({ url, load: OTHER, text: 'other' }),
    makeExchange({ url, load: PHONE, text: 'phone' }),
  ];
  expect(ask(list, DESKTOP)).toBe('phone');
  expect(ask(list, { snippet: 'new.html', view: 'article at phone' })).toBe('other');
});

test('a query that differs in its values is answered by the likest; another address is not', () => {
  const list = [
    makeExchange({ url: `${url}?id=1&at=100`, text: 'one' }),
    makeExchange({ url: `${url}?id=2&at=100`, text: 'two' }),
  ];
  expect(ask(list, PHONE, 0, `${url}?id=2&at=999`)).toBe('two');
  expect(ask(list, PHONE, 0, `${url}?id=2`)).toBeNull();
  expect(ask(list, PHONE, 0, 'https://tally.example/other')).toBeNull();
});

test('what is sent along tells questions apart', () => {
  const list = [
    makeExchange({ url, requestBody: btoa('a'), text: 'for a' }),
    makeExchange({ url, requestBody: btoa('b'), text: 'for b' }),
  ];
  expect(ask(list, PHONE, 0, url, btoa('b'))).toBe('for b');
});

test('a host is refused as a whole only where nothing of it ever came', () => {
  const refused = { kind: 'unknown-name' as const, words: 'no address is known for the name' };
  const gone = makeExchange({ method: 'CONNECT', url: 'https://gone.example/', refused });
  const recording = new Recording([gone, makeExchange({ url }), { ...gone, url }]);
  expect(recording.getRefusal('gone.example')).toEqual(refused);
  expect(recording.getRefusal('tally.example')).toBeUndefined();
  expect(recording.has('never.example')).toBe(false);
});

test('lists of pieces are no media', () => {
  expect(
    ['video/mp4', 'audio/ogg; codecs=opus', 'application/vnd.apple.mpegurl', 'audio/mpegurl'].map(
      isMediaType,
    ),
  ).toEqual([true, true, false, false]);
});
