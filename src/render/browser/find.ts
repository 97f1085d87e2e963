import { constants } from 'node:fs';
import { access, stat } from 'node:fs/promises';
import { delimiter, isAbsolute, join } from 'node:path';
import { ToolError } from '../../core/errors.js';
import { flatMap } from '../../core/lists.js';
import { getBundledBrowser, type BrowserProgram } from './bundled.js';

const NAMES = [
  'google-chrome',
  'google-chrome-stable',
  'chromium',
  'chromium-browser',
  'microsoft-edge',
  'microsoft-edge-stable',
];

const FIXED: Record<string, string[]> = {
  linux: [
    '/opt/google/chrome/chrome',
    '/opt/microsoft/msedge/msedge',
    '/snap/bin/chromium',
    '/usr/lib/chromium/chromium',
  ],
  darwin: [
    '/Applications/Google Chrome.app/Contents/MacOS/Google Chrome',
    '/Applications/Chromium.app/Contents/MacOS/Chromium',
    '/Applications/Microsoft Edge.app/Contents/MacOS/Microsoft Edge',
  ],
};

const WINDOWS_PARTS = [
  ['Google', 'Chrome', 'Application', 'chrome.exe'],
  ['Chromium', 'Application', 'chrome.exe'],
  ['Microsoft', 'Edge', 'Application', 'msedge.exe'],
];

/**
 * The browser to use: `wanted` (a path, or `system`), else MIVKET_BROWSER, else the one that came
 * with the packages, else one of the system.
 * @param places where the system's are looked for
 * @throws ToolError `no-browser`, with each place looked at.
 */
export async function findBrowser(
  wanted?: string,
  places: readonly string[] = getSystemPlaces(),
): Promise<BrowserProgram> {
  const choice = wanted ?? process.env.MIVKET_BROWSER;
  if (choice && choice !== 'system')
    return useGiven(choice, wanted ? '--browser' : 'MIVKET_BROWSER');
  if (!choice) {
    const bundled = await getBundledBrowser();
    if (bundled) return bundled;
  }
  for (const path of places) if (await isProgram(path)) return { path, origin: 'system', env: {} };
  throw new ToolError('no-browser', `No browser was found. Looked for ${describePlaces()}.`);
}

async function useGiven(path: string, option: string): Promise<BrowserProgram> {
  const places =
    isAbsolute(path) || /[\\/]/.test(path) ? [path] : getPathFolders().map((f) => join(f, path));
  for (const place of places)
    if (await isProgram(place)) return { path: place, origin: 'given', env: {} };
  throw new ToolError(
    'no-browser',
    `${option} names "${path}", and there is no program to run there. Looked at: ${places.join(', ')}.`,
  );
}

/** Every place of the system where a Chrome, Chromium or Edge is usually found. */
export function getSystemPlaces(): string[] {
  if (process.platform === 'win32') return getWindowsPlaces();
  const onPath = flatMap(getPathFolders(), (folder) => NAMES.map((name) => join(folder, name)));
  return [...new Set([...onPath, ...(FIXED[process.platform] ?? [])])];
}

/** The same in words: the folders of PATH are not told one by one. */
export function describePlaces(): string {
  if (process.platform === 'win32') return getWindowsPlaces().join(', ');
  const fixed = FIXED[process.platform] ?? [];
  return `${NAMES.join(', ')} in the folders of PATH, and for ${fixed.join(', ')}`;
}

function getWindowsPlaces(): string[] {
  const roots = ['PROGRAMFILES', 'PROGRAMFILES(X86)', 'LOCALAPPDATA'].map(
    (name) => process.env[name],
  );
  return flatMap(
    roots.filter((root) => root !== undefined),
    (root) => WINDOWS_PARTS.map((parts) => join(root, ...parts)),
  );
}

function getPathFolders(): string[] {
  return (process.env.PATH ?? '').split(delimiter).filter(Boolean);
}

/** Whether there is a file that may be run. */
export async function isProgram(path: string): Promise<boolean> {
  const found = await stat(path).catch(() => null);
  if (!found?.isFile()) return false;
  return access(path, constants.X_OK).then(
    () => true,
    () => false,
  );
}
