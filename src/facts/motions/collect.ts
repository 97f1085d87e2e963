import type { Collector } from '../collector.js';
import { withElements } from '../objects.js';

export const collectMotions: Collector<'motions'> = ({ parted, reading }) =>
  withElements(reading?.objects.motions, parted);
