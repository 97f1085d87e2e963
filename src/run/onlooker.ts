import { findPieces } from '../core/live/pieces.js';
import type { Onlooker } from '../render/standing.js';
import { readMarkup } from '../core/markup/markup.js';
import type { TakenShot } from '../render/steps/shot.js';
import type { AuditEvent } from './events.js';
import type { AuditRequest } from './request.js';

/** Who is told, and who takes the pictures. */
interface Listening {
  tell(event: AuditEvent): void;
  add(taken: TakenShot): Promise<void>;
}

/** Tells by events what stands in pages, and what of it there are pictures of. @param base what addresses in them are counted from */
export function makeOnlooker(
  { show }: NonNullable<AuditRequest['standing']>,
  base: string,
  { tell, add }: Listening,
): Onlooker {
  const wanted = show.map(({ name, text }) => ({ name, markup: readMarkup(text) }));
  return {
    tell: (render, texts) => tell({ type: 'standing', render, texts }),
    choose: (texts) => findPieces(wanted, texts, base),
    show: async (render, pieces) => {
      for (const { taken } of pieces) await add(taken);
      const shown = pieces.map(({ of, taken }) => ({ of, shot: taken.shot }));
      tell({ type: 'pieces', render, pieces: shown });
    },
  };
}
