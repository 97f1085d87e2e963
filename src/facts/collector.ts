import type { Baseline, Box, Gap, Hang } from '../core/evidence.js';
import type { Flash } from '../core/measure/flashing.js';
import type { Parted } from '../render/collect/own.js';
import type { Reading } from '../render/collect/read.js';
import type { GateLog } from '../render/gate/log.js';
import type { BrowserPage } from '../render/page/browser-page.js';
import type { Happenings } from '../render/page/happenings.js';
import type { ServedPage } from '../render/page/served-page.js';
import { collectAsks } from './asks/collect.js';
import { collectCauses } from './causes/collect.js';
import { collectCode } from './code/collect.js';
import { collectControls } from './controls/collect.js';
import { collectCuts } from './cuts/collect.js';
import { collectDrawings } from './drawings/collect.js';
import { collectElements } from './elements/collect.js';
import { collectFlashing } from './flashing/collect.js';
import { collectFrames } from './frames/collect.js';
import { collectHandling } from './handling/collect.js';
import { collectHost } from './host/collect.js';
import { FACT_KINDS, getEmptyFacts, type FactKind, type Facts } from './kinds.js';
import { collectLayers } from './layers/collect.js';
import { collectMedia } from './media/collect.js';
import { collectMotions } from './motions/collect.js';
import { collectPage } from './page/collect.js';
import { collectPaint } from './paint/collect.js';
import { collectPictures } from './pictures/collect.js';
import { collectPolicy } from './policy/collect.js';
import { collectReaching } from './reaching/collect.js';
import { collectScripts } from './scripts/collect.js';
import { collectShifts } from './shifts/collect.js';
import { collectSlot } from './slot/collect.js';
import { collectStored } from './stored/collect.js';
import { collectStyles } from './styles/collect.js';
import { collectTexts } from './texts/collect.js';
import { collectTimes } from './times/collect.js';
import type { TimedFact } from './times/fact.js';
import { collectTraffic } from './traffic/collect.js';
import { collectUnrest } from './unrest/collect.js';
import { collectVisit } from './visit/collect.js';
import { collectWidths } from './widths/collect.js';

/** All that a load has given of a snippet's page, before it is told by kinds. */
export interface Look {
  page: Pick<BrowserPage, 'requests' | 'address' | 'mainFrame'>;
  served: ServedPage;
  /** Which of the render's snippets is meant. */
  of: number;
  happened: Happenings;
  /** null where nothing was read in the page, or it could not be told whose it is. */
  reading: Reading | null;
  parted: Parted | null;
  hung: Hang | null;
  /** What had not come to rest when the time was over. */
  stillMoving: readonly string[];
  log: GateLog;
  /** What its code did in each of several loads, where that was timed. */
  timed: readonly TimedFact[][];
  /** What was seen to flash; null: nothing. */
  flash: Flash | null;
  /** What flashes on the page without the snippet. */
  flashingAlone: readonly Box[];
  /** The page without the snippet; null while that itself is rendered. */
  baseline: Baseline | null;
  /** The page without the snippet has code; so has the snippet. */
  hostChanges: boolean;
  changes: boolean;
  /** The font family of the slot on the page around, where it stands in a frame of its own; else null. */
  pageFamily: string | null;
  hasSound(address: string): boolean | null;
}

/** Tells of one kind; `facts` holds the kinds before it. */
export type Collector<K extends FactKind> = (look: Look, facts: Facts) => Facts[K];

const COLLECTORS: { [K in FactKind]: Collector<K> } = {
  page: collectPage,
  slot: collectSlot,
  elements: collectElements,
  frames: collectFrames,
  media: collectMedia,
  asks: collectAsks,
  pictures: collectPictures,
  drawings: collectDrawings,
  motions: collectMotions,
  flashing: collectFlashing,
  paint: collectPaint,
  controls: collectControls,
  texts: collectTexts,
  cuts: collectCuts,
  layers: collectLayers,
  shifts: collectShifts,
  policy: collectPolicy,
  handling: collectHandling,
  visit: collectVisit,
  traffic: collectTraffic,
  scripts: collectScripts,
  code: collectCode,
  unrest: collectUnrest,
  times: collectTimes,
  stored: collectStored,
  host: collectHost,
  styles: collectStyles,
  causes: collectCauses,
  widths: collectWidths,
  reaching: collectReaching,
};

/** Facts of all kinds. One that cannot be told is a gap of its own, and costs the others nothing. */
export function collectFacts(
  look: Look,
  collectors: { [K in FactKind]: Collector<K> } = COLLECTORS,
): { facts: Facts; gaps: Gap[] } {
  const facts = getEmptyFacts();
  const gaps: Gap[] = [];
  const failed = look.reading?.objects.failed ?? {};
  const take = <K extends FactKind>(kind: K) => {
    try {
      const why = failed[kind];
      if (why !== undefined) throw new Error(why);
      facts[kind] = collectors[kind](look, facts);
    } catch (error) {
      const why = `${kind} could not be read (${(error as Error).message.split('\n')[0]})`;
      gaps.push({ kind, why, seen: null, kept: null });
    }
  };
  FACT_KINDS.forEach(take);
  return { facts, gaps };
}
