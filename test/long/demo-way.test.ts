import { expect, test } from '@jest/globals';
import { fileURLToPath } from 'node:url';
import { startStandIns } from '../../dist/demo/stand-ins/index.js';
import { showWay } from '../../dist/src/cli/demo-way.js';
import type { World } from '../../dist/src/cli/streams.js';
import { loadHouse } from '../../dist/src/run/house-file.js';

const DEMO = fileURLToPath(new URL('../../demo', import.meta.url));

test('the demo shows a snippet that is held, mended, cleared, published, and found otherwise there', async () => {
  const standIns = await startStandIns();
  const home = await loadHouse(`${DEMO}/mivket.yaml`);
  const { house } = home;
  for (const host of Object.keys(house.reroute)) house.reroute[host] = standIns.origin;
  house.viewports = house.viewports.filter(({ width }) => width === 390);
  let told = '';
  const stderr = {
    write(text: string, done?: () => void) {
      told += text;
      done?.();
      return true;
    },
  };
  try {
    await showWay(DEMO, home, standIns.origin, { stderr, stdout: {} } as unknown as World);
  } finally {
    await standIns.close();
  }
  expect(told.replace(/\s+/g, ' ')).toMatch(
    /looked at HOLD, .* mended page-scrolls-sideways, .* proves cleared CLEAR.* published https:\S+ .* looked for more than once; title of the <iframe> of line 2 is gone.*; new there: frame-unnamed/,
  );
  expect(told).not.toContain('was put in');
});
