import type { Level } from '../core/house/house.js';
import type { Finding, SnippetReport } from '../core/run.js';
import { counts } from '../core/verdict.js';
import type { Block } from './blocks.js';
import { formatCorrected } from './corrected.js';
import { formatWaiver, listMeasured, type MeasuredTable } from './measured.js';
import { countPlaces, describeDoubt } from './summary.js';

/** All that is said of one cause, in the words and the order of every format; `` ` `` stands around code. */
export interface Told {
  number: number;
  /** How it counts: what is waived does not. */
  mark: Level | 'waived';
  level: Level;
  id: string;
  where: Finding['where'];
  /** Line, column, and what is not certain about it. */
  place: string;
  message: string;
  measured: MeasuredTable;
  /** What else the same change cures. */
  also: { level: Level; id: string; message: string }[];
  /** What visitors notice, what to change, and the rest, each with its name; none is empty. */
  rows: { label: 'visitors' | 'change' | 'standard' | 'waiver'; words: string }[];
  /** The lines as they read with the change; empty where there is none, or where the change itself says it. */
  corrected: string[];
  /** The same at other places. */
  alike: { number: number; level: Level; line: number; place: string; message: string }[];
}

/** What is to be said of a block. */
export function tellBlock(block: Block, snippet: SnippetReport): Told {
  const { number, main, also, cause, alike } = block;
  const { level, id, where, message } = main;
  const waived = !counts(main);
  const corrected = cause.mend && formatCorrected(snippet.text, cause.mend);
  const rows: Told['rows'] = [
    { label: 'visitors', words: main.notice },
    { label: 'change', words: listCures(block).join(' ') },
    { label: 'standard', words: main.standard ?? '' },
    { label: 'waiver', words: formatWaiver(main.waiver) },
  ];
  return {
    ...{ number, level, id, where, message },
    mark: waived ? 'waived' : level,
    place: `${formatPlace(main)}${describeDoubt(main)}${waived ? ' · waived' : ''}`,
    measured: listMeasured(block, countPlaces(snippet)),
    also: also.map((one) => ({ level: one.level, id: one.id, message: one.message })),
    rows: rows.filter(({ words }) => words !== ''),
    corrected: corrected && !corrected.atEnd ? corrected.lines : [],
    alike: alike.map((one) => ({
      ...{ number: one.cause, level: one.level, message: one.message },
      ...{ line: one.where.line, place: formatPlace(one) },
    })),
  };
}

function formatPlace({ where }: Finding): string {
  return `line ${where.line}, column ${where.column}`;
}

/** What to change for the gravest, and for those that its change leaves as they are. */
function listCures({ main, also, cause }: Block): string[] {
  const cures = [main, ...also.filter(({ id }) => !cause.cures.includes(id))].map(
    ({ cure }) => cure,
  );
  return [...new Set(cures)];
}
