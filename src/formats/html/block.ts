import type { Finding, SnippetReport } from '../../core/run.js';
import type { Block } from '../blocks.js';
import { clean, cleanLine } from '../clean.js';
import { formatMore } from '../measured.js';
import { splitCode } from '../words.js';
import { tellBlock, type Told } from '../told.js';
import { formatShape } from './shapes.js';
import { formatHtmlTable } from './table.js';
import { html, type Html } from './template.js';

/** A longer line is cut: nobody reads it in a report. */
const LONGEST = 2000;
/** So many places that are alike are named. */
const MOST_ALIKE = 200;

/** One cause with all that is to be said of it. */
export function formatHtmlBlock(block: Block, anchor: string, snippet: SnippetReport): Html {
  const told = tellBlock(block, snippet);
  const { number, mark, level, id, place } = told;
  const rows = (labels: readonly string[]) =>
    told.rows.filter(({ label }) => labels.includes(label)).map(formatRow);
  return html`<article id="${anchor}-${number}" aria-labelledby="${anchor}-${number}-name">
    <header>
      <span class="number ${level}"><i>${number}</i></span>
      <span class="level ${level}">${formatShape(mark)} ${level}</span>
      <h3 id="${anchor}-${number}-name">${id}</h3>
      <span class="faint">${place}</span>
    </header>
    <p class="says">${formatCss(told.message)}</p>
    ${formatSource(told.where, snippet.text)}
    <dl>
      ${formatTable(told)} ${formatAlso(told)} ${rows(['visitors', 'change'])} ${formatMended(told)}
      ${rows(['standard', 'waiver'])}
    </dl>
    ${formatAlike(told)}
  </article>`;
}

/** A sentence, with what is CSS or code in it set as code. */
function formatCss(words: string): Html {
  const pieces = splitCode(cleanLine(words));
  return html`${pieces.map(({ text, code }) => (code ? html`<code>${text}</code>` : html`${text}`))}`;
}

function formatRow({ label, words }: Told['rows'][number]): Html {
  return html`<dt>${label}</dt>
    <dd>${formatCss(words)}</dd>`;
}

function formatAlso({ also }: Told): Html | null {
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

function formatTable({ measured: table }: Told): Html | null {
  if (table.rows.length === 0) return null;
  const named = table.rows.some(({ slot }) => slot);
  const rows = table.rows.map(({ slot, width, what }) => [
    ...(named ? [cleanLine(slot)] : []),
    ...[cleanLine(width), what],
  ]);
  return html`<dt>measured</dt>
    <dd>
      ${formatHtmlTable([...(named ? ['Slot'] : []), 'Window', 'What'], rows)}
      ${table.more > 0 ? html`<span class="faint">${formatMore(table)}</span>` : null}
    </dd>`;
}

/** The line of the source, the faulty piece underlined. */
function formatSource(where: Finding['where'], text: string): Html | null {
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

function formatMended({ corrected }: Told): Html | null {
  if (corrected.length === 0) return null;
  return html`<dt>corrected</dt>
    <dd>
      <pre><code>${corrected.join('\n')}</code></pre>
    </dd>`;
}

/** The same at other places: a line each. */
function formatAlike({ alike }: Told): Html | null {
  if (alike.length === 0) return null;
  const rows = alike.slice(0, MOST_ALIKE).map(
    ({ number, level, place, message }) =>
      html`<li>
        <span class="number small ${level}"><i>${number}</i></span> ${place}: ${formatCss(message)}
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
