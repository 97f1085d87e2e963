import { describe, expect, test } from '@jest/globals';
import type { FileType } from '../../src/core/evidence.js';
import { awaitNetwork } from '../../src/render/collect/rest.js';
import { RequestLog } from '../../src/render/page/request-log.js';

const INITIATOR = { url: null, line: null, column: 0, calls: [] };

function ask(log: RequestLog, ...types: FileType[]): void {
  for (const type of types) {
    const address = `https://order.fernmap.example/${type}`;
    log.start(type, { address, first: address, type, initiator: INITIATOR });
  }
}

describe('what is under way', () => {
  test('is waited for, but for what may stay open', () => {
    const log = new RequestLog();
    ask(log, 'data', 'script', 'stream', 'socket', 'film', 'ping');
    expect([log.pending, log.open]).toEqual([2, 2]);
  });

  test('is held where its server lets it wait, and that is data', async () => {
    const log = new RequestLog();
    ask(log, 'data', 'script');
    log.hold();
    expect([log.pending, log.open]).toEqual([1, 1]);
    const idle = log.whenIdle();
    log.finish(log.get('script'));
    await idle;
    ask(log, 'data');
    expect(log.pending).toBe(1);
  });

  test('nobody waits any more once all of it is held', async () => {
    const log = new RequestLog();
    ask(log, 'data');
    const idle = log.whenIdle();
    log.hold();
    await idle;
    log.finish(log.get('data'));
    expect([log.pending, log.open]).toEqual([0, 0]);
  });

  test('is not held where it was asked for as soon as the one before had come', async () => {
    const requests = new RequestLog();
    ask(requests, 'data');
    const waiting = awaitNetwork({ requests }, 60_000);
    requests.finish(requests.get('data'));
    ask(requests, 'data');
    expect(await waiting).toBe(0);
    expect(requests.pending).toBe(1);
  });

  test('is held once there is no more time to wait for it', async () => {
    const requests = new RequestLog();
    ask(requests, 'data');
    expect(await awaitNetwork({ requests }, 0)).toBeGreaterThan(0);
    expect([requests.pending, requests.open]).toEqual([0, 1]);
  });
});
