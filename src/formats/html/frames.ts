import type { SnippetReport } from '../../core/run.js';
import { clean } from '../clean.js';
import { listFitCells, nameFrame, type FrameFitReport } from '../frame-fit.js';
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

function formatFit(fit: FrameFitReport): Html {
  const rows = listFitCells(fit).map(
    ({ slot, window, size, fits }) =>
      html`<tr>
        <td>${slot}</td>
        <td>${window}</td>
        <td>${size}</td>
        <td>${fits}</td>
      </tr>`,
  );
  return html`<table class="measured">
      <caption>
        ${nameFrame(fit)}
      </caption>
      <thead>
        <tr>
          <th>Slot</th>
          <th>Window</th>
          <th>Frame</th>
          <th>Height that fits</th>
        </tr>
      </thead>
      <tbody>
        ${rows}
      </tbody>
    </table>
    ${fit.css === null ? null : html`<pre tabindex="0"><code>${clean(fit.css)}</code></pre>`}`;
}
