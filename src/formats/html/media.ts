import type { SnippetReport } from '../../core/run.js';
import { listMediaCells, sumMedia } from '../media.js';
import { formatHtmlTable } from './table.js';
import { html, type Html } from './template.js';

/** What can play: what was asked for, and what happened. */
export function formatHtmlMedia(snippet: SnippetReport): Html | null {
  const cells = listMediaCells(snippet);
  if (cells.length === 0) return null;
  const rows = cells.map((one) => [one.what, one.asked, one.happened, one.sound, one.length]);
  return html`<details class="whole">
    <summary>What can play: ${sumMedia(cells)}</summary>
    ${formatHtmlTable(HEADS, rows)}
  </details>`;
}

const HEADS = ['File', 'Asked', 'Happened', 'Sound in it', 'Length'];
