import type { Evidence, WidthSpan } from '../evidence.js';
import { flatMap } from '../lists.js';
import { isOneKind, type Render } from '../render.js';
import { gatherRooms, toWidth } from './rooms.js';
import { covers, isNoNews } from './spans.js';

/** So many windows are rendered besides for each slot. */
const MOST = 4;

/** The windows besides those rendered in which something is too wide that fits in all of them: where it is widest. */
export function planBetween(evidence: readonly Evidence[]): Render[] {
  const names = evidence.map(({ render }) => render.viewport.name);
  return flatMap(gatherRooms(evidence), (renders) =>
    chooseWindows(renders).map(({ render, span }) => toWidth(render, span.at, names)),
  );
}

/** A span, and the render that stands for its windows. */
interface Found {
  render: Render;
  span: WidthSpan;
}

/** @param renders of one slot */
function chooseWindows(renders: readonly Evidence[]): Found[] {
  const found = flatMap(renders, ({ render, widths }) =>
    widths.spans.map((span): Found => ({ render, span })),
  ).sort((a, b) => rank(a.span) - rank(b.span) || b.span.most - a.span.most);
  const seen: Pick<Render, 'viewport'>[] = renders.map(({ render }) => render);
  const chosen: Found[] = [];
  for (const one of found) {
    const same = found.filter(({ span }) => isNoNews(span, one.span));
    const isSeen = same.some(({ render, span }) =>
      seen.some(
        ({ viewport }) => isOneKind(viewport, render.viewport) && covers(span, viewport.width),
      ),
    );
    if (isSeen || chosen.length === MOST) continue;
    chosen.push(one);
    seen.push({ viewport: { ...one.render.viewport, width: one.span.at } });
  }
  return chosen;
}

function rank({ for: what }: WidthSpan): number {
  return what === 'slot' ? 1 : 0;
}
