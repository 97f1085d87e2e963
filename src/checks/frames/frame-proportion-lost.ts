import { defineCheck, makeSeen, type Fact } from '../../core/check.js';
import { flatMap } from '../../core/lists.js';
import { blameElement } from '../../core/measure/blame.js';
import { locateHeight } from '../../core/measure/framed.js';
import { listSized } from '../../core/measure/sized.js';
import { formatPixels } from '../../core/measure/units.js';

interface Data {
  tag: string;
  /** The least and the greatest ratio of width to height. */
  from: number;
  to: number;
}

/** A ratio may change by this part. */
const MOST = 0.05;

export default defineCheck({
  id: 'frame-proportion-lost',
  subject: 'frames',
  level: 'concern',
  title: 'A player changes its proportions',
  decided:
    'The ratio of width to height of a framed player differs by more than 5 % between the widths rendered.',
  standard: 'CSS Box Sizing 4, 4 Aspect Ratios',
  needs: ['frames', 'media'],
  markup: false,
  judge({ markup, renders }): Fact<Data>[] {
    const sighted = flatMap(renders, (render) =>
      listSized(render)
        .filter(({ player, tag, box }) => player && tag !== 'video' && box.height > 0)
        .map((one) => ({ render, one, key: JSON.stringify([one.from, one.selector]) })),
    );
    return flatMap(new Set(sighted.map(({ key }) => key)), (key) => {
      const all = sighted.filter((each) => each.key === key);
      const ratios = all.map(({ one }) => one.box.width / one.box.height);
      const [from, to] = [Math.min(...ratios), Math.max(...ratios)];
      if (to <= from * (1 + MOST)) return [];
      const { one } = all[0]!;
      const blame = blameElement(markup, one);
      return [
        {
          where: locateHeight(markup, blame),
          culprit: blame.culprit,
          data: { tag: one.tag, from, to },
          seen: all.map(({ render, one: { box } }) =>
            makeSeen(render, { width: box.width, height: box.height }),
          ),
        },
      ];
    });
  },
  says: ({ tag, from, to }) => ({
    message: `The player’s <${tag}> changes its shape with the width: from ${formatRatio(from)} to ${formatRatio(to)}.`,
    notice: 'The film has black bars, or is cut, at some widths.',
    cure: 'Let its height follow its width: `width: 100%; height: auto; aspect-ratio: 16 / 9`.',
  }),
  measures: ({ width, height }) =>
    `${formatPixels(Number(width))} wide, ${formatPixels(Number(height))} high`,
  brief: () => 'a player that changes its shape',
  samples: [{ tag: 'iframe', from: 1, to: 2.3 }],
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

function formatRatio(ratio: number): string {
  return `${ratio.toFixed(2)} : 1`;
}
