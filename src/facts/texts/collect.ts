import type { Collector } from '../collector.js';
import { withElements } from '../objects.js';

export const collectTexts: Collector<'texts'> = ({ parted, reading }) =>
  withElements(reading?.objects.texts, parted);
