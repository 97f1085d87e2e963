import type { SnippetReport } from '../core/run.js';
import { sumContacts, toContactCells, type ContactCells } from './contacts.js';
import type { Paint } from './paint.js';
import { formatTable } from './text-table.js';

const HEADS: ContactCells = {
  host: 'host',
  requests: 'requests',
  wire: 'on the wire',
  unpacked: 'unpacked',
  scripts: 'scripts',
  stored: 'stored',
};
const NUMBERS = ['requests', 'wire', 'unpacked', 'scripts', 'stored'] as const;

/** So many hosts are still read on a terminal. */
const MOST = 8;

/** Whom a snippet contacts, whether anything is wrong with that or not. */
export function formatContacts(snippet: SnippetReport, { paint }: { paint: Paint }): string {
  const { contacts } = snippet;
  if (contacts.length === 0) return '';
  const cells = contacts.slice(0, MOST).map(toContactCells);
  const lines = formatTable(HEADS, cells, paint, NUMBERS);
  const more = contacts.length - MOST;
  const rest = more > 0 ? [paint.faint(`    and ${more} more: in the HTML and JSON reports`)] : [];
  return [`  Contacts ${sumContacts(snippet)}`, ...lines, ...rest].join('\n');
}
