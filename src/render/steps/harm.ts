import { getHarmedRegion, listHarmed } from '../../core/measure/host-damage.js';
import { isShot, shootRegion } from './shot.js';
import { defineStep, type ReadScene } from './step.js';

/** What of the page around is harmed by a snippet, as it looks with it. */
export const harmStep = defineStep({
  name: 'harm',
  phase: 'posed',
  kind: null,
  isDue: (scene) => isShot(scene) && scene.job.render.variant === 'as-is' && list(scene).length > 0,
  take: (scene) => {
    const { page, setting, facts } = scene;
    const { window } = setting.around;
    const region = getHarmedRegion(list(scene), window);
    return shootRegion(page, window, facts.page.atLoad.clientWidth, region);
  },
  shows: (harm) => ({ harm }),
});

function list({ facts, baseline, setting }: ReadScene) {
  return listHarmed({ ...facts, viewport: setting.around.window, baseline });
}
