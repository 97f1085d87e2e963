import { expect, test } from '@jest/globals';
import { makeViewport } from '../../src/core/house/house.js';
import { getIdentity } from '../../src/render/chromium/identity.js';

const VERSION = '147.0.7727.0';
const get = (given: Parameters<typeof makeViewport>[0], language = 'en-US') =>
  getIdentity(makeViewport(given), VERSION, language);
const phone = { name: 'p', width: 390 };

test('with touch it is a phone’s browser, without a desktop’s, whatever the width', () => {
  expect(get(phone)).toMatchObject({
    userAgent: expect.stringMatching(/Android 10; K\).* Chrome\/147\.0\.0\.0 Mobile Safari/),
    platform: 'Linux armv81',
    userAgentMetadata: { platform: 'Android', mobile: true },
  });
  expect(get({ ...phone, touch: false })).toMatchObject({
    userAgent: expect.not.stringContaining('Mobile'),
    userAgentMetadata: { mobile: false },
  });
  expect(get({ name: 't', width: 1024, touch: true }).userAgent).toContain('Mobile');
});

test.each([
  ['Mozilla/5.0 (Windows NT 10.0; Win64; x64) Chrome/120.0.0.0', 'Win32', 'Windows', '120.0.0.0'],
  ['Mozilla/5.0 (Macintosh; Intel Mac OS X) Chrome/147.0.0.0', 'MacIntel', 'macOS', VERSION],
  ['Mozilla/5.0 (X11; CrOS x86_64) Chrome/147.0.0.0', 'Linux x86_64', 'Chrome OS', VERSION],
])('what else says of itself: %s', (userAgent, platform, hint, full) => {
  const identity = get({ ...phone, userAgent });
  expect(identity).toMatchObject({ userAgent, platform });
  expect(identity.userAgentMetadata).toMatchObject({
    platform: hint,
    mobile: false,
    brands: [{}, { brand: 'Chromium', version: full.split('.')[0] }],
    fullVersionList: [{}, { brand: 'Chromium', version: full }],
  });
});

test('a browser of another kind gives no hints', () => {
  const userAgent = 'Mozilla/5.0 (X11; Linux x86_64; rv:140.0) Gecko/20100101 Firefox/140.0';
  expect(get({ ...phone, userAgent }).userAgentMetadata).toBeUndefined();
});

test('a language is asked for with and without its region', () => {
  expect(get(phone, 'de-AT').acceptLanguage).toBe('de-AT,de');
  expect(get(phone, 'de').acceptLanguage).toBe('de');
});
