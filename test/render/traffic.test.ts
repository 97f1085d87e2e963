import { beforeEach, describe, expect, test } from '@jest/globals';
import { PassThrough } from 'node:stream';
import type { FrameFact } from '../../src/core/evidence.js';
import type { GateLog, GateRefusal } from '../../src/render/gate/log.js';
import { Connection, type Session } from '../../src/render/chromium/connection.js';
import { toRequestFacts } from '../../src/render/collect/requests.js';
import { ServedPage } from '../../src/render/page/served-page.js';
import { followTraffic } from '../../src/render/chromium/traffic.js';
import { RequestLog } from '../../src/render/page/request-log.js';

const PAGE = 'https://www.seedlibrary.example/';
const SNIPPET = '<p>Sow</p>\n<script src="https://tally.example/a.js"></script>';
const page = new ServedPage({
  host: { slots: ['article'], pieces: ['<!doctype html>\n<main>', '</main>'] },
  snippets: [{ slot: 'article', text: SNIPPET }],
});

let log: RequestLog;
let main: Session;
let frame: Session;

beforeEach(() => {
  const connection = new Connection(new PassThrough(), new PassThrough());
  [main, frame] = [connection.session('M'), connection.session('F')];
  log = new RequestLog();
  followTraffic(main, log);
  followTraffic(frame, log);
});

function start(session: Session, requestId: string, url: string, more: object = {}): void {
  session.emit('Network.requestWillBeSent', {
    requestId,
    request: { url },
    type: 'Script',
    frameId: 'main',
    initiator: { type: 'other' },
    ...more,
  });
}

function finish(session: Session, requestId: string, encodedDataLength: number): void {
  session.emit('Network.loadingFinished', { requestId, encodedDataLength });
}

function explain(
  more: { frames?: FrameFact[]; log?: Partial<GateLog>; hostRequests?: string[] } = {},
) {
  return toRequestFacts(log.requests, {
    page,
    of: 0,
    pageAddress: PAGE,
    mainFrame: 'main',
    frames: more.frames ?? [],
    log: { refusals: [], entries: [], ...more.log },
    hostChanges: false,
    changes: true,
    hostRequests: new Set(more.hostRequests ?? []),
  });
}

