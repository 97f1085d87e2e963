import { afterAll, beforeAll, expect, test } from '@jest/globals';
import { openLive, type Live } from '../support/live.js';

let live: Live;

beforeAll(async () => {
  live = await openLive();
});

afterAll(() => live.close());

test('what is behind letters is seen where that has the colour of others', async () => {
  const [phone] = await live.look(`
    <style>
      .tag { color: #a33b20; background: linear-gradient(currentColor, currentColor); padding: 9px } .tag i { color: #fff }
      .lined { background: linear-gradient(#eee, #eee); color: #222; text-decoration: underline; text-emphasis: dot }
    </style>
    <p><b class="tag"><i>Sow</i></b></p>
    <p class="lined">Reap</p>`);
  const grounds = phone!.texts.map(({ sample, ground }) => [sample, ground]);
  expect(grounds).toEqual([
    ['Sow', '#a33b20'],
    ['Reap', '#eeeeee'],
  ]);
});
