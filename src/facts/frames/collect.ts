import type { Collector } from '../collector.js';
import { withElements } from '../objects.js';

export const collectFrames: Collector<'frames'> = ({ parted, reading }) =>
  withElements(reading?.objects.frames, parted).map(({ index: _index, ...frame }) => {
    const found = reading?.inner.find(({ owner }) => owner === frame.id);
    if (!found) return { ...frame, inner: null };
    const { index: _place, inPage: _inPage, ...inner } = found.inner;
    return { ...frame, inner };
  });
