import type { Comparison } from '../../core/compare/candidates.js';
import { joinWords } from '../../core/words/list.js';
import { formatMinute } from '../../core/words/time.js';
import { cleanLine } from '../clean.js';
import {
  describeWhere,
  IN_ALL,
  IN_SOME,
  listBest,
  listDifferences,
  listLooks,
  listMeasures,
  listUnseen,
  type Row,
} from '../compared.js';
import { formatBeside, loadBeside } from './beside.js';
import { formatPlainList, formatToldPage } from './page.js';
import type { GetShot } from './report.js';
import { formatShape } from './shapes.js';
import { html, type Html } from './template.js';

/** Candidates side by side, as one HTML file that asks for nothing outside. */
export async function formatComparisonPage(
  comparison: Comparison,
  getShot: GetShot,
): Promise<string> {
  const { candidates, pictures } = comparison;
  const names = candidates.map(({ name }) => cleanLine(name));
  const shots = await loadBeside(pictures, getShot);
  return formatToldPage({
    heading: joinWords(names),
    about: formatAbout(comparison),
    main: html`${formatTable('', listMeasures(comparison), names)}
    ${formatFindings(comparison, names)}
    ${comparison.pictures.map((row) => formatBeside(row, names, shots))}`,
    foot: 'Each is held against the first of them. Areas in which they differ have a dashed outline; what was only pushed up or down is no difference.',
  });
}

function formatAbout(comparison: Comparison): Html {
  const { startedAt, tool } = comparison;
  const lines = [...listBest(comparison), ...listLooks(comparison), ...listUnseen(comparison)];
  return html`<p class="says">${cleanLine(describeWhere(comparison))}</p>
    ${formatPlainList(lines.map(cleanLine))}
    <p class="faint">Compared on ${formatMinute(startedAt)} UTC with Mivket ${tool.version}.</p>`;
}

/** @param toHead how what a line is about is written, where that is more than words */
function formatTable<R extends Row>(
  title: string,
  rows: readonly R[],
  names: readonly string[],
  toHead: (row: R) => Html | string = ({ what }) => what,
): Html {
  return html`<div class="wide">
    <table class="beside">
      <thead>
        <tr>
          <th scope="col">${title}</th>
          ${names.map((name) => html`<th scope="col">${name}</th>`)}
        </tr>
      </thead>
      <tbody>
        ${rows.map(
          (row) =>
            html`<tr>
              <th scope="row">${toHead(row)}</th>
              ${row.values.map((value) => html`<td>${value}</td>`)}
            </tr>`,
        )}
      </tbody>
    </table>
  </div>`;
}

function formatFindings(comparison: Comparison, names: readonly string[]): Html[] {
  const rows = listDifferences(comparison);
  const { common } = comparison;
  const some = formatTable(
    IN_SOME,
    rows,
    names,
    ({ level, what }) => html`<span class="${level}">${formatShape(level)} ${what}</span>`,
  );
  return [
    ...(rows.length > 0 ? [some] : []),
    ...(common.length > 0 ? [html`<p class="faint">${IN_ALL}: ${common.join(', ')}</p>`] : []),
  ];
}
