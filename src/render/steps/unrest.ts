import type { WorkFact } from '../../core/evidence.js';
import { flatMap } from '../../core/lists.js';
import { isAsIs, isOneOfKind } from './once.js';
import { defineStep, type ReadScene } from './step.js';
import { getScriptKey, sumByScript } from './whose-work.js';

/** For so long it is looked whether anything is at work, and then three times who, ms. */
const [GLANCED, WATCHED] = [200, 400];
const TIMES = 3;
/** Less of the time than this keeps nobody waiting. */
const BUSY = 0.08;

/** What of the snippet's code goes on when the page is at rest: asked only where its thread is at work at all. */
export const unrestStep = defineStep({
  name: 'unrest',
  phase: 'asked of the browser',
  kind: 'unrest',
  isDue: (scene) => scene.own.changes && !scene.job.profile && isAsIs(scene) && isOneOfKind(scene),
  take: takeUnrest,
  tells: (_facts, unrest) => ({ unrest }),
});

async function takeUnrest(scene: ReadScene): Promise<WorkFact[]> {
  const { running } = scene.page;
  if ((await running.measureBusy(GLANCED)) < BUSY) return [];
  const rounds: WorkFact[][] = [];
  for (let i = 0; i < TIMES; i++) rounds.push(await watch(scene));
  const keys = new Set(flatMap(rounds, (round) => round.map(getScriptKey)));
  return [...keys].map((key) => {
    const found = rounds.map((round) => round.find((one) => getScriptKey(one) === key));
    const shares = found.map((one) => one?.share ?? 0).sort((a, b) => a - b);
    return { ...found.find((one) => one !== undefined)!, share: shares[1]! };
  });
}

/** Who is at work; where the page has no code of its own all of it is the snippet's, of whatever script. */
async function watch(scene: ReadScene): Promise<WorkFact[]> {
  const { page, setting } = scene;
  const [works, busy] = await Promise.all([
    page.running.sampleWork(WATCHED),
    page.running.measureBusy(WATCHED),
  ]);
  const whose = { page, served: setting.reach.served, of: scene.of };
  const told = sumByScript(works, whose, ({ share }) => share).map(
    ({ place, amount }): WorkFact => ({ ...place, share: amount }),
  );
  if (setting.around.hostChanges) return told;
  const [most = UNKNOWN] = told.sort((a, b) => b.share - a.share);
  return [{ ...most, share: busy }];
}

/** Work is not always told in the place where it is done. */
const UNKNOWN: WorkFact = { from: null, address: null, line: null, share: 0 };
