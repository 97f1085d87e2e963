import type { Collector } from '../collector.js';
import { withElements } from '../objects.js';

export const collectControls: Collector<'controls'> = ({ parted, reading }) =>
  withElements(reading?.objects.controls, parted);
