import type { Comparison } from '../../core/compare/candidates.js';
import type { PictureRow } from '../../core/compare/pictures.js';
import { flatMap } from '../../core/lists.js';
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
import { formatPage } from './page.js';
import { loadShotBytes, type GetShot } from './report.js';
import { formatShape } from './shapes.js';
import { formatShot, placeIn, type ShotBytes } from './sheet.js';
import { html, type Html } from './template.js';

type Picture = NonNullable<PictureRow['of'][number]>;

/** Candidates side by side, as one HTML file that asks for nothing outside. */
export async function formatComparisonPage(
  comparison: Comparison,
  getShot: GetShot,
): Promise<string> {
  const { candidates, pictures } = comparison;
  const names = candidates.map(({ name }) => cleanLine(name));
  const shots = await loadShotBytes(
    flatMap(pictures, ({ of }) => of.map((one) => one?.shot)),
    getShot,
  );
  return formatPage(
    joinWords(names),
    html`${formatTop(comparison, names)}
      <main>
        ${formatTable('', listMeasures(comparison), names)} ${formatFindings(comparison, names)}
        ${formatPictures(comparison, names, shots)}
      </main>
      <footer>
        <div>
          Each is held against the first of them. Areas in which they differ have a dashed outline;
          what was only pushed up or down is no difference.
        </div>
      </footer>`,
  );
}

function formatTop(comparison: Comparison, names: readonly string[]): Html {
  const { startedAt, tool } = comparison;
  const lines = [...listBest(comparison), ...listLooks(comparison), ...listUnseen(comparison)];
  return html`<header class="top">
    <div>
      <h1>${joinWords(names)}</h1>
      <p class="says">${cleanLine(describeWhere(comparison))}</p>
      <ul class="plain">
        ${lines.map((line) => html`<li>${cleanLine(line)}</li>`)}
      </ul>
      <p class="faint">Compared on ${formatMinute(startedAt)} UTC with Mivket ${tool.version}.</p>
    </div>
  </header>`;
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

function formatPictures(
  { pictures }: Comparison,
  names: readonly string[],
  shots: ShotBytes,
): Html[] {
  return pictures.map(
    (row) =>
      html`<div class="row">
        <h2 class="slot">
          Slot ${cleanLine(row.slot)}, ${row.width} px${row.alike ? ': they look alike' : ''}
        </h2>
        <div class="shots">${row.of.map((one, i) => formatFigure(one, names[i]!, row, shots))}</div>
      </div>`,
  );
}

function formatFigure(
  picture: Picture | null,
  name: string,
  { slot, width }: PictureRow,
  shots: ShotBytes,
): Html {
  const size = picture?.shot.region.width ?? width;
  const differs = picture && picture.areas.length > 0 ? '; where it differs is outlined' : '';
  const alt = `${name} in the slot ${cleanLine(slot)} of a window of ${width} px${differs}`;
  return html`<figure style="flex: ${size} ${size} 0; max-width: ${size}px">
    <figcaption><b>${name}</b></figcaption>
    <div class="shot">
      <div class="field">
        ${formatShot(picture?.shot ?? null, shots, alt)} ${picture ? formatAreas(picture) : null}
      </div>
    </div>
  </figure>`;
}

function formatAreas({ shot, areas }: Picture): Html[] {
  return areas.map(
    (area) =>
      html`<span class="area" style="${placeIn(area, shot.region)}" aria-hidden="true"></span>`,
  );
}
