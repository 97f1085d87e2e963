import type { Collector } from '../collector.js';
import { handling } from './fact.js';

/** Keys and fingers come last of all, when everything else is told. */
export const collectHandling: Collector<'handling'> = () => handling.empty;
