import { describe, expect, test } from '@jest/globals';
import { Writable } from 'node:stream';
import { ProgressBar } from '../../dist/src/cli/progress.js';

/** Something that says it is a terminal, and keeps what is written. */
function openTerminal(isTTY: boolean) {
  let written = '';
  const stream = new Writable({
    write(chunk: Buffer, _encoding, done) {
      written += chunk.toString();
      done();
    },
  });
  const output = Object.assign(stream, {
    isTTY,
    columns: 100,
    cursorTo: () => true,
    clearLine: () => true,
  });
  return { output, getWritten: () => written };
}

describe('progress', () => {
  test('tells on a terminal which snippet, and how many renders of how many', () => {
    const { output, getWritten } = openTerminal(true);
    const progress = new ProgressBar(output, false, 2);
    progress.note('map.html:1  frame-fixed-size: \u001b[2Jbold');
    progress.expect(8);
    progress.begin('map.html');
    progress.step(1);
    progress.finish();
    progress.begin('booking.html');
    progress.stop();
    expect(getWritten()).toContain('map.html:1  frame-fixed-size: ␛[2Jbold\n');
    expect(getWritten()).toContain('0 of 8 renders, snippet 1 of 2: ');
  });

  test.each([
    ['a pipe', false, false],
    ['a terminal that is to be quiet', true, true],
  ])('is silent on %s', (_name, isTTY, quiet) => {
    const { output, getWritten } = openTerminal(isTTY);
    const progress = new ProgressBar(output, quiet, 1);
    progress.note('x');
    progress.expect(4);
    progress.begin('map.html');
    progress.step(1);
    progress.stop();
    expect([progress.shown, getWritten()]).toEqual([false, '']);
  });
});
