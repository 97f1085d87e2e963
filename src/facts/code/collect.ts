import type { Collector } from '../collector.js';
import { code } from './fact.js';

/** It is asked of the browser later. */
export const collectCode: Collector<'code'> = () => code.empty;
