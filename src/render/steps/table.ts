import { FACT_KINDS, type FactKind, type Facts, type Gap } from '../../core/evidence.js';
import { flatMap } from '../../core/lists.js';
import { askOf } from '../bounds/asked.js';
import type { Learned } from '../life/learned.js';
import { asksStep } from './asks.js';
import { causesStep } from './causes.js';
import { coverageStep } from './coverage.js';
import { fittingStep } from './fitting.js';
import { groundsStep } from './grounds.js';
import { handlingStep } from './handling.js';
import { harmStep } from './harm.js';
import { motionStep } from './motion.js';
import { naturalsStep } from './naturals.js';
import { paintStep } from './paint.js';
import { piecesStep } from './pieces.js';
import { refusedStep } from './refused.js';
import { rulesStep } from './rules.js';
import { shotStep } from './shot.js';
import { isDue, PHASES, teaches, type AnyStep, type Scene, type Shots } from './step.js';
import { timesStep } from './times.js';
import { unrestStep } from './unrest.js';
import { visitStep } from './visit.js';
import { windowsStep } from './windows.js';

/** All that is found out about a page after it was read; those of one phase in this order. */
export const STEPS: readonly AnyStep[] = [
  timesStep,
  refusedStep,
  asksStep,
  unrestStep,
  fittingStep,
  groundsStep,
  motionStep,
  paintStep,
  naturalsStep,
  windowsStep,
  causesStep,
  rulesStep,
  handlingStep,
  visitStep,
  coverageStep,
  shotStep,
  harmStep,
  piecesStep,
];

/** Those that are taken of a page some time after it came to rest. */
export const LATER_STEPS: readonly AnyStep[] = [
  fittingStep,
  groundsStep,
  paintStep,
  causesStep,
  shotStep,
];

/** What is told of it then: not what it takes a fresh page to find out. */
export const LATER_KINDS: readonly FactKind[] = FACT_KINDS.filter(
  (kind) =>
    ![
      'asks',
      'handling',
      'visit',
      'styles',
      'reaching',
      'stored',
      'code',
      'unrest',
      'times',
    ].includes(kind),
);

/** What came of all steps for one snippet. */
export interface Found extends Shots {
  facts: Facts;
  learned: Learned;
  /** What was not answered. */
  gaps: Gap[];
}

/**
 * Takes the steps, phase by phase, and in each snippet by snippet.
 * @param onLearned told what is known of each snippet as soon as none that is left teaches anything
 */
export async function takeSteps(
  scenes: readonly Scene[],
  steps: readonly AnyStep[] = STEPS,
  onLearned?: (learned: Learned[]) => void,
): Promise<Found[]> {
  const taken = scenes.map((): Taken[] => []);
  const join = () => scenes.map((scene, i) => joinTaken(scene, taken[i]!));
  const due = listDue(scenes, steps);
  const last = due.findLastIndex(({ step, scene }) => teaches(step, scene));
  const tell = () => onLearned?.(join().map(({ learned }) => learned));
  if (last < 0) tell();
  for (const [at, { step, scene, i }] of due.entries()) {
    // Whether there is still time for it is known only now.
    if (isDue(step, scene)) taken[i]!.push(await take(step, scene));
    if (at === last) tell();
  }
  return join();
}

/** The steps that are to be taken, in their order. */
function listDue(scenes: readonly Scene[], steps: readonly AnyStep[]) {
  return flatMap(PHASES, (phase) =>
    flatMap([...scenes.entries()], ([i, scene]) =>
      steps
        .filter((step) => step.phase === phase && isDue(step, scene))
        .map((step) => ({ step, scene, i })),
    ),
  );
}

/** A step with what came of it; undefined where that was not answered. */
interface Taken {
  step: AnyStep;
  result: never | undefined;
  gaps: Gap[];
}

async function take(step: AnyStep, scene: Scene): Promise<Taken> {
  const { kind, timesItself, patience = 1 } = step;
  const { limits, budget } = scene.setting;
  const gaps: Gap[] = [];
  const asked = { ms: patience * limits.hang, budget, gaps };
  const taking: Promise<never | undefined> = step.take(scene as never, asked);
  const result =
    kind === null || timesItself
      ? await taking
      : await askOf(kind, taking, { ...asked, otherwise: undefined });
  return { step, result, gaps };
}

/** Puts together what was read of a snippet and what steps found out. */
function joinTaken(scene: Scene, taken: readonly Taken[]): Found {
  const { known, tooWide, facts } = scene;
  const found: Found = {
    ...{ facts, learned: { ...known, tooWide }, shot: null, harm: null },
    gaps: flatMap(taken, ({ gaps }) => gaps),
  };
  return taken.reduce((sum, { step, result }) => {
    if (result === undefined) return sum;
    return {
      ...sum,
      facts: { ...sum.facts, ...step.tells?.(sum.facts, result) },
      learned: step.learns?.(sum.learned, result) ?? sum.learned,
      ...step.shows?.(result),
    };
  }, found);
}
