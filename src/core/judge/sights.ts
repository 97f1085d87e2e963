import type { Evidence, Source } from '../evidence.js';
import type { Markup } from '../markup/markup.js';
import { sumByHost } from '../measure/hosts.js';
import type { RenderReport } from '../run.js';

type Sights = Pick<RenderReport, 'traffic' | 'frames' | 'media'>;

/** What of a render a reader may want to look up, whether anything is wrong with it or not. */
export function reportSights(markup: Markup, { traffic, frames, media }: Evidence): Sights {
  return {
    traffic: sumByHost(traffic),
    frames: frames.map(({ tag, from, address, box, inner = null }) => {
      const { width, height } = box;
      return { tag, line: getLine(markup, from), address, width, height, inner };
    }),
    media: media.map((one) => {
      const { tag, address, autoplay, muted, started, sound, duration } = one;
      const { width, height } = one.box;
      const line = getLine(markup, one.from);
      return { tag, line, address, width, height, autoplay, muted, started, sound, duration };
    }),
  };
}

function getLine(markup: Markup, from: Source): number | null {
  return 'offset' in from
    ? markup.place({ offset: from.offset, endOffset: from.offset }).line
    : null;
}
