import type { Collector } from '../collector.js';
import { withElements } from '../objects.js';

export const collectMedia: Collector<'media'> = ({ parted, reading, hasSound }) =>
  withElements(reading?.objects.media, parted).map((one) => ({
    ...one,
    sound: one.sound ?? hasSound(one.address),
  }));
