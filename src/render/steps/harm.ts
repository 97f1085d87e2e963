import { getHarmedRegion, listHarmed } from '../../core/measure/host-damage.js';
import { isShot, shootRegion } from './shot.js';
import { defineStep } from './step.js';

/** What of the page around is harmed by a snippet, as it looks with it. */
export const harmStep = defineStep({
  name: 'harm',
  phase: 'posed',
  kind: null,
  isDue: (scene) => isShot(scene) && scene.job.render.variant === 'as-is',
  take: ({ page, setting, facts, baseline }) => {
    const { window } = setting.around;
    const harmed = listHarmed({ ...facts, viewport: window, baseline });
    if (harmed.length === 0) return Promise.resolve(null);
    const region = getHarmedRegion(harmed, window);
    return shootRegion(page, window, facts.page.atLoad.clientWidth, region);
  },
  shows: (harm) => ({ harm }),
});
