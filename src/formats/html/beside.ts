import type { PictureRow } from '../../core/compare/pictures.js';
import { flatMap } from '../../core/lists.js';
import { cleanLine } from '../clean.js';
import { loadShotBytes, type GetShot } from './report.js';
import { formatShot, placeIn, type ShotBytes } from './sheet.js';
import { html, type Html } from './template.js';

type Picture = NonNullable<PictureRow['of'][number]>;

/** The bytes of all their pictures, as far as they are there. */
export function loadBeside(rows: readonly PictureRow[], getShot: GetShot): Promise<ShotBytes> {
  return loadShotBytes(
    flatMap(rows, ({ of }) => of.map((one) => one?.shot)),
    getShot,
  );
}

/** One slot in one window with each of several in it, side by side. @param names of these, clean */
export function formatBeside(row: PictureRow, names: readonly string[], shots: ShotBytes): Html {
  return html`<div class="row">
    <h2 class="slot">
      Slot ${cleanLine(row.slot)}, ${row.width} px${row.alike ? ': they look alike' : ''}
    </h2>
    <div class="shots">${row.of.map((one, i) => formatFigure(one, names[i]!, row, shots))}</div>
  </div>`;
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
