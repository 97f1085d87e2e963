import type { MotionFact, PictureFact } from '../../core/evidence.js';
import { mapPresent } from '../../core/lists.js';
import { patiently } from '../bounds/patience.js';
import type { BrowserPage } from '../page/browser-page.js';
import { defineStep, type ReadScene } from './step.js';

/** So many files of pictures are read, and so long, ms. */
const [MOST, LIMIT] = [8, 3000];
/** What is over by then need not be stopped (WCAG 2.2, 2.2.2), s. */
const SHORT = 5;

/** Which pictures move by themselves, and for how long: their files are read once more. */
export const motionStep = defineStep({
  name: 'motion',
  phase: 'asked of the browser',
  kind: 'motions',
  patience: 2,
  isDue: (scene) => listMoving(scene).length > 0,
  take: async (scene) => {
    const found = [];
    for (const one of listMoving(scene).slice(0, MOST)) {
      const seconds = await readSeconds(scene.page, one.address);
      if (seconds === null || seconds > SHORT) found.push({ id: one.id, seconds });
    }
    return found;
  },
  tells: ({ pictures, motions }, found) => ({
    motions: [
      ...motions,
      ...mapPresent(found, ({ id, seconds }): MotionFact | null => {
        const picture = pictures.find((one) => one.id === id);
        if (!picture) return null;
        const { from, selector, box, shown, exposed, style } = picture;
        const element = { id, from, selector, box, shown, exposed, style };
        return { ...element, how: 'picture', pictured: true, seconds, changes: [] };
      }),
    ],
  }),
});

/** Pictures that show, and whose files say that they have several frames. */
function listMoving({ facts }: Pick<ReadScene, 'facts'>): PictureFact[] {
  const moving = new Set(mapPresent(facts.traffic, ({ first, moving }) => (moving ? first : null)));
  return facts.pictures.filter(
    ({ shown, loaded, address }) =>
      shown && loaded && (moving.has(address) || /^data:image\/(gif|webp|apng)/i.test(address)),
  );
}

async function readSeconds(page: BrowserPage, address: string): Promise<number | null> {
  const file = await readFile(page, address);
  if (!file) return 0;
  const asked = page.read('readLength', file.base64, file.type).catch(() => null);
  const read = await patiently(asked, LIMIT);
  return read ? read.seconds : 0;
}

async function readFile(page: BrowserPage, address: string) {
  const data = /^data:(image\/[\w+.-]+);base64,(.*)$/is.exec(address);
  if (data) return { type: data[1]!.toLowerCase(), base64: data[2]! };
  const asked = page.readPicture(address).catch(() => null);
  return patiently(asked, LIMIT);
}
