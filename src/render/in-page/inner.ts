import { noteRoom } from './natural.js';
import type { InnerMedium } from '../../facts/frames/fact.js';
import { hasStarted, readRatio } from './films.js';
import { findSmallest, type SmallestText } from './smallest.js';

/** The document of a frame, px. */
export interface Inner {
  /** It stands in the page itself, and not in another frame. */
  inPage: boolean;
  /** Its place among the frames of the page; null where it is in another frame, or in a shadow root. */
  index: number | null;
  width: number;
  height: number;
  scrollWidth: number;
  scrollHeight: number;
  /** Down to where something of its content reaches. */
  contentHeight: number;
  smallest: SmallestText | null;
  /** It asks for a password. */
  asksPassword: boolean;
  /** Films and sounds in it. */
  media: InnerMedium[];
  /** Features that it asked for and is not allowed. */
  refused: string[];
}

/** Measures the document of the frame that it is asked in. */
export function readInner(): Inner {
  const { page, features } = globalThis.mivketNotebook;
  const root = page.documentElement;
  const scroller = page.scrollingElement ?? root;
  const inPage = window.parent === window.top;
  noteRoom();
  return {
    inPage,
    index: inPage ? (listPlaces(window.parent).get(window) ?? null) : null,
    width: root.clientWidth,
    height: window.innerHeight,
    scrollWidth: scroller.scrollWidth,
    scrollHeight: scroller.scrollHeight,
    contentHeight: readContentHeight(page),
    smallest: findSmallest(),
    asksPassword: page.querySelector('input[type="password" i]') !== null,
    media: listMedia(page),
    refused: [...features],
  };
}

const MOST_MEDIA = 20;

function listMedia(page: Document): InnerMedium[] {
  const all = [...page.querySelectorAll<HTMLMediaElement>('video, audio')].slice(0, MOST_MEDIA);
  return all.map((one) => {
    const asks = one.autoplay || globalThis.mivketNotebook.asking.has(one);
    return {
      tag: one.localName as InnerMedium['tag'],
      address: one.currentSrc,
      asks: asks && !one.muted && one.volume > 0,
      started: hasStarted(one),
      ratio: one instanceof HTMLVideoElement && fillsWindow(one) ? readRatio(one) : null,
    };
  });
}

/** What leaves less of the window free than this fills it. */
const FILLED = 0.95;

function fillsWindow(node: Element): boolean {
  const { width, height } = node.getBoundingClientRect();
  return width >= innerWidth * FILLED && height >= innerHeight * FILLED;
}

/** So many elements are looked at for where the content ends. */
const MOST_ELEMENTS = 2000;

function readContentHeight(page: Document): number {
  const { body } = page;
  const inside = body ? [...body.querySelectorAll('*')].slice(0, MOST_ELEMENTS) : [];
  const boxes = [...(body ? [body] : []), ...inside].map((one) => one.getBoundingClientRect());
  const ends = boxes.filter(({ width, height }) => width > 0 && height > 0);
  return Math.round(Math.max(0, ...ends.map(({ bottom }) => bottom + window.scrollY)));
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
