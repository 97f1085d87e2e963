import type { Evidence, FrameFact } from '../../core/evidence.js';
import { getPlace, nameRoom } from '../../core/render.js';

/** How high the document of a frame is by itself is found out once: later that holds of what is as it was. */
export function keepNaturals(later: Evidence, standing: readonly Evidence[]): Evidence {
  const [room, { viewport }] = [nameRoom(getPlace(later)), getPlace(later)];
  const before = standing.find(
    (one) => nameRoom(getPlace(one)) === room && getPlace(one).viewport === viewport,
  );
  if (!before || later.frames.length === 0) return later;
  const frames = later.frames.map((frame) => {
    const known = before.frames.find((one) => isAsItWas(one, frame))?.inner?.natural;
    if (known === undefined || !frame.inner || frame.inner.natural !== undefined) return frame;
    return { ...frame, inner: { ...frame.inner, natural: known } };
  });
  return { ...later, frames };
}

function isAsItWas(a: FrameFact, b: FrameFact): boolean {
  const getSizes = ({ inner }: FrameFact) =>
    inner && [inner.width, inner.height, inner.scrollHeight, inner.contentHeight];
  const getKey = (one: FrameFact) => JSON.stringify([one.from, one.selector, getSizes(one)]);
  return getKey(a) === getKey(b);
}
