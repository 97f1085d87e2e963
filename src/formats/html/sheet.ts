import type { Shot } from '../../core/evidence.js';
import type { Mark } from '../../core/judge/marks.js';
import type { SnippetReport } from '../../core/run.js';
import { formatPixels } from '../../core/measure/units.js';
import { cleanLine } from '../clean.js';
import { formatShape } from './shapes.js';
import { html, type Html } from './template.js';

/** What a render looked like, and the culprits on it. */
export interface Sight {
  shot: Shot | null;
  marks: readonly Mark[];
}

/** The bytes of a picture, base64; null where they are not there. */
export type GetPicture = (hash: string) => string | null;

type RenderReport = SnippetReport['renders'][number];

/** The contact sheet of a snippet: a row a slot, its widths side by side at one scale. */
export function formatSheet(
  snippet: SnippetReport,
  sights: readonly Sight[],
  getPicture: GetPicture,
): Html | null {
  const taken = snippet.renders
    .map((render, i) => ({ render, sight: sights[i] }))
    .filter(({ sight }) => sight?.shot);
  if (taken.length === 0) return null;
  const slots = [...new Set(taken.map(({ render }) => render.slot))];
  const rows = slots.map((slot) => {
    const row = taken.filter(({ render }) => render.slot === slot);
    return html`<div class="row">
      <h3 class="slot">
        Slot ${cleanLine(slot)}${row.some(isBeyond) ? '; the dashed line is the window’s edge' : ''}
      </h3>
      <div class="shots">
        ${row.map(({ render, sight }) => formatFigure(snippet, render, sight!, getPicture))}
      </div>
    </div>`;
  });
  return html`<div class="sheet">${rows}</div>`;
}

function formatFigure(
  snippet: SnippetReport,
  render: RenderReport,
  { shot, marks }: Sight,
  getPicture: GetPicture,
): Html {
  const { region } = shot!;
  const bytes = getPicture(shot!.hash);
  const edge = isBeyond({ render, sight: { shot, marks } })
    ? html`<span class="edge" style="left: ${percent(render.width / region.width)}"></span>`
    : null;
  const picture = bytes
    ? html`<img
        src="data:image/png;base64,${bytes}"
        width="${region.width}"
        height="${region.height}"
        alt="${describe(snippet, render, marks)}"
      />`
    : html`<span class="missing">The picture is not there.</span>`;
  return html`<figure style="flex: ${region.width} ${region.width} 0; max-width: ${region.width}px">
    <figcaption>${formatCaption(render)}</figcaption>
    <div class="shot">${picture}${edge}${formatMarks(marks, region)}</div>
  </figure>`;
}

/** Whether the picture shows more than the window does. */
function isBeyond({ render, sight }: { render: RenderReport; sight: Sight | undefined }): boolean {
  return (sight?.shot?.region.width ?? 0) > render.width + 1;
}

function formatCaption(render: RenderReport): Html {
  const slot = render.slotWidth === null ? '' : `, slot ${formatPixels(render.slotWidth)}`;
  return html`${formatShape(render.worst)} <b>${render.width} px</b
    ><span class="faint">${slot}</span>`;
}

/** What lies on one and the same box has one outline and all its numbers; the heaviest comes first. */
function gatherMarks(marks: readonly Mark[]): Mark[][] {
  const groups = new Map<string, Mark[]>();
  for (const mark of marks) {
    const key = JSON.stringify(mark.box);
    groups.set(key, [...(groups.get(key) ?? []), mark]);
  }
  return [...groups.values()];
}

/** A tag's room, and how near two corners are for their tags to hide each other, px. */
const TAG = 20;
const NEAR = 30;

function formatMarks(marks: readonly Mark[], region: Shot['region']): Html[] {
  const groups = gatherMarks(marks);
  const isNear = (a: Mark, b: Mark) =>
    Math.abs(a.box.x - b.box.x) < NEAR && Math.abs(a.box.y - b.box.y) < NEAR;
  return groups.map((group, i) => {
    const before = groups.slice(0, i).filter((other) => isNear(other[0]!, group[0]!));
    return formatOutline(group, region, TAG * before.flat().length);
  });
}

function formatOutline(marks: readonly Mark[], region: Shot['region'], shift: number): Html {
  const { box, level } = marks[0]!;
  const style = [
    `left: ${percent((box.x - region.x) / region.width)}`,
    `top: ${percent((box.y - region.y) / region.height)}`,
    `width: ${percent(box.width / region.width)}`,
    `height: ${percent(box.height / region.height)}`,
  ].join('; ');
  const tags = marks.map((one) => html`<b class="${one.level}">${one.number}</b>`);
  return html`<span class="mark ${level}" style="${style}" aria-hidden="true"
    ><span class="tags" style="left: ${shift - 2}px">${tags}</span></span
  >`;
}

function percent(share: number): string {
  return `${Math.round(share * 1e5) / 1e3}%`;
}

function describe(
  { name }: SnippetReport,
  { slot, width }: RenderReport,
  marks: readonly Mark[],
): string {
  const numbers = [...new Set(marks.map(({ number }) => number))];
  const marked = numbers.length > 0 ? `; outlined: finding ${numbers.join(', ')}` : '';
  return `${cleanLine(name)} in the slot ${slot} of a window of ${width} px${marked}`;
}
