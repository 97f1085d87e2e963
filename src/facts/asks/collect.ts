import type { Collector } from '../collector.js';
import { asks } from './fact.js';

/** It is asked of the browser later. */
export const collectAsks: Collector<'asks'> = () => asks.empty;
