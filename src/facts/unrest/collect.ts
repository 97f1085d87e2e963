import type { Collector } from '../collector.js';
import { unrest } from './fact.js';

/** It is measured later. */
export const collectUnrest: Collector<'unrest'> = () => unrest.empty;
