import type { Collector } from '../collector.js';
import { causes } from './fact.js';

/** Tried last of all, when everything else is read. @see ../../render/trial/try-out.ts */
export const collectCauses: Collector<'causes'> = () => causes.empty;
