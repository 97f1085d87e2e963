import { expect, test } from '@jest/globals';
import { nameSource } from '../../dist/src/run/source.js';
import type { Plan } from '../../dist/src/run/request.js';
import { getDefaultHouse } from '../../dist/src/core/house/read.js';

const house = getDefaultHouse();
const { slots, viewports } = house;
const plan = { house, slots, viewports, ownPage: null, root: null } as unknown as Plan;
const browser = (fonts: string) => ({
  path: process.execPath,
  origin: 'bundled' as const,
  env: { FONTCONFIG_FILE: fonts },
});

test('other fonts, another recording or another language is another source', async () => {
  const name = await nameSource(plan, 'hash', browser('/fonts-1'));
  expect(await nameSource({ ...plan }, 'hash', browser('/fonts-1'))).toBe(name);
  const german = { ...plan, house: { ...house, language: 'de' } };
  const others = [
    nameSource(plan, 'hash', browser('/fonts-2')),
    nameSource(plan, 'other', browser('/fonts-1')),
    nameSource(german, 'hash', browser('/fonts-1')),
  ];
  expect(new Set([name, ...(await Promise.all(others))]).size).toBe(4);
});
