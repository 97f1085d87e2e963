import type { Finding } from '../../core/run.js';
import { getMendedLines } from '../../core/mend/apply.js';
import { clean, cleanLine } from '../clean.js';
import { formatMeasured, formatWaiver } from '../measured.js';
import { formatShape } from './shapes.js';
import { html, type Html } from './template.js';

/** A longer line is cut, and a longer corrected one left out: nobody reads it in a report. */
const LONGEST = 2000;

/** One finding with all that is to be said of it. */
export function formatFinding(
  finding: Finding,
  number: number,
  anchor: string,
  text: string,
  renders: number,
): Html {
  const { id, level, where, waiver, confirmed } = finding;
  const waived = waiver && !waiver.expired;
  const notes = `${confirmed ? '' : ', from the markup alone'}${waived ? ', waived' : ''}`;
  return html`<article id="${anchor}-${number}" aria-labelledby="${anchor}-${number}-name">
    <header>
      <span class="number ${level}"><i>${number}</i></span>
      <span class="level ${level}">${formatShape(level)} ${level}</span>
      <h3 id="${anchor}-${number}-name">${id}</h3>
      <span class="faint">line ${where.line}, column ${where.column}${notes}</span>
    </header>
    <p class="says">${cleanLine(finding.message)}</p>
    ${formatSource(finding, text)}
    <dl>
      ${formatRow('measured', formatMeasured(finding, renders))}
      ${formatRow('visitors', finding.notice)} ${formatRow('change', finding.cure)}
      ${formatMended(finding, text)} ${formatRow('standard', finding.standard ?? '')}
      ${formatRow('waiver', formatWaiver(waiver))}
    </dl>
  </article>`;
}

function formatRow(label: string, words: string): Html | null {
  return words
    ? html`<dt>${label}</dt>
        <dd>${cleanLine(words)}</dd>`
    : null;
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

function formatMended({ mend }: Finding, text: string): Html | null {
  const line = mend ? clean(getMendedLines(text, mend)) : '';
  if (!line || line.length > LONGEST) return null;
  return html`<dt>corrected</dt>
    <dd>
      <pre><code>${line}</code></pre>
    </dd>`;
}
