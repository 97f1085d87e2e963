import { describe, expect, test } from '@jest/globals';
import type { FileType } from '../../src/core/evidence.js';
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
});
