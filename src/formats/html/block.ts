import type { Finding, SnippetReport } from '../../core/run.js';
import { counts } from '../../core/verdict.js';
import type { Block } from '../blocks.js';
import { clean, cleanLine } from '../clean.js';
import { formatCorrected } from '../corrected.js';
import { formatMore, formatWaiver, listMeasured } from '../measured.js';
import { countPlaces, describeDoubt } from '../summary.js';
import { listCures } from '../text-block.js';
import { formatShape } from './shapes.js';
import { html, type Html } from './template.js';

/** A longer line is cut: nobody reads it in a report. */
const LONGEST = 2000;
/** So many places that are alike are named. */
const MOST_ALIKE = 200;

/** One cause with all that is to be said of it. */
export function formatBlock(block: Block, anchor: string, snippet: SnippetReport): Html {
  const { number, main, also, cause, alike } = block;
  const { id, level, where, waiver } = main;
  const waived = !counts(main);
  const notes = `${describeDoubt(main)}${waived ? ' · waived' : ''}`;
  return html`<article id="${anchor}-${number}" aria-labelledby="${anchor}-${number}-name">
    <header>
      <span class="number ${level}"><i>${number}</i></span>
      <span class="level ${level}">${formatShape(waived ? 'waived' : level)} ${level}</span>
      <h3 id="${anchor}-${number}-name">${id}</h3>
      <span class="faint">line ${where.line}, column ${where.column}${notes}</span>
    </header>
    <p class="says">${formatCss(main.message)}</p>
    ${formatSource(main, snippet.text)}
    <dl>
      ${formatTable(block, countPlaces(snippet))} ${formatAlso(also)}
      ${formatRow('visitors', main.notice)} ${formatRow('change', listCures(block).join(' '))}
      ${cause.mend && formatMended(snippet.text, cause.mend)}
      ${formatRow('standard', main.standard ?? '')} ${formatRow('waiver', formatWaiver(waiver))}
    </dl>
    ${formatAlike(alike)}
  </article>`;
}

/** A sentence, with what is CSS or code in it set as code. */
function formatCss(words: string): Html {
  const pieces = cleanLine(words).split(/`([^`]*)`/);
  return html`${pieces.map((piece, i) => (i % 2 === 1 ? html`<code>${piece}</code>` : html`${piece}`))}`;
}

function formatRow(label: string, words: string): Html | null {
  return words
    ? html`<dt>${label}</dt>
        <dd>${formatCss(words)}</dd>`
    : null;
}

function formatAlso(also: readonly Finding[]): Html | null {
  if (also.length === 0) return null;
  const lines = also.map(
    ({ id, level, message }) =>
      html`<div>
        <span class="${level}">${formatShape(level)}</span> <b>${id}</b>: ${formatCss(message)}
      </div>`,
  );
  return html`<dt>also</dt>
    <dd>${lines}</dd>`;
}

function formatTable(block: Block, places: number): Html | null {
  const table = listMeasured(block, places);
  if (table.rows.length === 0) return null;
  const named = table.rows.some(({ slot }) => slot);
  const rows = table.rows.map(
    ({ slot, width, what }) =>
      html`<tr>
        ${named ? html`<td>${cleanLine(slot)}</td>` : null}
        <td>${cleanLine(width)}</td>
        <td>${what}</td>
      </tr>`,
  );
  return html`<dt>measured</dt>
    <dd>
      <table class="measured">
        <thead>
          <tr>
            ${named ? html`<th>Slot</th>` : null}
            <th>Window</th>
            <th>What</th>
          </tr>
        </thead>
        <tbody>
          ${rows}
        </tbody>
      </table>
      ${table.more > 0 ? html`<span class="faint">${formatMore(table)}</span>` : null}
    </dd>`;
}

/** The line of the source, the faulty piece underlined. */
function formatSource({ where }: Finding, text: string): Html | null {
  const start = text.slice(0, where.offset).search(/[^\r\n]*$/);
  const length = text.slice(start).search(/\r|\n|$/);
  const end = start + length;
  if (length === 0) return null;
  const stop = Math.min(Math.max(where.endOffset, where.offset + 1), end);
  const cut = Math.max(0, where.offset - start - LONGEST / 4);
  const before = (cut > 0 ? '…' : '') + text.slice(start + cut, where.offset);
  const after = text.slice(stop, Math.min(end, stop + LONGEST));
  return html`<pre
    tabindex="0"
  ><code><span class="line">${where.line}  </span>${clean(before)}<mark>${clean(text.slice(where.offset, stop).slice(0, LONGEST))}</mark>${clean(after)}</code></pre>`;
}

function formatMended(text: string, edits: NonNullable<Finding['mend']>): Html | null {
  const { atEnd, lines } = formatCorrected(text, edits);
  if (atEnd) return null;
  return html`<dt>corrected</dt>
    <dd>
      <pre><code>${lines.join('\n')}</code></pre>
    </dd>`;
}

/** The same at other places: a line each. */
function formatAlike(alike: readonly Finding[]): Html | null {
  if (alike.length === 0) return null;
  const rows = alike.slice(0, MOST_ALIKE).map(
    ({ cause, level, where, message }) =>
      html`<li>
        <span class="number small ${level}"><i>${cause}</i></span> line ${where.line}, column
        ${where.column}: ${formatCss(message)}
      </li>`,
  );
  const rest = alike.length - rows.length;
  return html`<details class="alike">
    <summary>Likewise at ${alike.length} more ${alike.length === 1 ? 'place' : 'places'}</summary>
    <ul>
      ${rows} ${rest > 0 ? html`<li>and ${rest} more</li>` : null}
    </ul>
  </details>`;
}
