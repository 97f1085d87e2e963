import type { ChangedSnippet, RunComparison } from '../../core/compare/runs.js';
import { flatMap } from '../../core/lists.js';
import { countWords } from '../../core/words/list.js';
import { cleanLine } from '../clean.js';
import { listFound, tellRun, tellVerdicts } from '../compared-runs.js';
import { formatBeside, loadBeside } from './beside.js';
import { formatPlainList, formatPart, formatToldPage } from './page.js';
import type { GetShot } from './report.js';
import { formatShape } from './shapes.js';
import type { ShotBytes } from './sheet.js';
import { html, type Html } from './template.js';

/** What is new, gone and otherwise in the second of two runs, as one HTML file that asks for nothing outside. */
export async function formatRunsPage(comparison: RunComparison, getShot: GetShot): Promise<string> {
  const { before, after, gone, changed, same, tool } = comparison;
  const shots = await loadBeside(
    flatMap(changed, ({ pictures }) => pictures),
    getShot,
  );
  const others = [
    ...comparison.new.map(({ name, verdict }) => `${name} is new: ${verdict.toUpperCase()}`),
    ...gone.map((name) => `${name} is gone`),
    `${countWords(same, 'snippet')} as before`,
  ];
  return formatToldPage({
    heading: `${cleanLine(before.name)} and ${cleanLine(after.name)}`,
    about: html`${formatPlainList([before, after].map(tellRun))}
      ${formatPlainList(others.map(cleanLine))}
      <p class="faint">Judged by Mivket ${tool.version}, both.</p>`,
    main: changed.map((one) => formatChangedSnippet(one, shots)),
    foot: 'A window is shown where it looks otherwise since, as far as both runs have pictures; areas that differ have a dashed outline, what was only pushed up or down is no difference.',
  });
}

function formatChangedSnippet(one: ChangedSnippet, shots: ShotBytes): Html {
  return formatPart(
    cleanLine(one.name),
    tellVerdicts(one),
    html`<dl>
        ${listFound(one).map(
          ([what, found]) =>
            html`<dt>${what}</dt>
              <dd>
                ${found.map(
                  ({ id, level, brief }) =>
                    html`<div>
                      <span class="${level}">${formatShape(level)} ${id}</span>: ${cleanLine(brief)}
                    </div>`,
                )}
              </dd>`,
        )}
        ${one.unseen.map(
          (why) =>
            html`<dt>not seen</dt>
              <dd>${cleanLine(why)}</dd>`,
        )}
      </dl>
      ${one.pictures.map((row) => formatBeside(row, ['before', 'after'], shots))}`,
  );
}
