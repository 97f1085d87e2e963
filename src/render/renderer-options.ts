import type { House } from '../core/house/house.js';
import type { Published } from '../core/snippet.js';
import type { Exchange } from '../core/recording/exchange.js';
import type { BrowserProgram } from './browser/bundled.js';
import type { Wants } from '../core/wants.js';
import type { Limits } from './bounds/limit.js';
import type { GateRules } from './gate/route.js';
import type { Seats } from './life/seats.js';
import type { TakenShot } from './steps/shot.js';

/** What a renderer works with for a whole run. */
export interface RendererOptions {
  program: BrowserProgram;
  house: House;
  /** The text of the house's own page; null for the neutral one. */
  ownPage: string | null;
  /** The published page that is looked at, in place of a host page with slots; left out: there is none. */
  published?: Published;
  /** The folder of the host page's files, as an absolute path. */
  root: string | null;
  offline: boolean;
  /** A file to write all exchanges to, a line of JSON each. */
  recordTo?: string;
  /** What alone answers, in place of the network. */
  recording?: readonly Exchange[];
  /** Takes the shots of all renders; left out: none are taken. */
  onShot?: (taken: TakenShot) => Promise<void> | void;
  /** Whether everything is asked for again in each load; left out: it is. */
  cold?: boolean;
  /** The kinds of facts that somebody reads, by the variant they are read in; left out: all. */
  wants?: Wants;
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
