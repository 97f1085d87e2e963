import type { Collector } from '../collector.js';
import { causes } from './fact.js';

/** Tried last of all, when everything else is read. @see ../../render/steps/causes.ts */
export const collectCauses: Collector<'causes'> = () => causes.empty;
