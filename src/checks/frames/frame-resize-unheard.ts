import { defineCheck, makeSeen, type Fact } from '../../core/check.js';
import { flatMap } from '../../core/lists.js';
import { blameElement } from '../../core/measure/blame.js';
import { TOLERANCE } from '../../core/measure/culprits.js';
import { listFramed, atHeight, type Framed } from '../../core/measure/framed.js';
import { formatPixels } from '../../core/measure/units.js';
import { tell } from '../../core/tell.js';
import { formatWidths, getWorstSeen } from '../../core/words/list.js';

interface Data {
  /** It grows each time that it is answered. */
  endless: boolean;
}

type Measured = Record<'height' | 'needed' | 'posted', number>;

/** So often a page may settle on another height before it counts as growing without end. */
const ENDLESS = 6;

export default defineCheck({
  id: 'frame-resize-unheard',
  subject: 'frames',
  level: 'concern',
  title: 'A frame tells its height, and nothing follows it',
  decided:
    'The page in the frame posts its height to the page around it, the frame keeps another, and its content is cut off; or each answer makes it post a greater one (100vh in a frame that is made as high as its content, or some px added to each answer).',
  standard: 'HTML Living Standard, 9.3 Cross-document messaging',
  needs: ['frames'],
  markup: false,
  judge: ({ markup, renders }) =>
    flatMap(renders, (render) =>
      flatMap(listFramed(render), (frame): Fact<Data, Measured>[] => {
        const endless = isEndless(frame);
        if (!endless && !isUnheard(frame)) return [];
        const blame = blameElement(markup, frame);
        const { height, scrollHeight } = frame.inner;
        const posted = frame.posted?.last ?? 0;
        return [
          tell.seen(
            atHeight(markup, blame),
            { endless },
            makeSeen(render, { height, needed: scrollHeight, posted }),
            { group: endless ? 'endless' : '', level: endless ? 'blocker' : 'concern' },
          ),
        ];
      }),
    ),
  explains: [
    { findings: ['frame-cuts-content', 'frame-height-collapsed', 'frame-mostly-empty'] },
    // What grows moves, and ends up over, what stands behind it.
    {
      findings: ['host-content-damaged', 'content-jumps', 'focus-taken-at-load'],
      heavier: true,
      when: (_seen, { endless }) => endless,
      fits: () => true,
    },
  ],
  says({ endless }, { seen }) {
    const worst = getWorstSeen(seen, 'posted')?.measured;
    const [height, posted] = [worst?.height, worst?.posted].map((px = 0) => formatPixels(px));
    if (endless)
      return {
        message: `The frame grows each time that it is made as high as its page asks for: ${height} so far (${formatWidths(seen)}).`,
        notice: 'The page gets longer and longer, and what stands below is never reached.',
        cure: 'Let the script set the height that was asked for, with nothing added; ask whoever makes its page not to use `vh` or `height: 100%` for its own height; or give the frame a fixed height.',
      };
    return {
      message: `Its page asks for a height of ${posted}, and the frame stays at ${height} (${formatWidths(seen)}): nothing on the page listens to it.`,
      notice: 'Part of it is cut off, or scrolls in a bar of its own.',
      cure: `Add the script that the vendor gives out for it, or give the frame the height that its page asks for${seen.length > 0 ? ` (${posted})` : ''}.`,
    };
  },
  measures: ({ height, posted }) =>
    `${formatPixels(height)} high, ${formatPixels(posted)} asked for`,
  brief: ({ endless }) =>
    endless ? 'a frame that grows without end' : 'a frame whose height nobody sets',
  samples: [{ endless: false }, { endless: true }],
  examples: {
    faulty: [
      {
        name: 'a form that tells its height to nobody',
        code: '<iframe title="Order seed" srcdoc="<p style=\'height: 500px; margin: 0\'>Seed, how many, to whom</p><script>parent.postMessage({ height: document.documentElement.scrollHeight }, \'*\')</script>" style="border: 0; width: 100%; height: 200px"></iframe>',
      },
    ],
    sound: [
      {
        name: 'a form that is answered',
        code: '<script>addEventListener("message", ({ data }) => { if (data.height) document.querySelector("#order").style.height = data.height + "px" })</script><iframe id="order" title="Order seed" srcdoc="<p style=\'height: 500px; margin: 0\'>Seed, how many, to whom</p><script>parent.postMessage({ height: document.documentElement.scrollHeight }, \'*\')</script>" style="border: 0; width: 100%; height: 200px"></iframe>',
      },
    ],
  },
});

/** It asked for more height than it has, and needs it. */
function isUnheard(frame: Framed): boolean {
  const { posted, inner } = frame;
  return isCut(frame) && posted !== null && (posted?.last ?? 0) > inner.height + TOLERANCE;
}

/** Each height that it asked for outdid those before, it was given them, and still it is too high, or it is empty below. */
function isEndless(frame: Framed): boolean {
  const { rises = 0, first = 0, last = 0 } = frame.posted ?? {};
  const { height, contentHeight = height } = frame.inner;
  if (rises < ENDLESS || height <= first) return false;
  // What its content did not ask for came by the answers alone.
  return isCut(frame) || height - contentHeight >= (last - first) / 2;
}

function isCut({ inner }: Framed): boolean {
  return inner.scrollHeight > inner.height + TOLERANCE;
}
