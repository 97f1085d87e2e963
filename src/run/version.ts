import { readFileSync } from 'node:fs';

/** The folder of the package, from `dist/src/run`. */
export const PACKAGE = new URL('../../../', import.meta.url);

/** The version of this package. */
export function getVersion(): string {
  const text = readFileSync(new URL('package.json', PACKAGE), 'utf8');
  return (JSON.parse(text) as { version: string }).version;
}

/** What documents say that they were made by. */
export function getTool(): { name: string; version: string } {
  return { name: 'mivket', version: getVersion() };
}
