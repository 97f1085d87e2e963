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
    index: window.parent === window.top ? findIndex(window, window.parent) : null,
    width: root.clientWidth,
    height: window.innerHeight,
    scrollWidth: scroller.scrollWidth,
    scrollHeight: scroller.scrollHeight,
  };
}

/** The place of a window among the frames of another; they may be compared whatever their origin. */
export function findIndex(of: unknown, within: Window): number | null {
  for (let i = 0; i < within.length; i++) if (within[i] === of) return i;
  return null;
}
