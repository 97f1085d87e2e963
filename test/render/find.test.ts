import { expect, test } from '@jest/globals';
import { findBrowser } from '../../src/render/browser/find.js';

test('the first place of the system that has a program is taken, and a folder is none', async () => {
  const places = ['/nowhere/chrome', import.meta.dirname, process.execPath];
  expect(await findBrowser('system', places)).toMatchObject({
    path: process.execPath,
    origin: 'system',
  });
});

test('where no place has one, each is told', async () => {
  await expect(findBrowser('system', ['/nowhere/chrome'])).rejects.toMatchObject({
    code: 'no-browser',
    exitCode: 3,
    message: expect.stringMatching(
      /^No browser was found\. Looked for google-chrome, .*microsoft-edge-stable in the folders/,
    ),
  });
});
