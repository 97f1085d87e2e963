import { readStood, type TakenPiece } from '../standing.js';
import { isShot, shootRegion } from './shot.js';
import { defineStep } from './step.js';

/** Pieces of the page that somebody wants to see, each alone. */
export const piecesStep = defineStep({
  name: 'pieces',
  phase: 'posed',
  kind: null,
  isDue: (scene) =>
    scene.setting.terms.onlooker !== undefined &&
    isShot(scene) &&
    scene.job.render.variant === 'as-is',
  take: async ({ page, job, setting, raw }) => {
    const { onlooker } = setting.terms;
    const pieces: TakenPiece[] = [];
    for (const { of, box } of onlooker?.choose(await readStood(page)) ?? []) {
      const width = raw?.width.clientWidth ?? null;
      const taken = await shootRegion(page, setting.around.window, width, box);
      if (taken) pieces.push({ of, taken });
    }
    await onlooker?.show(job.render, pieces);
  },
});
