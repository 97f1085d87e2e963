import { isAsIs, isOneOfKind } from './once.js';
import { defineStep } from './step.js';

/** How long all code of the page has run so far: where that is little, none is timed. */
export const timesStep = defineStep({
  name: 'times',
  phase: 'asked of the browser',
  kind: 'times',
  isDue: (scene) => scene.own.changes && isAsIs(scene) && isOneOfKind(scene),
  take: ({ page }) => page.running.getTime(),
  tells: ({ times }, all) => ({ times: { ...times, all } }),
});
