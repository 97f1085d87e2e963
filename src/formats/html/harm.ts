import type { Shot } from '../../core/evidence.js';
import { nameRoom } from '../../core/render.js';
import type { RenderReport, SnippetReport } from '../../core/run.js';
import { cleanLine } from '../clean.js';
import { formatShot, type ShotBytes } from './sheet.js';
import { html, type Html } from './template.js';

type Harmed = RenderReport & { harm: NonNullable<RenderReport['harm']> };

/** Where the page around is harmed: that piece of it without the snippet and with it, in the narrowest and the widest window. */
export function formatHarm(snippet: SnippetReport, shots: ShotBytes): Html | null {
  const harmed = snippet.renders.filter((one): one is Harmed => one.harm !== null);
  const byWidth = [...harmed].sort((a, b) => a.width - b.width);
  const told = [...new Set([byWidth[0], byWidth.at(-1)])].filter((one) => one !== undefined);
  if (told.length === 0) return null;
  return html`<div class="sheet">${told.map((one) => formatPair(one, shots))}</div>`;
}

function formatPair(render: Harmed, shots: ShotBytes): Html {
  const { harm, width } = render;
  const place = `${cleanLine(nameRoom(render))}, ${width} px`;
  return html`<div class="row">
    <h3 class="slot">The page around, ${place}</h3>
    <div class="shots">
      ${formatFigure('without the snippet', harm.without, width, shots)}
      ${formatFigure('with the snippet', harm.with, width, shots)}
    </div>
  </div>`;
}

function formatFigure(state: string, shot: Shot | null, width: number, shots: ShotBytes): Html {
  const picture = formatShot(shot, shots, `The page around at ${width} px, ${state}`);
  return html`<figure style="flex: ${width} ${width} 0; max-width: ${width}px">
    <figcaption><b>${state}</b></figcaption>
    <div class="shot">${picture}</div>
  </figure>`;
}
