import { readFileSync } from 'node:fs';

/** Where the build puts what runs in the page, each bundled into one script; from `dist/src/render`. */
const FOLDER = new URL('../../../dist/in-page/', import.meta.url);
const known = new Map<string, string>();

/** Reads the page, from an isolated world: @see ./reader/reader.ts */
export function getReaderScript(): string {
  return getScript('reader.js');
}

/** Watches the page's own code, from its own world: @see ./in-page/watcher.ts */
export function getWatcherScript(): string {
  return getScript('watcher.js');
}

function getScript(name: string): string {
  let text = known.get(name);
  if (text === undefined) known.set(name, (text = readFileSync(new URL(name, FOLDER), 'utf8')));
  return text;
}
