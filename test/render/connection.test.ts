import { describe, expect, test } from '@jest/globals';
import { PassThrough } from 'node:stream';
import { Connection } from '../../src/render/chromium/connection.js';

function open(limits?: { call: number; message: number }) {
  const toBrowser = new PassThrough();
  const fromBrowser = new PassThrough();
  const connection = new Connection(toBrowser, fromBrowser, limits);
  const say = (message: unknown) => fromBrowser.write(`${JSON.stringify(message)}\0`);
  const heard = async () => {
    // What is said in one turn goes out at its end.
    await new Promise(setImmediate);
    return String(toBrowser.read() ?? '')
      .split('\0')
      .filter(Boolean)
      .map((text) => JSON.parse(text) as { id: number; method: string; sessionId?: string });
  };
  return { connection, fromBrowser, say, heard };
}

describe('the connection to the browser', () => {
  test('answers find their calls, in whatever pieces they come', async () => {
    const { connection, fromBrowser, heard } = open();
    const version = connection.root.send('Browser.getVersion');
    const id = (await heard())[0]!.id;
    const text = Buffer.from(
      `${JSON.stringify({ id, result: { product: 'Grün 1' } })}\0{"method":"x"}\0`,
    );
    const cut = text.indexOf('ü') + 1;
    fromBrowser.write(text.subarray(0, cut));
    fromBrowser.write(text.subarray(cut));
    expect(await version).toEqual({ product: 'Grün 1' });
  });

  test('a call that nobody answers fails, and so does one whose answer is too long', async () => {
    const slow = open({ call: 20, message: 1000 });
    await expect(slow.connection.root.send('Browser.getVersion')).rejects.toThrow(
      'Browser.getVersion: no answer in time',
    );
    const { connection, say, heard } = open({ call: 10_000, message: 1000 });
    const long = connection.root.send('Browser.getVersion');
    say({ method: 'x', params: 'y'.repeat(5000) });
    say({ id: (await heard())[0]!.id, result: 'z'.repeat(5000) });
    await expect(long).rejects.toThrow('the answer is too long');
    const next = connection.root.send('Browser.getVersion');
    say({ id: (await heard())[0]!.id, result: { product: 'x' } });
    expect(await next).toEqual({ product: 'x' });
  });

  test('an error is told with what the browser said', async () => {
    const { connection, say, heard } = open();
    const call = connection.session('S').send('Page.enable');
    const { id, sessionId } = (await heard())[0]!;
    expect(sessionId).toBe('S');
    say({ id, sessionId, error: { message: 'no such page' } });
    await expect(call).rejects.toThrow('no such page');
  });

  test('what a listener throws is the fault of its session, and of no other', async () => {
    const { connection, say, heard } = open();
    const [own, other] = [connection.session('S'), connection.session('T')];
    own.on('Page.loadEventFired', () => {
      throw new TypeError('no beans');
    });
    const call = own.send('Page.enable');
    say({ method: 'Page.loadEventFired', sessionId: 'S', params: {} });
    await expect(call).rejects.toThrow('the session is gone');
    await expect(own.send('Page.enable')).rejects.toThrow(TypeError);
    const sound = other.send('Page.enable');
    const { id, sessionId } = (await heard()).at(-1)!;
    say({ id, sessionId, result: {} });
    expect(await sound).toEqual({});
    // Who listens to the browser itself has nothing to go on with: another one is started.
    connection.root.on('Target.attachedToTarget', () => {
      throw new TypeError('no beans');
    });
    say({ method: 'Target.attachedToTarget', params: {} });
    await new Promise(setImmediate);
    expect(connection.closed).toBe(true);
  });

  test('events reach their own session only', async () => {
    const { connection, say } = open();
    const seen: string[] = [];
    connection.session('A').on('Page.loadEventFired', () => seen.push('A'));
    connection.session('B').on('Page.loadEventFired', () => seen.push('B'));
    const last = new Promise<void>((resolve) =>
      connection.session('B').on('Page.frameResized', () => resolve()),
    );
    say({ method: 'Page.loadEventFired', params: { timestamp: 1 }, sessionId: 'A' });
    say({ method: 'Page.frameResized', params: {}, sessionId: 'B' });
    await last;
    expect(seen).toEqual(['A']);
  });

  test('a session that is gone leaves no call waiting', async () => {
    const { connection, say } = open();
    const session = connection.session('A');
    const ended = new Promise<void>((resolve) => session.onEnd(resolve));
    const call = session.send('Page.enable');
    say({ method: 'Target.detachedFromTarget', params: { sessionId: 'A' } });
    await expect(call).rejects.toThrow('the session is gone');
    await ended;
    expect(session.ended).toBe(true);
  });

  test('a browser that is gone refuses all calls, those to come too', async () => {
    const { connection, fromBrowser } = open();
    const call = connection.root.send('Browser.getVersion');
    fromBrowser.destroy();
    await expect(call).rejects.toThrow('the browser is gone');
    await expect(connection.root.send('Browser.getVersion')).rejects.toThrow('the browser is gone');
    expect(connection.closed).toBe(true);
  });
});
