import { formatPixels } from '../core/measure/units.js';
import type { SnippetReport } from '../core/run.js';
import { cleanLine } from './clean.js';

export type FrameFitReport = SnippetReport['frameFit'][number];

/** A frame in one place, in the words of a table. */
export interface FitCells {
  slot: string;
  window: string;
  size: string;
  fits: string;
}

/** What is told of a frame at each place. */
export function listFitCells({ by, rows }: FrameFitReport): FitCells[] {
  return rows.map(({ slot, window, width, height, needed }) => ({
    slot: cleanLine(slot),
    window: formatPixels(window),
    size: `${Math.round(width)} × ${Math.round(height)} px`,
    fits: needed === null ? OTHERS[by] : formatPixels(needed),
  }));
}

/** Where no height has to be told. */
const OTHERS: Record<FrameFitReport['by'], string> = {
  content: 'as it is',
  proportion: 'by its proportion',
  nothing: 'whatever it is given',
};

/** Which frame is meant. */
export function nameFrame({ line, name }: FrameFitReport): string {
  const where = line === null ? 'made by a script' : `line ${line}`;
  return `${cleanLine(name)} (${where})`;
}

/** Those for which there is something to do. */
export function listUnfit({ frameFit }: Pick<SnippetReport, 'frameFit'>): FrameFitReport[] {
  return frameFit.filter(({ fits }) => !fits);
}
