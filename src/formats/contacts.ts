import type { SnippetReport } from '../core/run.js';
import { formatBytes, formatWire } from '../core/measure/units.js';
import { countWords } from '../core/words/list.js';
import { cleanLine } from './clean.js';

type Contact = SnippetReport['contacts'][number];

/** A host that is contacted, in the words of a table. */
export interface ContactCells {
  host: string;
  requests: string;
  wire: string;
  unpacked: string;
  scripts: string;
  stored: string;
}

export function toContactCells(contact: Contact): ContactCells {
  const { host, requests, wire, unpacked, scripts, stored } = contact;
  const count = (n: number) => (n === 0 ? '–' : String(n));
  return {
    host: cleanLine(host),
    requests: String(requests),
    wire: wire === 0 ? '–' : formatWire(wire),
    unpacked: unpacked === 0 ? '–' : formatBytes(unpacked),
    scripts: count(scripts),
    stored: count(stored),
  };
}

/** All of them together. */
export function sumContacts({ contacts }: Pick<SnippetReport, 'contacts'>): string {
  const sites = new Set(contacts.map(({ site }) => site)).size;
  const wire = contacts.reduce((sum, one) => sum + one.wire, 0);
  const hosts = countWords(contacts.length, 'host');
  const of = sites === contacts.length ? '' : ` of ${countWords(sites, 'site')}`;
  return `${hosts}${of}${wire === 0 ? '' : `, ${formatWire(wire)}`}`;
}