describe('the traffic log', () => {
  test('counts bytes on the wire and unpacked', () => {
    start(main, '1', 'https://tally.example/a.js');
    main.emit('Network.responseReceived', {
      requestId: '1',
      response: { status: 200, headers: { 'Content-Type': 'Text/JavaScript; charset=utf-8' } },
      type: 'Script',
    });
    main.emit('Network.dataReceived', { requestId: '1', dataLength: 900 });
    main.emit('Network.dataReceived', { requestId: '1', dataLength: 100 });
    finish(main, '1', 420);
    expect(log.requests).toMatchObject([{ status: 200, wire: 420, unpacked: 1000, done: true }]);
    expect(log.requests[0]!.contentType).toBe('text/javascript');
  });

  test('a request that turns out to be a line that stays open is waited for no more', async () => {
    start(main, '1', 'https://tally.example/events', { type: 'Fetch' });
    let idle = false;
    const waiting = log.whenIdle().then(() => (idle = true));
    expect([log.pending, log.open]).toEqual([1, 0]);
    main.emit('Network.responseReceived', {
      requestId: '1',
      response: { status: 200, headers: { 'Content-Type': 'text/event-stream' } },
      type: 'Fetch',
    });
    await waiting;
    expect([idle, log.pending, log.open, log.requests[0]!.type]).toEqual([true, 0, 1, 'stream']);
  });

  test.each<[string, Record<string, string>, number, number]>([
    ['as its header says', { 'content-length': '300' }, 357, 321],
    ['as it was unpacked, where it came unpacked', {}, 1020, 1000],
    ['as the browser counts, where it was packed', { 'content-encoding': 'br' }, 357, 357],
    ['as the browser counts, where not all of it came', { 'content-length': '300' }, 40, 40],
  ])('counts a body %s, with its headers as they are written', (_, headers, came, wire) => {
    start(main, '1', 'https://tally.example/a.js');
    main.emit('Network.responseReceived', {
      requestId: '1',
      response: { status: 200, headers },
      type: 'Script',
    });
    main.emit('Network.dataReceived', { requestId: '1', dataLength: 1000 });
    finish(main, '1', came);
    expect(log.requests[0]!.wire).toBe(wire);
  });

  test.each([
    [{ errorText: 'net::ERR_FAILED', corsErrorStatus: {} }, 'not-shared', 404],
    [{ errorText: 'net::ERR_BLOCKED_BY_ORB' }, 'other-kind', 404],
    [{ errorText: '', blockedReason: 'mixed-content' }, 'mixed-content', null],
    [{ errorText: 'net::ERR_ABORTED', canceled: true }, 'cancelled', null],
    [{ errorText: 'net::ERR_TIMED_OUT' }, 'no-answer', null],
    [{ errorText: 'net::ERR_TOO_MANY_REDIRECTS' }, 'endless-redirects', null],
  ])('what failed says why: %j', (event, failed, status) => {
    const headers = { 'content-type': 'text/html' };
    const answer = (requestId: string, statusCode: number) =>
      main.emit('Network.responseReceivedExtraInfo', { requestId, headers, statusCode });
    const fail = (requestId: string) => main.emit('Network.loadingFailed', { requestId, ...event });
    for (const id of ['1', '2', '3']) start(main, id, 'https://tally.example/a.json');
    answer('1', 404);
    fail('1');
    // The two are told by different processes, in either order; so is what a redirect was answered with.
    fail('2');
    answer('2', 404);
    answer('3', 404);
    answer('3', 302);
    fail('3');
    answer('4', 404);
    start(main, '4', 'https://tally.example/a.json');
    fail('4');
    const told = { failed, status, contentType: 'text/html' };
    expect(log.requests).toMatchObject([told, told, told, told]);
  });

  test('a hop of a redirect is a request of its own', () => {
    start(main, '1', 'https://tally.example/old.js');
    const redirectResponse = { status: 302, encodedDataLength: 90 };
    start(main, '1', 'https://tally.example/new.js', { redirectResponse });
    finish(main, '1', 500);
    expect(log.requests.map(({ address, status, wire }) => [address, status, wire])).toEqual([
      ['https://tally.example/new.js', null, 500],
      ['https://tally.example/old.js', 302, 90],
    ]);
  });

  test('ids are a session’s own, but for documents that change their process', () => {
    const id = 'A'.repeat(32);
    start(main, '1', 'https://tally.example/a.js');
    start(frame, '1', 'https://tally.example/b.js');
    start(main, id, 'https://maps.fernmap.example/', { type: 'Document', frameId: 'child' });
    finish(frame, id, 70);
    expect(log.requests).toHaveLength(3);
    expect(log.requests[2]).toMatchObject({ wire: 70, done: true });
  });

  test('idle is when nothing is under way, films and sockets apart', async () => {
    start(main, '1', 'https://tally.example/a.js');
    start(main, '2', 'https://media.loam.example/talk.mp4', { type: 'Media' });
    main.emit('Network.webSocketCreated', { requestId: '3', url: 'wss://tally.example/' });
    expect(log.pending).toBe(1);
    const idle = log.whenIdle();
    main.emit('Network.loadingFailed', { requestId: '1', errorText: 'net::ERR_FAILED' });
    await idle;
    expect(log.pending).toBe(0);
    await log.whenIdle();
  });

  test('what stays in the page is no traffic, and a cap is told', () => {
    start(main, '0', 'data:text/plain,x');
    for (let i = 1; i <= 2005; i++) start(main, String(i), `https://tally.example/${i}`);
    expect([log.requests.length, log.dropped]).toEqual([2000, 5]);
    log.reset();
    expect([log.requests.length, log.dropped]).toEqual([0, 0]);
  });
});

