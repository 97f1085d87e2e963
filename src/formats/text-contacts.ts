import stringWidth from 'string-width';
import type { SnippetReport } from '../core/run.js';
import { sumContacts, toContactCells, type ContactCells } from './contacts.js';
import type { Paint } from './paint.js';
import { pad } from './text-grid.js';

const HEADS: ContactCells = {
  host: 'host',
  requests: 'requests',
  wire: 'on the wire',
  unpacked: 'unpacked',
  scripts: 'scripts',
  stored: 'stored',
};
const COLUMNS = Object.keys(HEADS) as (keyof ContactCells)[];

/** So many hosts are still read on a terminal. */
const MOST = 8;

/** Whom a snippet contacts, whether anything is wrong with that or not. */
export function formatContacts(snippet: SnippetReport, { paint }: { paint: Paint }): string {
  const { contacts } = snippet;
  if (contacts.length === 0) return '';
  const rows = [HEADS, ...contacts.slice(0, MOST).map(toContactCells)];
  const widths = COLUMNS.map((name) => Math.max(...rows.map((row) => stringWidth(row[name]))));
  const lines = rows.map((row, i) => {
    const cells = COLUMNS.map((name, at) =>
      name === 'host' ? pad(row[name], widths[at]!) : row[name].padStart(widths[at]!),
    );
    const line = `    ${cells.join('  ')}`;
    return i === 0 ? paint.faint(line) : line;
  });
  const more = contacts.length - MOST;
  const rest = more > 0 ? [paint.faint(`    and ${more} more: in the HTML and JSON reports`)] : [];
  return [`  Contacts ${sumContacts(snippet)}`, ...lines, ...rest].join('\n');
}
