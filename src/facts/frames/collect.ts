import type { Collector } from '../collector.js';
import { withElements } from '../objects.js';

export const collectFrames: Collector<'frames'> = ({ parted, reading }) =>
  withElements(reading?.objects.frames, parted).map(({ index, ...frame }) => {
    const found = reading?.inner.find((one) => index !== null && one.index === index);
    if (!found) return { ...frame, inner: null };
    const { index: _index, ...inner } = found;
    return { ...frame, inner };
  });
