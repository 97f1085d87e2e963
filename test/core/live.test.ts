import { describe, expect, test } from '@jest/globals';
import { findCopies } from '../../src/core/live/copies.js';
import type { Cleared } from '../../src/core/live/live.js';
import { findStanding, type SeenPage } from '../../src/core/live/standing.js';
import { makeLoads } from '../support/document.js';
import { readMarkup } from '../../src/core/markup/markup.js';

const base = 'https://www.seedlibrary.example/visit/';
const wrap = (body: string) =>
  `<main class="card"><h1>Visit</h1>${body}</main><p>Ask at the desk</p>`;
const find = (snippet: string, body: string, asSent = true) =>
  findCopies(readMarkup(snippet), readMarkup(wrap(body)), { base, asSent }).map(({ changes }) =>
    changes.map(({ what, tag, attribute }) => [what, tag, attribute].filter(Boolean).join(' ')),
  );

const FRAME =
  '<iframe src="https://maps.fernmap.example/embed/x?a=1&amp;b=2" title="Map"></iframe>';
const CARD =
  '<div class="card"><h2>Runner beans</h2><img src="/beans.png" alt="Beans"><img src="/beans.png" alt=""><p>Sow them in May, in rows.</p></div>';

describe('a snippet on a page', () => {
  test.each([
    ['as it was', FRAME, FRAME, [[]]],
    ['written otherwise', FRAME, FRAME.replace('https:', '').replace('&amp;', '&'), [[]]],
    ['twice', FRAME, `${FRAME}<hr>${FRAME}`, [[], []]],
    [
      'twice, one right behind the other',
      `<h2>Find us</h2>${FRAME}`,
      `<h2>Find us</h2>${FRAME}<hr><h2>Find us</h2>${FRAME}`,
      [[], []],
    ],
    ['with an element that it has twice itself', CARD, CARD, [[]]],
    ['nowhere, though others are of its class', CARD, '<div class="card"><p>Peas</p></div>', []],
    ['of a short word', '<p>Sow</p>', '<p>Peas</p><p>Sow</p>', [[]]],
    ['words alone', 'Sow runner  beans', '<p>Now: Sow runner beans</p>', [[]]],
    [
      'from a host of the house',
      FRAME,
      '<iframe src="https://cdn.seedlibrary.example/embed/x" title="Map"></iframe>',
      [['attribute-changed iframe src']],
    ],
    [
      'styled otherwise',
      '<p id="a" style="color:red;top:0">A</p>',
      '<p id="a" style="color: red; top: 0;">A</p>',
      [[]],
    ],
    [
      'with parts lost, put in and reworded',
      CARD,
      '<div class="card"><h2>Runner beans</h2><p><img src="/beans.png" alt="Beans"></p><p>Sow them in June, in rows.</p></div>',
      [['element-missing img', 'text-changed p', 'element-added p']],
    ],
  ])('%s', (_, snippet, body, told) => {
    expect(find(snippet, body)).toEqual(told);
  });

  test('what its own code changes in it once it stands is no change; what is taken from it is', () => {
    const now = FRAME.replace('title="Map"', 'style="height: 90px" class="ready"');
    expect(find(FRAME, now, false)).toEqual([['attribute-missing iframe title']]);
    const restyled = '<p id="a" style="height: 9px">B</p>';
    expect(find('<p id="a" style="height: 0">A</p>', restyled, false)).toEqual([[]]);
  });

  test('many elements take no time that grows with their square', () => {
    const many = Array.from({ length: 3000 }, (_, i) => `<b class="x">${i}</b>`).join('');
    const others = Array.from({ length: 3000 }, (_, i) => `<b class="x">n${i}</b>`).join('');
    expect(find(many, others)).toEqual([]);
    expect(find(many, many)).toEqual([[]]);
  });
});

const cleared = (text: string, given: Partial<Cleared> = {}): Cleared => ({
  ...{ name: 'a.html', text, findings: [], hosts: [] },
  ...given,
});
const stand = (
  one: Cleared,
  sent: string,
  stood: [string, boolean][][] = [[[sent, false]]],
  report: SeenPage['report'] = { findings: [], loads: null, contacts: [] },
) =>
  findStanding(one, {
    address: base,
    sent: readMarkup(sent),
    stood: stood.map((load) =>
      load.map(([text, inFrame]) => ({ markup: readMarkup(text), inFrame })),
    ),
    report,
  });

test('a copy that code adds to one that was sent is a second one; the same one in several loads is not', () => {
  const whole = wrap(FRAME);
  const tell = (...loads: [string, boolean][][]) => {
    const { state, copies } = stand(cleared(FRAME), whole, loads);
    return [state, copies.map(({ where }) => where).join()];
  };
  expect(tell([[whole, false]], [[whole, false]])).toEqual(['as-cleared', 'sent']);
  expect(tell([[whole + FRAME, false]])).toEqual(['doubled', 'sent,added']);
  // What is in a shadow root is no part of the document's own text.
  expect(
    tell([
      [whole, false],
      [FRAME, false],
    ]),
  ).toEqual(['doubled', 'sent,added']);
  expect(
    tell([
      [whole, false],
      [FRAME, true],
    ]),
  ).toEqual(['doubled', 'sent,frame']);
  const framed = stand(cleared(FRAME), '<p>Visit</p>', [[[FRAME, true]], [[FRAME, true]]]);
  expect(framed.state).toBe('as-cleared');
});

test('whom it contacts anew is told of what stands in it, and of nothing else on its line', () => {
  const sent = wrap(`${FRAME}<script src="https://tally.example/a.js"></script>`);
  const at = sent.indexOf('<iframe');
  const requests = [
    { offset: at, host: 'maps.fernmap.example' },
    { offset: null, by: 0, host: 'tiles.fernmap.example' },
    { offset: sent.indexOf('<script'), host: 'tally.example' },
  ];
  const loads = makeLoads(requests.map((one) => ({ ...one, address: `https://${one.host}/` })));
  const known = cleared(FRAME, { hosts: ['maps.fernmap.example'] });
  const { behaviour } = stand(known, sent, [], { findings: [], loads, contacts: [] });
  expect(behaviour!.newHosts).toEqual(['tiles.fernmap.example']);
});

test('code that visitors read as words is escaped; code in a script is not', () => {
  const escaped = wrap(`<pre>${FRAME.replaceAll('<', '&lt;')}</pre>`);
  expect(stand(cleared(FRAME), escaped).state).toBe('escaped');
  const script = wrap(`<script>const map = '${FRAME.replace('</', '<\\/')}'</script>`);
  expect(stand(cleared(FRAME), script).state).toBe('missing');
});

test('whom it contacted and the page does not is told; nothing where nobody wrote it down', () => {
  const gone = stand(cleared(FRAME, { hosts: ['maps.fernmap.example'] }), wrap(FRAME));
  expect(gone.behaviour).toMatchObject({ known: true, goneHosts: ['maps.fernmap.example'] });
  const unknown = stand(cleared(FRAME, { hosts: null, findings: null }), wrap(FRAME));
  expect(unknown.behaviour!.known).toBe(false);
});
