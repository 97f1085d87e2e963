import type { MeasureSetting } from '../core/measuring.js';
import type { Exchange } from '../core/recording/exchange.js';
import type { BrowserProgram } from './browser/bundled.js';
import type { Limits } from './bounds/limit.js';
import type { GateRules } from './gate/route.js';
import type { Seats } from './life/seats.js';
import type { Onlooker } from './standing.js';
import type { TakenShot } from './steps/shot.js';

/** What all is rendered in. What is left out: no published page, all asked for anew, all kinds read. */
export type RenderedIn = Pick<MeasureSetting, 'house' | 'ownPage' | 'offline'> &
  Partial<Pick<MeasureSetting, 'published' | 'cold' | 'wants'>>;

/** What a renderer works with for a whole run: the setting, and what is of this machine alone. */
export interface RendererOptions extends RenderedIn {
  program: BrowserProgram;
  /** The folder of the host page's files, as an absolute path. */
  root: string | null;
  /** A file to write all exchanges to, a line of JSON each. */
  recordTo?: string;
  /** What alone answers, in place of the network. */
  recording?: readonly Exchange[];
  /** Takes the shots of all renders; left out: none are taken. */
  onShot?: (taken: TakenShot) => Promise<void> | void;
  /** Wants to know what stands in the page; left out: nobody does. */
  onlooker?: Onlooker;
  limits?: Limits;
  /** Told of what was thrown that no browser and no page is to blame for. */
  onFault?: (error: unknown) => void;
  /** Load anew at every width, also what cannot tell. */
  alwaysLoad?: boolean;
  signal?: AbortSignal;
  /** How many loads may go on at once in all; left out: one for each snippet. */
  seats?: Seats;
}

/** What the gates of such a renderer let through. */
export function getRules({ house: { origin, reroute }, offline }: RendererOptions): GateRules {
  return { origin, reroute, offline };
}
