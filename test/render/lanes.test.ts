import { describe, expect, test } from '@jest/globals';
import { Lanes } from '../../src/render/life/lanes.js';
import { NO_SEATS, Seats } from '../../src/render/life/seats.js';

/** Work whose end is given from outside, with a log of when each piece began. */
function makeWork() {
  const begun: number[] = [];
  const ends: (() => void)[] = [];
  const go = async (lanes: Lanes, count: number) => {
    for (let i = 0; i < count; i++) {
      await lanes.enter();
      begun.push(i);
      lanes.add(new Promise<void>((resolve) => ends.push(resolve)));
    }
    await lanes.finish();
  };
  const turn = () => new Promise((resolve) => setImmediate(resolve));
  return { begun, ends, go, turn };
}

describe('loads of one snippet', () => {
  test.each([
    ['one after the other where nobody has a seat for more', NO_SEATS, 3, 1],
    ['side by side where there are seats', new Seats(9), 3, 3],
    ['no more than there are seats', new Seats(1), 3, 2],
    ['no more than may be', new Seats(9), 1, 1],
  ])('go on %s', async (_, seats, most, together) => {
    const { begun, ends, go, turn } = makeWork();
    const going = go(new Lanes(seats, most), 5);
    await turn();
    expect(begun).toHaveLength(together);
    for (let i = 0; i < 5; i++) {
      ends[i]!();
      await turn();
    }
    await going;
    expect(begun).toEqual([0, 1, 2, 3, 4]);
  });

  test('give back the seats that they took, and no other', async () => {
    const seats = new Seats(2);
    seats.sit();
    const lanes = new Lanes(seats, 3);
    const { ends, go, turn } = makeWork();
    const going = go(lanes, 2);
    await turn();
    expect(seats.trySit()).toBe(false);
    for (const end of ends) end();
    await going;
    expect([seats.trySit(), seats.trySit()]).toEqual([true, false]);
  });

  test('are all waited for where one breaks down', async () => {
    const lanes = new Lanes(new Seats(2), 2);
    let over = false;
    lanes.add(Promise.reject(new Error('the first')));
    const slow = new Promise((resolve) => setImmediate(resolve)).then(() => (over = true));
    lanes.add(slow);
    await expect(lanes.finish()).rejects.toThrow('the first');
    expect(over).toBe(true);
  });
});
