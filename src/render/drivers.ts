import type { EngineName } from '../core/render.js';
import { startBrowser } from './chromium/start.js';
import type { Driver } from './page/engine.js';

/** What drives each engine that there is. */
export const DRIVERS: Readonly<Record<EngineName, Driver>> = {
  chromium: { start: startBrowser },
};
