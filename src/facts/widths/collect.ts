import type { Collector } from '../collector.js';
import { widths } from './fact.js';

/** Searched through when everything else is read. @see ../../render/steps/windows.ts */
export const collectWidths: Collector<'widths'> = () => widths.empty;
