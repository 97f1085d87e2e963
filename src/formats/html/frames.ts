import type { SnippetReport } from '../../core/run.js';
import { clean } from '../clean.js';
import { listFitCells, nameFrame, type FrameFitReport } from '../frame-fit.js';
import { formatHtmlTable } from './table.js';
import { html, type Html } from './template.js';

/** What each frame has and what its document needs; the styles that make it fit, to be copied. */
export function formatHtmlFrames({ frameFit }: SnippetReport): Html | null {
  if (frameFit.length === 0) return null;
  const unfit = frameFit.filter(({ fits }) => !fits).length;
  const sum =
    unfit === 0
      ? 'all fit'
      : `${unfit} of ${frameFit.length} ${unfit === 1 ? 'does' : 'do'} not fit`;
  return html`<details class="whole">
    <summary>Frames and what fits them: ${sum}</summary>
    ${frameFit.map(formatFit)}
  </details>`;
}

const HEADS = ['Slot', 'Window', 'Frame', 'Height that fits'];

function formatFit(fit: FrameFitReport): Html {
  const rows = listFitCells(fit).map(({ slot, window, size, fits }) => [slot, window, size, fits]);
  return html`${formatHtmlTable(HEADS, rows, nameFrame(fit))}
  ${fit.css === null ? null : html`<pre tabindex="0"><code>${clean(fit.css)}</code></pre>`}`;
}
