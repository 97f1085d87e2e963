import type { Collector } from '../collector.js';
import { reaching } from './fact.js';

/** Rules are taken away when everything else is read. */
export const collectReaching: Collector<'reaching'> = () => reaching.empty;
