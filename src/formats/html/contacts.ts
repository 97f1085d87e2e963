import type { SnippetReport } from '../../core/run.js';
import { sumContacts, toContactCells } from '../contacts.js';
import { html, type Html } from './template.js';

/** Whom the snippet contacts, host by host. */
export function formatHtmlContacts(snippet: SnippetReport): Html | null {
  const { contacts } = snippet;
  if (contacts.length === 0) return null;
  const rows = contacts.map(toContactCells).map(
    ({ host, requests, wire, unpacked, scripts, stored }) =>
      html`<tr>
        <td>${host}</td>
        <td>${requests}</td>
        <td>${wire}</td>
        <td>${unpacked}</td>
        <td>${scripts}</td>
        <td>${stored}</td>
      </tr>`,
  );
  return html`<details class="whole">
    <summary>Whom it contacts: ${sumContacts(snippet)}</summary>
    <table class="measured">
      <caption>
        In the window that asked each most
      </caption>
      <thead>
        <tr>
          <th>Host</th>
          <th>Requests</th>
          <th>On the wire</th>
          <th>Unpacked</th>
          <th>Scripts</th>
          <th>Stored</th>
        </tr>
      </thead>
      <tbody>
        ${rows}
      </tbody>
    </table>
  </details>`;
}
