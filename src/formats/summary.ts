import type { HouseReport, RunDocument, SnippetReport } from '../core/run.js';
import { countLevels } from '../core/verdict.js';
import { joinWords } from '../core/words/list.js';

/** Under which house, in which slots, at which widths. */
export function formatHead({ file, slots, viewports, ownPage }: HouseReport): string {
  const widths = `${joinWords(viewports.map((viewport) => String(viewport.width)))} px`;
  const names = joinWords(slots.map((slot) => `“${slot.name}”`));
  const page = ownPage ? 'the house’s page' : 'the neutral page';
  const from = file === null ? 'No house file' : `House ${file}`;
  return `${from}: ${slots.length === 1 ? 'slot' : 'slots'} ${names} on ${page}, at ${widths}.`;
}

/** How many findings of each level, as `, 1 blocker, 2 concerns`; '' where there is none. */
export function formatCounts(snippet: SnippetReport): string {
  const counts = countLevels(snippet.findings);
  const words = (['blocker', 'concern', 'advice'] as const)
    .filter((level) => counts[level] > 0)
    .map(
      (level) => `${counts[level]} ${level}${counts[level] > 1 && level !== 'advice' ? 's' : ''}`,
    );
  const waived = snippet.findings.filter(({ waiver }) => waiver && !waiver.expired).length;
  if (waived > 0) words.push(`${waived} waived`);
  return words.length > 0 ? `, ${words.join(', ')}` : '';
}

/** The engines by their usual names. */
export function formatEngines(engines: RunDocument['engines']): string {
  return engines.map(({ version }) => version.replace('HeadlessChrome/', 'Chromium ')).join(', ');
}

/** How many places there are: each slot at each width, in whatever variants it was rendered. */
export function countPlaces({ renders }: SnippetReport): number {
  return renders.filter(({ variant }) => variant === 'as-is').length;
}
