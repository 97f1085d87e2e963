/** The document of a frame, px. */
export interface Inner {
  /** Its place among the frames of the page it stands in; null where that is not the whole page. */
  index: number | null;
  width: number;
  height: number;
  scrollWidth: number;
  scrollHeight: number;
}

/** Measures the document of the frame that it is asked in. */
export function readInner(): Inner {
  const { page } = globalThis.mivketNotebook;
  const root = page.documentElement;
  const scroller = page.scrollingElement ?? root;
  return {
    index: window.parent === window.top ? (listPlaces(window.parent).get(window) ?? null) : null,
    width: root.clientWidth,
    height: window.innerHeight,
    scrollWidth: scroller.scrollWidth,
    scrollHeight: scroller.scrollHeight,
  };
}

/** Of so many frames the documents are measured; in a page that has more, none. */
const MOST = 200;

/** The places of a window's frames among them; they may be compared whatever their origin. */
export function listPlaces(within: Window): Map<unknown, number> {
  const places = new Map<unknown, number>();
  if (within.length > MOST) return places;
  for (let i = 0; i < within.length; i++) places.set(within[i], i);
  return places;
}
