import type { Collector } from '../collector.js';
import { visit } from './fact.js';

/** It is tried last of all, when everything else is told. */
export const collectVisit: Collector<'visit'> = () => visit.empty;
