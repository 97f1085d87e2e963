import type { SnippetReport } from '../../core/run.js';
import { sumContacts, toContactCells } from '../contacts.js';
import { formatHtmlTable } from './table.js';
import { html, type Html } from './template.js';

/** Draws how much comes from each host; null where there is nothing to draw. */
export type DrawWeights = (contacts: SnippetReport['contacts']) => Html | null;

/** Whom the snippet contacts, host by host. @param draw how their weights are drawn */
export function formatHtmlContacts(snippet: SnippetReport, draw: DrawWeights): Html | null {
  const { contacts } = snippet;
  if (contacts.length === 0) return null;
  const rows = contacts
    .map(toContactCells)
    .map((one) => [one.host, one.requests, one.wire, one.unpacked, one.scripts, one.stored]);
  return html`<details class="whole">
    <summary>Whom it contacts: ${sumContacts(snippet)}</summary>
    ${draw(contacts)} ${formatHtmlTable(HEADS, rows, 'In the window that asked each most')}
  </details>`;
}

const HEADS = ['Host', 'Requests', 'On the wire', 'Unpacked', 'Scripts', 'Stored'];
