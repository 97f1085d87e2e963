import type { Baseline, FactKind, Facts, Gap } from '../../core/evidence.js';
import type { Markup } from '../../core/markup/markup.js';
import type { Traits } from '../../core/markup/traits.js';
import type { Asking } from '../bounds/asked.js';
import type { Parted } from '../collect/own.js';
import type { Reading } from '../collect/read.js';
import type { RawPage } from '../in-page/page.js';
import type { Job } from '../life/job.js';
import type { Learned } from '../life/learned.js';
import type { BrowserPage } from '../page/browser-page.js';
import type { Setting } from '../setting.js';
import type { TakenShot } from './shot.js';

/**
 * What a page has been through when a step is taken, in this order; each phase for all of a page's snippets before
 * the next. `as it stands` and `scrolled` are what `look` reads of the page as a whole. What is changed by
 * trying is put back by whoever changed it; a page that hands have used cannot be; and to pose for its picture makes
 * it paint, and load, what nobody has looked at. When all are over the first minute is lived on (`../minute.ts`), after
 * which a page's time stands.
 */
export const PHASES = [
  'as it stands',
  'asked of the browser',
  'scrolled',
  'pictured',
  'changed by trying',
  'used by hands',
  'posed',
] as const;
export type Phase = (typeof PHASES)[number];

/** One snippet on a page that was looked at. Nothing in it is written into. */
export interface Scene {
  page: BrowserPage;
  job: Job;
  setting: Setting;
  /** Which of the render's snippets it is. */
  of: number;
  /** Its markup; null of the page alone. */
  markup: Markup | null;
  own: Traits;
  baseline: Baseline | null;
  /** What renders before have taught of it. */
  known: Learned;
  /** null where nothing was read, or it could not be told whose it is. */
  reading: Reading | null;
  parted: Parted | null;
  /** The page as far as it was read, whosever it is. */
  raw: RawPage | null;
  /** Its code had to be stopped: it only stands there. */
  hung: boolean;
  /** Something of it is too wide, here or in a render before. */
  tooWide: boolean;
  /** As they were read, and what was not. */
  facts: Facts;
  gaps: readonly Gap[];
}

/** One that was read. */
export type ReadScene = Scene & { reading: Reading; parted: Parted };

/** Pictures of a render: of the snippet, and of what it harms. */
export interface Shots {
  shot: TakenShot | null;
  harm: TakenShot | null;
}

/** Something that is found out about a page after it was read, with what comes of it. It changes no other's result. */
export interface Step<R = unknown> {
  name: string;
  phase: Phase;
  /** The kind of fact that it is for: it is taken only where that is wanted; null: no kind's. */
  kind: FactKind | null;
  /** It limits its own time, and says itself what was not answered. */
  timesItself?: boolean;
  /** How many times as long it may take as a page may hang: what is done by frames or pictures takes longer on a busy machine; left out: once. */
  patience?: number;
  /** Also where code had to be stopped: else only of a page that is as it would be. */
  alsoHung?: boolean;
  /** Whether there is anything to find out here; left out: always. */
  isDue?(scene: ReadScene): boolean;
  /** @param asked how long it may take, and who is told what was not answered */
  take(scene: ReadScene, asked: Asking): Promise<R>;
  /** The facts that are otherwise by it. */
  tells?(facts: Facts, result: R): Partial<Facts>;
  /** What renders that follow may go by. */
  learns?(known: Learned, result: R): Learned;
  /** Whether there is anything to learn from it here; left out: wherever it is taken, if it teaches at all. */
  teaches?(scene: ReadScene): boolean;
  shows?(result: R): Partial<Shots>;
}

/** A step as the table holds it, with its result's type put away. */
export type AnyStep = Step<never>;

/** States a step. */
export function defineStep<R>(step: Step<R>): AnyStep {
  return Object.freeze(step) as unknown as AnyStep;
}

/** Whether a step is taken of a snippet. */
export function isDue(step: AnyStep, scene: Scene): boolean {
  const { kind, alsoHung = false, phase } = step;
  if (kind !== null && !scene.job.wants.has(kind)) return false;
  // A picture is taken of whatever stands there.
  const isThere = phase === 'posed' || isRead(scene);
  return isThere && (alsoHung || !scene.hung) && (step.isDue?.(scene as ReadScene) ?? true);
}

/** Whether renders that follow may go by what comes of a step that is due. */
export function teaches({ learns, teaches }: AnyStep, scene: Scene): boolean {
  return learns !== undefined && (teaches?.(scene as ReadScene) ?? true);
}

function isRead(scene: Scene): scene is ReadScene {
  return scene.reading !== null && scene.parted !== null;
}
