import type { Evidence, RequestFact, Source } from '../evidence.js';
import type { Markup } from '../markup/markup.js';
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

/** The heaviest host first. */
function sumByHost(traffic: readonly RequestFact[]): Sights['traffic'] {
  const hosts = new Map<string, Sights['traffic'][number]>();
  for (const { host, wire, unpacked, failed, refused } of traffic) {
    const sum = hosts.get(host) ?? { host, requests: 0, wire: 0, unpacked: 0, failed: 0 };
    sum.requests++;
    // What was refused, or broke off, weighs nothing of its own.
    if (failed !== null || refused !== null) sum.failed++;
    else {
      sum.wire += wire;
      sum.unpacked += unpacked;
    }
    hosts.set(host, sum);
  }
  return [...hosts.values()].sort((a, b) => b.wire - a.wire || a.host.localeCompare(b.host));
}
