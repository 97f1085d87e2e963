import type { Collector } from '../collector.js';

/** All of it together is measured later. */
export const collectTimes: Collector<'times'> = ({ timed }) => ({ all: null, loads: [...timed] });
