import type { SnippetReport } from '../../core/run.js';
import { listLoadRows, sumLoads, type LoadRow } from '../loads.js';
import { html, type Html } from './template.js';

/** Who loads whom, as lists in lists. */
export function formatHtmlLoads({ loads }: SnippetReport): Html | null {
  if (!loads) return null;
  return html`<details class="whole loads">
    <summary>Who loads whom: ${sumLoads(loads)}</summary>
    ${formatRows(listLoadRows(loads))}
  </details>`;
}

function formatRows(rows: readonly LoadRow[]): Html {
  return html`<ul>
    ${rows.map(
      ({ where, name, what, under }) =>
        html`<li>
          ${where === '' ? null : html`<span class="faint">${where}:</span> `}<code>${name}</code>
          <span class="faint">${what}</span>${under.length > 0 ? formatRows(under) : null}
        </li>`,
    )}
  </ul>`;
}
