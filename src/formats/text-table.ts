import stringWidth from 'string-width';
import type { Paint } from './paint.js';
import { pad } from './text-grid.js';

/**
 * The lines of a table, its heads faint. Cells are clean already.
 * @param numbers the columns that stand to the right
 */
export function formatTable<C extends string>(
  heads: Record<C, string>,
  cells: readonly Record<C, string>[],
  paint: Paint,
  numbers: readonly C[] = [],
): string[] {
  const columns = Object.keys(heads) as C[];
  const rows = [heads, ...cells];
  const widths = columns.map((name) => Math.max(...rows.map((row) => stringWidth(row[name]))));
  return rows.map((row, i) => {
    const line = columns.map((name, at) =>
      numbers.includes(name) ? row[name].padStart(widths[at]!) : pad(row[name], widths[at]!),
    );
    const told = `    ${line.join('  ')}`.trimEnd();
    return i === 0 ? paint.faint(told) : told;
  });
}
