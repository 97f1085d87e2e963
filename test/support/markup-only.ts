import { CHECKS } from '../../src/checks/index.js';
import type { Check } from '../../src/core/check.js';
import type { House } from '../../src/core/house/house.js';
import { getDefaultHouse } from '../../src/core/house/read.js';
import { judgeSnippet, type JudgedReport } from '../../src/core/judge/judge.js';
import { readMarkup } from '../../src/core/markup/markup.js';

/** What is told of a snippet, named `x`, by its markup alone. */
export function judgeMarkup(
  text: string,
  checks: readonly Check[] = CHECKS,
  house: House = getDefaultHouse(),
): JudgedReport {
  return judgeSnippet({
    snippet: { name: 'x', path: null, text },
    markup: readMarkup(text),
    house,
    evidence: [],
    baselines: new Map(),
    checks,
    today: '2026-06-01',
    markupOnly: 'only the markup was read',
  }).report;
}
