import stringWidth from 'string-width';
import { nameRoom } from '../core/render.js';
import type { SnippetReport } from '../core/run.js';
import { getWorst } from '../core/verdict.js';
import { cleanLine } from './clean.js';
import type { Paint } from './paint.js';

/** Levels are told by a shape as well as by a colour. */
export const SHAPES = {
  blocker: '■',
  concern: '◧',
  advice: '□',
  waived: '◇',
  sound: '·',
} as const;

/** A small grid of slots × widths: the heaviest finding seen at each. */
export function formatGrid(
  snippet: SnippetReport,
  { paint, width }: { paint: Paint; width: number },
): string {
  const { renders } = snippet;
  if (renders.length === 0) return '';
  const columns = [...new Set(renders.map(getHead))].sort((a, b) => parseFloat(a) - parseFloat(b));
  const names = [...new Set(renders.map(nameRow))];
  const label = Math.max(...names.map((name) => stringWidth(name)), 4);
  const cell = Math.max(...columns.map((column) => column.length), 4) + 2;
  const perRow = Math.max(1, Math.floor((width - label - 2) / cell));
  const rows: string[] = [];
  for (let start = 0; start < columns.length; start += perRow) {
    const part = columns.slice(start, start + perRow);
    const head = part.map((column) => column.padStart(cell)).join('');
    rows.push(paint.faint(`  ${''.padEnd(label)}${head}`));
    for (const name of names) {
      const marks = part.map((column) => {
        const here = renders.filter((one) => nameRow(one) === name && getHead(one) === column);
        return `${''.padStart(cell - 1)}${mark(here, paint)}`;
      });
      rows.push(`  ${pad(cleanLine(name), label)}${marks.join('')}`);
    }
  }
  return rows.join('\n');
}

/** What was tried besides has a row of its own. */
function nameRow(render: SnippetReport['renders'][number]): string {
  return [nameRoom(render), ...(render.condition === '' ? [] : [render.condition])].join(', ');
}

function getHead({ width, density }: SnippetReport['renders'][number]): string {
  return density === 1 || density === 2 || density === 3 ? String(width) : `${width}@${density}`;
}

function mark(renders: SnippetReport['renders'], paint: Paint): string {
  if (renders.length === 0) return ' ';
  const worst = renders.map((render) => render.worst).reduce(getWorst, null);
  if (worst !== null) return paint[worst](SHAPES[worst]);
  const waived = renders.some((render) => render.waived);
  return waived ? paint.faint(SHAPES.waived) : paint.sound(SHAPES.sound);
}

/** Text filled up to so many columns. */
export function pad(text: string, width: number): string {
  return text + ' '.repeat(Math.max(0, width - stringWidth(text)));
}
