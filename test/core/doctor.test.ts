import { expect, test } from '@jest/globals';
import { diagnose, type MachineFacts } from '../../src/core/doctor/diagnose.js';
import { formatAge, getReleaseDay } from '../../src/core/doctor/releases.js';
import { formatDiagnoses } from '../../src/formats/diagnosis.js';
import { paint } from '../support/paint.js';

const SOUND: MachineFacts = {
  today: new Date('2025-10-01'),
  node: 'v20.20.2',
  platform: 'linux x64',
  browsers: [
    { origin: 'bundled', path: '/c/chromium', version: 'Chromium 140.0.1.2', fault: null },
  ],
  lookedFor: 'chromium in the folders of PATH',
  start: { path: '/c/chromium', origin: 'bundled', sandboxed: true, fault: null },
  boxes: [],
  moreFonts: 'npm install letters',
  proxy: [],
  folders: [{ what: 'cache', path: '/c', fault: null, freeBytes: 9e9 }],
  trusted: [{ source: '/etc/certs.pem', count: 144, fault: null }],
  old: [],
  loopback: null,
};
const failed = (fault: string): Partial<MachineFacts> => ({
  start: { path: null, origin: null, sandboxed: false, fault },
  boxes: null,
});
const system = { origin: 'system' as const, path: '/usr/bin/chromium', fault: null };

function tell(facts: Partial<MachineFacts>): string[] {
  return diagnose({ ...SOUND, ...facts }).flatMap(({ state, item, words, todo }) =>
    state === 'good' ? [] : `${state} ${item}: ${words}. ${todo}`,
  );
}

test('a machine where all is well has nothing to do', () => {
  expect(tell({})).toEqual([]);
  expect(diagnose(SOUND).every(({ todo }) => todo === null)).toBe(true);
});

test.each<[string, Partial<MachineFacts>, RegExp]>([
  [
    'what versions before left',
    { old: ['a', 'b'].map((name) => ({ path: `/c/${name}`, bytes: 2e8 })) },
    /^note cache: 2 folders of other versions, 400 MB: \/c\/a and \/c\/b\. `mivket doctor --clean`/,
  ],
  [
    'a file of certificates that is none',
    { trusted: [{ source: '/c/desk.pem', count: 0, fault: 'ENOENT' }] },
    /^note certificates: \/c\/desk\.pem adds none \(ENOENT\)\. Name a file/,
  ],
  ['an old Node', { node: 'v18.19.0' }, /^bad node: v18\.19\.0 .* Install Node 20\.12/],
  ['no browser', { browsers: [] }, /^bad browser: none is here; looked for chromium in/],
  [
    'a newer one on the system',
    { browsers: [...SOUND.browsers, { ...system, version: 'Chromium 141.0.1.1' }] },
    /^note browser: Chromium 140.*--browser system takes the newer/,
  ],
  [
    'an old one',
    { browsers: [{ ...system, version: 'Google Chrome 120.0.1.1' }] },
    /^note browser: Google Chrome 120\.0\.1\.1 \(\/usr\/bin\/chromium\), about 22 months old/,
  ],
  ['no sandbox', failed('No usable sandbox!'), /^bad start: No usable sandbox!\. Let ordinary/],
  ['another C library', failed('version GLIBC_2.34 not found'), /glibc 2\.34 or newer/],
  [
    'root',
    { start: { path: '/c', origin: 'bundled', sandboxed: false, fault: null } },
    /^note sandbox: off, because you are root.*ordinary user/,
  ],
  ['missing letters', { boxes: ['Korean', 'Thai'] }, /no letters for Korean and Thai.*--browser/],
  [
    'letters of a package',
    { boxes: ['Korean'] },
    /no letters for Korean.*have them: npm install le/,
  ],
  [
    'fonts of the machine',
    { start: { path: '/c', origin: 'system', sandboxed: true, fault: null } },
    /^note fonts: those of this machine.*pictures of one machine only/,
  ],
  [
    'a proxy',
    { proxy: [{ name: 'HTTPS_PROXY', value: 'http://p:1', usable: true, fault: null }] },
    /^note proxy: HTTPS_PROXY=http:\/\/p:1: hosts outside are asked through it.*looks names up/,
  ],
  [
    'a proxy that is not there',
    { proxy: [{ name: 'HTTPS_PROXY', value: 'http://p:1', usable: true, fault: 'is away' }] },
    /^note proxy: HTTPS_PROXY=http:\/\/p:1 is away\. Correct it/,
  ],
  [
    'a proxy that is none',
    { proxy: [{ name: 'ALL_PROXY', value: 'socks5://p', usable: false, fault: 'is none' }] },
    /^bad proxy: ALL_PROXY=socks5:\/\/p is none/,
  ],
  ['no ports', { loopback: 'EPERM' }, /^bad ports: 127\.0\.0\.1 cannot be listened on \(EPERM\)/],
  [
    'a full disk',
    { folders: [{ what: 'cache', path: '/c', fault: null, freeBytes: 1000 }] },
    /^note cache: \/c has little room left/,
  ],
])('%s is told, with what to do', (_name, facts, words) => {
  expect(tell(facts)).toEqual([expect.stringMatching(words)]);
});

test('a version’s age is reckoned from the days of known ones', () => {
  expect(getReleaseDay('Chromium 125.0.1')!.toISOString().slice(0, 7)).toBe('2024-05');
  expect(getReleaseDay('Chromium 150.0')!.getTime()).toBeGreaterThan(Date.parse('2026-03-01'));
  expect([getReleaseDay('Firefox 52.1'), getReleaseDay('none')]).toEqual([null, null]);
  expect(formatAge(new Date('2025-09-20'), new Date('2025-10-01'))).toBe('1 month');
  expect(formatAge(new Date('2020-01-01'), new Date('2025-01-01'))).toBe('5 years');
});

test('the text says at its end whether audits run', () => {
  const told = formatDiagnoses(diagnose({ ...SOUND, loopback: 'EPERM' }), { paint, width: 60 });
  expect(told).toMatch(/^· node {9}v20\.20\.2 on linux x64\n/);
  expect(told).toMatch(/\n■ ports {8}127.*\n {15}All traffic/);
  expect(told).toMatch(/\n\nAudits cannot run here yet\.\n$/);
});
