import type { Collector } from '../collector.js';
import { withElements } from '../objects.js';

export const collectPictures: Collector<'pictures'> = ({ parted, reading }) =>
  withElements(reading?.objects.pictures, parted);
