import type { Gap } from '../../core/evidence.js';
import { askOf } from '../asked.js';
import { causesStep } from './causes.js';
import { fittingStep } from './fitting.js';
import type { Given } from './given.js';
import { groundsStep } from './grounds.js';
import { handlingStep } from './handling.js';
import { harmStep } from './harm.js';
import { naturalsStep } from './naturals.js';
import { refusedStep } from './refused.js';
import { rulesStep } from './rules.js';
import { shotStep } from './shot.js';
import { PHASES, type Scene, type Step } from './step.js';
import { windowsStep } from './windows.js';

/** All that is found out about a page after it was read; those of one phase in this order. */
export const STEPS: readonly Step[] = [
  refusedStep,
  fittingStep,
  groundsStep,
  naturalsStep,
  windowsStep,
  causesStep,
  rulesStep,
  handlingStep,
  shotStep,
  harmStep,
];

/** What came of the steps for one snippet. */
export interface Taken {
  given: Partial<Given>;
  /** What was not answered. */
  gaps: Gap[];
}

/** Takes the steps, phase by phase, and in each snippet by snippet. */
export async function takeSteps(
  scenes: readonly Scene[],
  steps: readonly Step[] = STEPS,
): Promise<Taken[]> {
  const taken = scenes.map((): Taken => ({ given: {}, gaps: [] }));
  for (const phase of PHASES)
    for (const [i, scene] of scenes.entries())
      for (const step of steps)
        if (step.phase === phase && isDue(step, scene)) await take(step, scene, taken[i]!);
  return taken;
}

function isDue(step: Step, scene: Scene): boolean {
  return (step.kind === null || scene.job.wants.has(step.kind)) && step.isDue(scene);
}

async function take<G extends keyof Given>(
  { kind, gives, timesItself, take }: Step<G>,
  scene: Scene,
  { given, gaps }: { given: Partial<Given>; gaps: Gap[] },
): Promise<void> {
  const { limits, budget } = scene.setting;
  const asked = { ms: limits.hang, budget, gaps };
  const taking = take(scene, asked);
  const answer =
    kind === null || timesItself
      ? await taking
      : await askOf(kind, taking, { ...asked, otherwise: undefined });
  if (answer !== undefined) given[gives] = answer;
}
