import type { Evidence, FrameFact } from '../../core/evidence.js';
import { getPlace, nameRoom } from '../../core/render.js';
import { getElementKey } from '../../core/search/spans.js';

/** How high the document of a frame is by itself is found out once: later that holds of what is as it was. */
export function keepNaturals(later: Evidence, standing: readonly Evidence[]): Evidence {
  const getKey = (one: Evidence) => `${nameRoom(getPlace(one))} ${getPlace(one).viewport}`;
  const before = standing.find((one) => getKey(one) === getKey(later));
  if (!before || later.frames.length === 0) return later;
  const frames = later.frames.map((frame) => {
    const known = before.frames.find((one) => isAsItWas(one, frame))?.inner?.natural;
    if (known === undefined || !frame.inner || frame.inner.natural !== undefined) return frame;
    return { ...frame, inner: { ...frame.inner, natural: known } };
  });
  return { ...later, frames };
}

function isAsItWas(a: FrameFact, b: FrameFact): boolean {
  const sizes = ['width', 'height', 'scrollHeight', 'contentHeight'] as const;
  return (
    getElementKey(a) === getElementKey(b) && sizes.every((one) => a.inner?.[one] === b.inner?.[one])
  );
}