describe('the snippet’s requests', () => {
  const parser = { type: 'parser', url: PAGE, lineNumber: 2, columnNumber: 20 };

  test('are put down to the place in its text, through all that was pulled in', () => {
    start(main, '1', 'https://tally.example/a.js', { initiator: parser });
    const byScript = {
      type: 'script',
      stack: {
        callFrames: [{ url: 'https://tally.example/a.js', lineNumber: 0, columnNumber: 0 }],
      },
    };
    start(main, '2', 'https://cdn.tallyroot.example/b.js', { initiator: byScript });
    const facts = explain();
    const offset = SNIPPET.indexOf('<script') + 20;
    expect(facts.map(({ host, from }) => [host, from])).toEqual([
      ['tally.example', { offset }],
      ['cdn.tallyroot.example', { offset }],
    ]);
  });

  test('those of a frame are put down to the frame', () => {
    const address = 'https://maps.fernmap.example/embed';
    start(main, 'B'.repeat(32), address, { type: 'Document', frameId: 'child' });
    start(frame, '1', 'https://maps.fernmap.example/map.js', {
      frameId: 'child',
      initiator: { type: 'parser', url: address, lineNumber: 0 },
    });
    const frames = [{ address, from: { offset: 7 } } as FrameFact];
    expect(explain({ frames }).map(({ from, inFrame }) => [from, inFrame])).toEqual([
      [{ offset: 7 }, true],
      [{ offset: 7 }, true],
    ]);
  });

  test('are not the page itself, nor what it asks for without the snippet', () => {
    start(main, '1', PAGE, { type: 'Document' });
    start(main, '2', `${PAGE}site.css`);
    start(main, '3', `${PAGE}leaf.png`);
    expect(explain({ hostRequests: [`${PAGE}site.css`] }).map(({ address }) => address)).toEqual([
      `${PAGE}leaf.png`,
    ]);
  });

  test('tell why the gate refused them, also those the protocol did not tell of', () => {
    start(main, '1', 'https://10.0.0.9/x.png');
    start(main, '2', `${PAGE}gone.png`);
    const refusals: GateRefusal[] = [
      { kind: 'private-address', words: 'a private address', host: '10.0.0.9', path: null },
      {
        kind: 'unknown-name',
        words: 'not here',
        host: 'www.seedlibrary.example',
        path: '/gone.png',
      },
      { kind: 'private-address', words: 'a loopback address', host: '127.0.0.1', path: null },
    ];
    expect(
      explain({ log: { refusals } }).map(({ host, refused }) => [host, refused?.words]),
    ).toEqual([
      ['10.0.0.9', 'a private address'],
      ['www.seedlibrary.example', 'not here'],
      ['127.0.0.1', 'a loopback address'],
    ]);
  });

  test('are told by the gate where the protocol tells nothing of their host', () => {
    start(main, '1', 'https://tally.example/a.js');
    const plain = { container: null, pictured: false, moving: false };
    const entry = { status: 200, contentType: 'text/javascript', wire: 1200, ...plain };
    const of = (address: string, more = {}) => ({ ...entry, address, ...more });
    const entries = [
      of('https://tally.example/b.js'),
      of(`${PAGE}site.js`),
      of('https://fonts.example/bean.woff2'),
      of('https://late.example/gone.js', { status: null }),
      of('https://beacon.example/seen', { status: 204, contentType: null, wire: 0 }),
    ];
    const hostRequests = ['https://fonts.example/bean.woff2'];
    const told = explain({ log: { entries }, hostRequests });
    expect(told.map(({ address, status, wire }) => [address, status, wire])).toEqual([
      ['https://tally.example/a.js', null, 0],
      ['https://beacon.example/seen', 204, 0],
    ]);
  });
});

describe('a served page', () => {
  test('knows whose an offset is', () => {
    const before = '<!doctype html>\n<main>'.length;
    expect(page.locate(3)).toEqual({ to: 'host', offset: 3 });
    expect(page.locate(before)).toEqual({ to: 'snippet', snippet: 0, from: { offset: 0 } });
    expect(page.locate(before + SNIPPET.length)).toEqual({ to: 'host', offset: before });
  });

  test('knows the snippet’s part of a line', () => {
    expect([0, 1, 2].map((line) => page.getSnippetLineStart(0, line))).toEqual([null, 0, 11]);
    expect(page.getFirstLine(0)).toBe(1);
  });

  test('with several snippets knows whose is whose, in the order of the page', () => {
    const host = { slots: ['a', 'b'], pieces: ['<i>', '</i><b>', '</b>'] };
    const two = new ServedPage({
      host,
      snippets: [
        { slot: 'b', text: 'Sow' },
        { slot: 'a', text: 'Reap' },
      ],
    });
    expect(two.html).toBe('<i>Reap</i><b>Sow</b>');
    expect(two.locate(4)).toEqual({ to: 'snippet', snippet: 1, from: { offset: 1 } });
    expect(two.locate(15)).toEqual({ to: 'snippet', snippet: 0, from: { offset: 1 } });
    expect(two.locate(8)).toEqual({ to: 'host', offset: 4 });
    expect(two.locate(18)).toEqual({ to: 'host', offset: 11 });
  });
});
