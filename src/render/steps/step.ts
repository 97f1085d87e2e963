import type { Baseline, FactKind, Facts, Gap } from '../../core/evidence.js';
import type { Markup } from '../../core/markup/markup.js';
import type { Traits } from '../../core/markup/traits.js';
import type { Asking } from '../asked.js';
import type { Parted } from '../collect/own.js';
import type { Reading } from '../collect/read.js';
import type { RawPage } from '../in-page/page.js';
import type { Job } from '../job.js';
import type { Learned } from '../learned.js';
import type { BrowserPage } from '../page/browser-page.js';
import type { Setting } from '../setting.js';
import type { Given } from './given.js';

/**
 * What a page has been through when a step is taken, in this order; each phase for all of a page's snippets before
 * the next. `as it stands` and `scrolled` are what `look` reads of the page as a whole. What is `tried` is put back
 * by whoever changed it; what is `used` cannot be; and to pose for its picture makes a page paint, and load, what
 * nobody has looked at.
 */
export const PHASES = [
  'as it stands',
  'asked of the browser',
  'lived on',
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
  /** As they were read, and what was not. */
  facts: Facts;
  gaps: readonly Gap[];
}

/** One that was read. */
export type ReadScene = Scene & { reading: Reading; parted: Parted };

/** Something that is found out about a page after it was read. */
export interface Step<G extends keyof Given = keyof Given> {
  gives: G;
  phase: Phase;
  /** The kind of fact that it is for: it is taken only where that is wanted; null: no kind's. */
  kind: FactKind | null;
  /** It limits its own time, and says itself what was not answered. */
  timesItself?: boolean;
  /** Whether there is anything to find out here. */
  isDue(scene: Scene): boolean;
  /** @param asked how long it may take, and who is told what was not answered */
  take(scene: Scene, asked: Asking): Promise<Given[G]>;
}

/** A step of pages that were read. */
export interface ReadStep<G extends keyof Given> extends Omit<Step<G>, 'isDue' | 'take'> {
  /** Also where its code had to be stopped: else only of a page that is as it would be. */
  alsoHung?: boolean;
  isDue?(scene: ReadScene): boolean;
  take(scene: ReadScene, asked: Asking): Promise<Given[G]>;
}

/** States such a step. */
export function defineStep<G extends keyof Given>(step: ReadStep<G>): Step<G> {
  const { isDue = () => true, alsoHung = false, take, ...rest } = step;
  return Object.freeze({
    ...rest,
    isDue: (scene: Scene) => isRead(scene) && (alsoHung || !scene.hung) && isDue(scene),
    take: (scene: Scene, asked: Asking) => take(scene as ReadScene, asked),
  });
}

function isRead(scene: Scene): scene is ReadScene {
  return scene.reading !== null && scene.parted !== null;
}
