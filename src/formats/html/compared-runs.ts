import type { ChangedSnippet, RunComparison } from '../../core/compare/runs.js';
import { flatMap } from '../../core/lists.js';
import { countWords } from '../../core/words/list.js';
import { cleanLine } from '../clean.js';
import { listFound, tellRun, tellVerdicts } from '../compared-runs.js';
import { formatBeside, loadBeside } from './beside.js';
import { formatPage } from './page.js';
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
  const title = `${cleanLine(before.name)} and ${cleanLine(after.name)}`;
  const others = [
    ...comparison.new.map(({ name, verdict }) => `${name} is new: ${verdict.toUpperCase()}`),
    ...gone.map((name) => `${name} is gone`),
    `${countWords(same, 'snippet')} as before`,
  ];
  return formatPage(
    title,
    html`<header class="top">
        <div>
          <h1>${title}</h1>
          <ul class="plain">
            ${[before, after].map((run) => html`<li>${tellRun(run)}</li>`)}
          </ul>
          <ul class="plain">
            ${others.map((line) => html`<li>${cleanLine(line)}</li>`)}
          </ul>
          <p class="faint">Judged by Mivket ${tool.version}, both.</p>
        </div>
      </header>
      <main>${changed.map((one) => formatChangedSnippet(one, shots))}</main>
      <footer>
        <div>
          A window is shown where it looks otherwise since, as far as both runs have pictures; areas
          that differ have a dashed outline, what was only pushed up or down is no difference.
        </div>
      </footer>`,
  );
}

function formatChangedSnippet(one: ChangedSnippet, shots: ShotBytes): Html {
  const name = cleanLine(one.name);
  return html`<section class="snippet" aria-label="${name}">
    <div class="title">
      <h2>${name}</h2>
      <b>${tellVerdicts(one)}</b>
    </div>
    <dl>
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
    ${one.pictures.map((row) => formatBeside(row, ['before', 'after'], shots))}
  </section>`;
}
