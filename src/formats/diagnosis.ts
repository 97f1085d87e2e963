import type { Diagnosis } from '../core/doctor/diagnose.js';
import { cleanLine } from './clean.js';
import type { Paint } from './paint.js';
import { SHAPES } from './text-grid.js';
import { wrap } from './wrap.js';

const LABEL = 13;

/** What the doctor found, a line an item, and what to do under those that need it. */
export function formatDiagnoses(
  diagnoses: readonly Diagnosis[],
  { paint, width }: { paint: Paint; width: number },
): string {
  const marks = {
    good: paint.sound(SHAPES.sound),
    note: paint.concern(SHAPES.concern),
    bad: paint.blocker(SHAPES.blocker),
  };
  const indent = ' '.repeat(LABEL + 2);
  const lines = diagnoses.map(({ item, state, words, todo }) => {
    const head = `${marks[state]} ${item.padEnd(LABEL)}`;
    const told = wrap(cleanLine(words), width, indent, head);
    return todo === null ? told : `${told}\n${wrap(paint.strong(todo), width, indent)}`;
  });
  const bad = diagnoses.filter(({ state }) => state === 'bad').length;
  const end = bad > 0 ? 'Audits cannot run here yet.' : 'Audits run here.';
  return `${lines.join('\n')}\n\n${paint.strong(end)}\n`;
}
