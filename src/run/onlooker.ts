import { findPieces } from '../core/live/pieces.js';
import type { Onlooker } from '../render/standing.js';
import type { Events } from './events.js';
import type { Means } from './means.js';
import type { AuditRequest } from './request.js';

/** Tells by events what stands in pages, and what of it there are pictures of. @param base what addresses in them are counted from */
export function makeOnlooker(
  { show }: NonNullable<AuditRequest['standing']>,
  base: string,
  { events, shots }: Pick<Means, 'shots'> & { events: Events },
): Onlooker {
  return {
    tell: (render, texts) => events.tell({ type: 'standing', render, texts }),
    choose: (texts) => findPieces(show, texts, base),
    show: async (render, pieces) => {
      for (const { taken } of pieces) await shots?.add(taken.shot.hash, taken.bytes);
      const shown = pieces.map(({ of, taken }) => ({ of, shot: taken.shot }));
      events.tell({ type: 'pieces', render, pieces: shown });
    },
  };
}
