import type { SnippetReport } from '../core/run.js';
import { listFitCells, listUnfit, nameFrame, type FrameFitReport } from './frame-fit.js';
import type { Paint } from './paint.js';
import { formatTable } from './text-table.js';

const HEADS = { slot: 'slot', window: 'window', size: 'frame', fits: 'height that fits' } as const;

/** For each frame that does not fit what it has and what it needs, and the styles to paste. */
export function formatFrames(snippet: SnippetReport, { paint }: { paint: Paint }): string {
  return listUnfit(snippet)
    .map((fit) => formatFit(fit, paint))
    .join('\n\n');
}

function formatFit(fit: FrameFitReport, paint: Paint): string {
  const lines = formatTable(HEADS, listFitCells(fit), paint);
  // Not wrapped: it is there to be copied.
  const css = (fit.css ?? '').split('\n').map((line) => `    ${line}`);
  const head = `  Frame ${nameFrame(fit)}`;
  return [head, ...lines, ...(fit.css ? [paint.faint('    to paste:'), ...css] : [])].join('\n');
}
