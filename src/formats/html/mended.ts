import { nameWindows } from '../../core/compare/pictures.js';
import { flatMap } from '../../core/lists.js';
import type { MendedSnippet } from '../../core/mend/work.js';
import type { RunDocument } from '../../core/run.js';
import { countWords } from '../../core/words/list.js';
import { formatMinute } from '../../core/words/time.js';
import { clean, cleanLine } from '../clean.js';
import { describeMended, listOutcome, makePatch, nameVerdicts } from '../mended.js';
import { formatBeside, loadBeside } from './beside.js';
import { formatPart, formatToldPage } from './page.js';
import type { GetShot } from './report.js';
import type { ShotBytes } from './sheet.js';
import { html, type Html } from './template.js';

/** What was mended, with pictures before and after, as one HTML file that asks for nothing outside. */
export async function formatMendedPage(
  all: readonly MendedSnippet[],
  { tool, startedAt }: Pick<RunDocument, 'tool' | 'startedAt'>,
  getShot: GetShot,
): Promise<string> {
  const shots = await loadBeside(
    flatMap(all, ({ pictures }) => pictures),
    getShot,
  );
  const title =
    all.length === 1 ? cleanLine(all[0]!.before.name) : countWords(all.length, 'snippet');
  return formatToldPage({
    title: `Mended: ${title}`,
    heading: title,
    about: html`<p class="says">${describeMended(all)}</p>
      <p class="faint">Mended on ${formatMinute(startedAt)} UTC with Mivket ${tool.version}.</p>`,
    main: all.map((one) => formatOne(one, shots)),
    foot: 'A window is shown where it looks otherwise since; areas that differ have a dashed outline, what was only pushed up or down is no difference.',
  });
}

function formatOne(mended: MendedSnippet, shots: ShotBytes): Html {
  const { before, after, pictures } = mended;
  const patch = makePatch(before, after);
  const different = pictures.filter(({ alike }) => alike === false);
  const alike = pictures.filter((row) => row.alike);
  return formatPart(
    cleanLine(before.name),
    nameVerdicts(mended),
    html`<dl>
        ${listOutcome(mended).map(
          ([what, words]) =>
            html`<dt>${what}</dt>
              <dd>${cleanLine(words)}</dd>`,
        )}
        ${
          alike.length > 0
            ? html`<dt>looks</dt>
                <dd>as before in ${cleanLine(nameWindows(alike))}</dd>`
            : null
        }
      </dl>
      ${patch === null ? null : html`<pre tabindex="0"><code>${clean(patch)}</code></pre>`}
      ${different.map((row) => formatBeside(row, ['before', 'after'], shots))}`,
  );
}
