import { groupBy } from '../../core/lists.js';
import type { Box, Shot } from '../../core/evidence.js';
import { nameRoom, nameState } from '../../core/render.js';
import type { RenderReport, SnippetReport } from '../../core/run.js';
import { formatPixels } from '../../core/measure/units.js';
import { cleanLine } from '../clean.js';
import { formatShape } from './shapes.js';
import { html, type Html } from './template.js';

type Mark = RenderReport['marks'][number];
type Shown = RenderReport & { shot: Shot };

/** The bytes of shots by their hash, base64; what is not among them is told to be missing. */
export type ShotBytes = ReadonlyMap<string, string>;

/** The contact sheet of a snippet: a row a slot, its widths side by side at one scale. */
export function formatSheet(snippet: SnippetReport, shots: ShotBytes): Html | null {
  const taken = snippet.renders.filter((render): render is Shown => isShown(render));
  if (taken.length === 0) return null;
  const slots = [...new Set(taken.map(nameRoom))];
  const rows = slots.map((slot) => {
    const row = taken.filter((render) => nameRoom(render) === slot);
    return html`<div class="row">
      <h3 class="slot">
        Slot ${cleanLine(slot)}${row.some(isBeyond) ? '; the dashed line is the window’s edge' : ''}
      </h3>
      <div class="shots">${row.map((render) => formatFigure(snippet, render, shots))}</div>
    </div>`;
  });
  return html`<div class="sheet">${rows}</div>`;
}

/** What was looked at later, or besides the windows of the house, is shown where something came of it. */
function isShown({ shot, after, condition, worst, waived }: RenderReport): boolean {
  const isPlain = after === null && condition === '';
  return shot !== null && (isPlain || worst !== null || waived);
}

function formatState(render: RenderReport): string {
  const state = render.condition || nameState(render);
  return state && `, ${state}`;
}

function formatFigure(snippet: SnippetReport, render: Shown, shots: ShotBytes): Html {
  const { shot, marks } = render;
  const { region } = shot;
  const edge = isBeyond(render)
    ? html`<span class="edge" style="left: ${percent(render.width / region.width)}"></span>`
    : null;
  const picture = formatShot(shot, shots, describeShot(snippet, render, marks));
  return html`<figure style="flex: ${region.width} ${region.width} 0; max-width: ${region.width}px">
    <figcaption>${formatCaption(render)}</figcaption>
    <div class="shot${marks.length > 0 ? ' marked' : ''}">
      <div class="field">${picture}${edge}${formatMarks(marks, region)}</div>
    </div>
  </figure>`;
}

/** A shot as it was taken, or that it is not there. */
export function formatShot(shot: Shot | null, shots: ShotBytes, alt: string): Html {
  const bytes = shot && shots.get(shot.hash);
  return shot && bytes
    ? html`<img
        src="data:image/png;base64,${bytes}"
        width="${shot.region.width}"
        height="${shot.region.height}"
        alt="${alt}"
      />`
    : html`<span class="missing">The picture is not there.</span>`;
}

/** Whether the picture shows more than the window does. */
function isBeyond({ shot, width }: Shown): boolean {
  return shot.region.width > width + 1;
}

function formatCaption(render: RenderReport): Html {
  const slot = render.slotWidth === null ? '' : `, slot ${formatPixels(render.slotWidth)}`;
  const state = formatState(render);
  return html`${formatShape(render.worst ?? (render.waived ? 'waived' : null))}
    <b>${render.width} px</b><span class="faint">${slot}${state}</span>`;
}

/** What lies on one and the same box has one outline and all its numbers; the heaviest comes first. */
function gatherMarks(marks: readonly Mark[]): Mark[][] {
  return [...groupBy(marks, ({ box }) => JSON.stringify(box)).values()];
}

/** A tag's room, and how near two corners are for their tags to hide each other, px. */
const TAG = 20;
const NEAR = 30;

/** The outlines, and over each its numbers: outside of what it marks, in the strip above the picture where it must be. */
function formatMarks(marks: readonly Mark[], region: Shot['region']): Html[] {
  const groups = gatherMarks(marks);
  const isNear = (a: Mark, b: Mark) =>
    Math.abs(a.box.x - b.box.x) < NEAR && Math.abs(a.box.y - b.box.y) < NEAR;
  return groups.map((group, i) => {
    const before = groups.slice(0, i).filter((other) => isNear(other[0]!, group[0]!));
    return html`${formatOutline(group[0]!, region)}${formatTags(group, region, before.flat().length)}`;
  });
}

function formatOutline({ box, level }: Mark, region: Shot['region']): Html {
  return html`<span
    class="mark ${level}"
    style="${placeIn(box, region)}"
    aria-hidden="true"
  ></span>`;
}

/** Where a box of the page lies on a picture of a region of it, as CSS. */
export function placeIn(box: Box, region: Shot['region']): string {
  return [
    `left: ${percent((box.x - region.x) / region.width)}`,
    `top: ${percent((box.y - region.y) / region.height)}`,
    `width: ${percent(box.width / region.width)}`,
    `height: ${percent(box.height / region.height)}`,
  ].join('; ');
}

/** @param shift the room of so many tags is taken already */
function formatTags(marks: readonly Mark[], region: Shot['region'], shift: number): Html {
  const { box } = marks[0]!;
  const left = percent(Math.max(box.x - region.x, 0) / region.width);
  const top = Math.min(Math.max((box.y - region.y) / region.height, 0), 1);
  const style = [
    `left: min(${left} + ${TAG * shift - 2}px, 100% - ${TAG * marks.length}px)`,
    `bottom: ${percent(1 - top)}`,
  ].join('; ');
  const tags = marks.map((one) => html`<b class="${one.level}"><i>${one.number}</i></b>`);
  return html`<span class="tags" style="${style}" aria-hidden="true">${tags}</span>`;
}

function percent(share: number): string {
  return `${Math.round(share * 1e5) / 1e3}%`;
}

function describeShot(
  { name }: SnippetReport,
  render: RenderReport,
  marks: readonly Mark[],
): string {
  const { width } = render;
  const numbers = [...new Set(marks.map(({ number }) => number))];
  const marked = numbers.length > 0 ? `; outlined: finding ${numbers.join(', ')}` : '';
  const state = formatState(render);
  return `${cleanLine(name)} in the slot ${nameRoom(render)} of a window of ${width} px${state}${marked}`;
}
