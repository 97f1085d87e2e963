import { flatMap, groupBy, mapPresent } from '../core/lists.js';
import type { LivePage } from '../core/live/live.js';
import { compareLooks, type SeenPieces } from '../core/live/looks.js';
import { nameRoom } from '../core/render.js';
import type { AuditOptions } from './audit.js';
import type { LiveRequest } from './check-live.js';
import type { Faults } from './faults.js';
import { readRasters } from './shots.js';
import { nameRendered, watchPages, type PiecesEvent } from './watch-pages.js';

/**
 * Puts what was found on pages into the slots of the house, to see what it looks like there, and holds that against
 * what it looks like where it is published.
 * @param onPages the pictures of it there
 */
export async function addLooks(
  pages: readonly LivePage[],
  { cleared, ...request }: LiveRequest & { shots: string },
  onPages: readonly PiecesEvent[],
  options: AuditOptions,
  faults: Faults,
): Promise<LivePage[]> {
  const shown = new Set(flatMap(onPages, ({ pieces }) => pieces.map(({ of }) => of)));
  const found = cleared.filter(({ name }) => shown.has(name));
  if (found.length === 0) return [...pages];
  const snippets = found.map(({ name, text }) => ({ name, text }));
  const standing = { show: found };
  // Nothing is judged of them again: they are only to be seen.
  const plain = { ...request, snippets, standing, only: [], ranges: false };
  const inSlots = await watchPages(plain, options, faults);
  const getRaster = readRasters(request.shots);
  const looked: LivePage[] = [];
  for (const [i, page] of pages.entries()) {
    const here = onPages.filter(({ render }) => nameRendered(render) === request.snippets[i]!.name);
    const standings: LivePage['standings'] = [];
    for (const one of page.standings) {
      const own = inSlots.pieces.filter(({ render }) => nameRendered(render) === one.name);
      const [house, there] = [own, here].map((all) => listSeen(all, one.name));
      standings.push({ ...one, pictures: await compareLooks(house!, there!, getRaster) });
    }
    looked.push({ ...page, standings });
  }
  return looked;
}

/** Slot by slot and window by window; of several loads that which has most copies. */
function listSeen(events: readonly PiecesEvent[], name: string): SeenPieces[] {
  const all = events.map(({ render, pieces }): SeenPieces => {
    const { viewport, insert, snippets } = render;
    return {
      slot: nameRoom({ slot: snippets[0]!.slot, insert }),
      viewport: viewport.name,
      width: viewport.width,
      shots: mapPresent(pieces, ({ of, shot }) => (of === name ? shot : null)),
    };
  });
  const byPlace = groupBy(all, ({ slot, viewport }) => JSON.stringify([slot, viewport]));
  const best = [...byPlace.values()].map((same) =>
    same.reduce((most, one) => (one.shots.length > most.shots.length ? one : most)),
  );
  // Loads end in whatever order.
  return best.sort((a, b) => a.width - b.width || (a.slot < b.slot ? -1 : 1));
}
