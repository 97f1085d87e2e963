import { defineCheck, makeSeen, type Fact, type RenderOf } from '../../core/check.js';
import { flatMap, mapPresent } from '../../core/lists.js';
import type { House } from '../../core/house/house.js';
import { blameElement, getBlamed } from '../../core/measure/blame.js';
import { isFramedPlayer, atHeight } from '../../core/measure/framed.js';
import { matchesHost, parseAddress } from '../../core/measure/site.js';
import { findProportion, mendHeight } from '../../core/mend/height.js';
import { formatPixels } from '../../core/measure/units.js';
import { getElementKey } from '../../core/search/spans.js';
import { tell } from '../../core/tell.js';

interface Data {
  tag: string;
  /** The least and the greatest ratio of width to height. */
  from: number;
  to: number;
  /** The film's own, where it is that which it differs from; else null. */
  film: number | null;
  /** The proportion that it is to keep, as CSS has it. */
  keeps: string;
}

type Measured = Record<'width' | 'height', number>;

type Needs = 'frames' | 'media';

/** A ratio may differ by this part. */
const MOST = 0.05;

/** A player as it was seen in one place. */
interface Sighted {
  render: RenderOf<Needs>;
  one: Pick<RenderOf<Needs>['frames'][number], 'from' | 'selector' | 'box'> & {
    tag: string;
    attributes?: Record<string, string>;
  };
  film: number | null;
}

export default defineCheck({
  id: 'frame-proportion-lost',
  subject: 'frames',
  level: 'concern',
  title: 'A player changes its proportions',
  decided:
    'The ratio of width to height of a film, or of a frame that plays one (there is one in it, it asks for autoplay or encrypted media, or its host is among the house’s players), differs by more than 5 % between the widths rendered, or from the film’s own. Not of a film that is cut to its box on purpose.',
  standard: 'CSS Box Sizing 4, 4 Aspect Ratios',
  needs: ['frames', 'media'],
  markup: false,
  judge({ markup, house, renders }): Fact<Data, Measured>[] {
    const sighted = flatMap(renders, (render) => listPlayers(render, house));
    const keys = sighted.map(({ one }) => getElementKey(one));
    return mapPresent(new Set(keys), (key) => {
      const all = sighted.filter((_, i) => keys[i] === key);
      const { one } = all[0]!;
      const film = all.find((sighted) => sighted.film !== null)?.film ?? null;
      const lost = findLost(all, film);
      if (!lost) return null;
      const blame = blameElement(markup, one);
      return tell.seen(
        atHeight(markup, blame),
        { tag: one.tag, ...lost, keeps: findProportion(one.attributes ?? {}, film) },
        all.map(({ render, one: { box } }) =>
          makeSeen(render, { width: box.width, height: box.height }),
        ),
      );
    });
  },
  says: ({ tag, from, to, film, keeps }) => ({
    message:
      film === null
        ? `The player’s <${tag}> changes its shape with the width: from ${formatRatio(from)} to ${formatRatio(to)}.`
        : `The <${tag}> has another shape than its film: ${formatRatio(from)}, and the film ${formatRatio(film)}.`,
    notice:
      film === null
        ? 'The film has black bars, or is cut, at some widths.'
        : 'The film has bars at its sides, or is pulled out of shape.',
    cure: `Let its height follow its width: \`width: 100%; height: auto; aspect-ratio: ${keeps}\`.`,
  }),
  mend: ({ keeps }, { culprit }, markup) => {
    const element = getBlamed(markup, { culprit });
    return element && mendHeight(markup, element, { height: 'auto', 'aspect-ratio': keeps });
  },
  measures: ({ width, height }) => `${formatPixels(width)} wide, ${formatPixels(height)} high`,
  brief: () => 'a player that changes its shape',
  samples: [
    { tag: 'iframe', from: 1, to: 2.3, film: null, keeps: '16 / 9' },
    { tag: 'video', from: 3, to: 3, film: 1.78, keeps: '16 / 9' },
  ],
  examples: {
    faulty: [
      {
        name: 'as wide as there is room, and always as high',
        code: '<iframe title="A talk on bean seed" allowfullscreen src="https://player.loam.example/embed/talk" height="320" style="border: 0; width: 100%"></iframe>',
      },
    ],
    sound: [
      {
        name: 'a height that follows the width',
        code: '<iframe title="A talk on bean seed" allowfullscreen src="https://player.loam.example/embed/talk" style="border: 0; width: 100%; aspect-ratio: 16 / 9"></iframe>',
      },
      {
        name: 'a form that is as high everywhere',
        code: '<iframe title="Map of beds" src="https://maps.fernmap.example/embed/glasshouse" style="border: 0; width: 100%; height: 320px"></iframe>',
      },
    ],
  },
});

/** Frames that play film, and films that are not cut to their box on purpose, as far as they are seen. */
function listPlayers(render: RenderOf<Needs>, { players }: House): Sighted[] {
  const hosts = Object.keys(players);
  const isOne = (frame: RenderOf<Needs>['frames'][number]) => {
    const host = parseAddress(frame.address, frame.address)?.hostname ?? '';
    return isFramedPlayer(frame) || hosts.some((one) => matchesHost(one, host));
  };
  const frames = render.frames.filter(isOne).map((one) => {
    const films = one.inner?.media?.filter(({ ratio }) => ratio) ?? [];
    return { one, film: (films.length === 1 && films[0]!.ratio) || null };
  });
  const films = render.media
    .filter(({ tag, fit }) => tag === 'video' && fit !== 'cover' && fit !== 'none')
    // Before it starts it has the shape of its poster.
    .map((one) => ({ one, film: one.poster && !one.started ? null : (one.ratio ?? null) }));
  return [...frames, ...films]
    .filter(({ one: { shown, box } }) => shown && box.width > 0 && box.height > 0)
    .map((each) => ({ render, ...each }));
}

/** How a player loses its shape; null where it keeps it. */
function findLost(
  all: readonly Sighted[],
  film: number | null,
): Omit<Data, 'tag' | 'keeps'> | null {
  const ratios = all.map(({ one: { box } }) => box.width / box.height);
  const [from, to] = [Math.min(...ratios), Math.max(...ratios)];
  if (isOther(from, to)) return { from, to, film: null };
  return film !== null && isOther(from, film) ? { from, to, film } : null;
}

function isOther(a: number, b: number): boolean {
  return Math.max(a, b) > Math.min(a, b) * (1 + MOST);
}

function formatRatio(ratio: number): string {
  return `${ratio.toFixed(2)} : 1`;
}
