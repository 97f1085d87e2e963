import type { FactKind } from './evidence.js';
import type { EngineName } from './render.js';

/** What an engine can measure. */
export interface Engine {
  /** Kinds of facts that it never gives, each with why: not a gap of a run, but a bound of the engine. */
  cannot: Partial<Record<FactKind, string>>;
}

/** The engines that pages are rendered in. */
export const ENGINES: Record<EngineName, Engine> = {
  chromium: { cannot: {} },
};
