import type { Collector } from '../collector.js';
import { paint } from './fact.js';

/** It is told by a picture that is taken later. */
export const collectPaint: Collector<'paint'> = () => paint.empty;
