import type { Collector } from '../collector.js';
import { withElements } from '../objects.js';

export const collectDrawings: Collector<'drawings'> = ({ parted, reading }) =>
  withElements(reading?.objects.drawings, parted);
