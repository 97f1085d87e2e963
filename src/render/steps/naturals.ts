import type { FrameFact } from '../../core/evidence.js';
import { LEAST_FILLED, listFramed } from '../../core/measure/framed.js';
import { flatMap } from '../../core/lists.js';
import type { FrameDocument } from '../collect/documents.js';
import { patiently } from '../bounds/patience.js';
import type { BrowserPage } from '../page/browser-page.js';
import { defineStep } from './step.js';

/** By the frames' numbers; null for what fills whatever it gets. */
type Heights = ReadonlyMap<number, number | null>;

export const naturalsStep = defineStep({
  name: 'naturals',
  phase: 'changed by trying',
  kind: 'frames',
  timesItself: true,
  isDue: ({ setting }) => !setting.budget.isOver,
  take: ({ page, facts, reading }) => readNaturals(page, facts.frames, reading.inner),
  tells: ({ frames }, naturals) => ({
    frames: frames.map((frame) => {
      const natural = naturals.get(frame.id);
      if (natural === undefined || !frame.inner) return frame;
      return { ...frame, inner: { ...frame.inner, natural } };
    }),
  }),
});

type Inner = NonNullable<FrameFact['inner']>;

/** Of more frames than this the heights are not looked for. */
const MOST = 40;
/** A frame that does not answer by then has no height that is known, ms. */
const LIMIT = 3000;
/** How long they may take to have their room again, ms. */
const RELEASED = 1000;

/** Of each frame that is too low or too high for its document how high that is by itself: it is made low for a moment. */
async function readNaturals(
  page: BrowserPage,
  frames: readonly FrameFact[],
  documents: readonly FrameDocument[],
): Promise<Heights> {
  const wanted = listFramed({ frames: [...frames] })
    .filter(({ inner }) => isUnfit(inner))
    .map(({ id }) => id);
  if (wanted.length === 0 || wanted.length > MOST) return new Map();
  await patiently(page.read('squeezeFrames', wanted), LIMIT).catch(() => null);
  const answers = await page.readFrames('readNatural', LIMIT).catch(() => []);
  await patiently(page.read('releaseFrames'), LIMIT).catch(() => null);
  // Whoever looks at them next is to see them as they were.
  await page.readFrames('waitForRoom', RELEASED).catch(() => []);
  const heights = new Map(answers.map(({ frame, answer }) => [frame, answer?.height]));
  const names = new Map(documents.map(({ frame, owner }) => [owner, frame]));
  return new Map(
    flatMap(frames, ({ id, inner }) => {
      const low = heights.get(names.get(id) ?? '');
      if (low === undefined || !inner) return [];
      return [[id, fills(inner, low) ? null : low] as const];
    }),
  );
}

const TOLERANCE = 2;

/** Of what fits as it is nobody has to know how high it would be by itself. */
function isUnfit({ height, scrollHeight, contentHeight = 0 }: Inner): boolean {
  return scrollHeight > height + 1 || contentHeight < height * LEAST_FILLED;
}

/** With more room it reaches farther down: it goes by its room. @param low how high it is in a low frame, px */
function fills({ height, contentHeight = 0 }: Inner, low: number | null): boolean {
  return low === null || (height >= low && contentHeight > low + TOLERANCE);
}
