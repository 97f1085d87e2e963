import type { Viewport } from './house/house.js';

/** One load in the browser. Plain data: the key of a cache, or a message to another machine. */
export interface Render {
  snippets: { name: string; slot: string }[];
  insert: 'inline';
  viewport: Viewport;
  engine: 'chromium';
  variant: 'as-is' | 'empty';
}

/** A box in CSS px, from the top left of the page. */
export interface Box {
  x: number;
  y: number;
  width: number;
  height: number;
}

/**
 * Where something on the page comes from: a place in the snippet's text that the parser made it
 * from, or a script (the offset of its tag in the snippet, where known, and the line in its file).
 */
export type Source = { offset: number } | { script: number | null; line: number | null };

/** An element of the snippet's own. */
export interface ElementFact {
  id: number;
  parent: number | null;
  tag: string;
  from: Source;
  /** For what a script made: a selector to find it by. */
  selector: string | null;
  box: Box;
  /**
   * From where to where (page px) something of its own shows: its box where that is painted, its text and
   * the room that it has for text. The right is left of the left where nothing does.
   */
  inkLeft: number;
  inkRight: number;
  /** A visitor can see it, when it is scrolled to. */
  shown: boolean;
  /** It has a box and is not hidden: assistive technology meets it, also where it is transparent or in a closed part. */
  exposed: boolean;
  /** Whether an ancestor clips it or scrolls it. */
  clipped: boolean;
  style: ElementStyle;
}

/** Computed (not used) values, as the cascade left them: `auto`, `640px`, `100%`. */
export interface ElementStyle {
  display: string;
  position: string;
  float: string;
  width: string;
  minWidth: string;
  maxWidth: string;
  overflowX: string;
}

export interface PageFact {
  /** Scrollable width and the width there is, CSS px, at load and after a scroll to the end and back. */
  atLoad: PageWidth;
  afterScroll: PageWidth | null;
  /** What `elements` were read at: the wider of the two. */
  readAt: 'load' | 'after-scroll';
  direction: 'ltr' | 'rtl';
  /** What had not come to rest when the time was over. */
  stillMoving: string[];
  /** The document was written over after load. */
  replaced: boolean;
}

export interface PageWidth {
  scrollWidth: number;
  clientWidth: number;
  /** A visitor can scroll there: not with `overflow-x: hidden` or `clip` on the page. */
  scrollable: boolean;
}

export interface SlotFact {
  name: string;
  /** The content box, page px. */
  box: Box;
  /** By how many px its content reaches beyond it. */
  overhang: number;
  /** Text of its own shows in it, outside of all elements. */
  text: boolean;
}

export interface FrameFact {
  id: number;
  from: Source;
  selector: string | null;
  tag: 'iframe' | 'embed' | 'object';
  address: string;
  box: Box;
  shown: boolean;
  style: ElementStyle;
  attributes: Record<string, string>;
  /** The width of an inset border, as browsers give it, on both sides together, px; 0 where it has another or none. */
  border: number;
}

export interface MediaFact {
  id: number;
  from: Source;
  selector: string | null;
  tag: 'video' | 'audio';
  box: Box;
  shown: boolean;
  style: ElementStyle;
  address: string;
  autoplay: boolean;
  /** A script called play() while it had sound. */
  asksForSound: boolean;
  muted: boolean;
  volume: number;
  controls: boolean;
  loop: boolean;
  inline: boolean;
  poster: boolean;
  paused: boolean;
  started: boolean;
  inView: boolean;
  /** HTMLMediaElement readyState (0 to 4) and networkState (0 to 3). */
  readyState: number;
  networkState: number;
  error: string | null;
  /** Frames decoded since load; of a film that runs, these were presented. */
  frames: number;
  duration: number | null;
  /** Whether the file has a sound track; null where nothing was told. */
  sound: boolean | null;
}

export interface PictureFact {
  id: number;
  from: Source;
  selector: string | null;
  tag: string;
  box: Box;
  shown: boolean;
  exposed: boolean;
  /** Hidden from assistive technology by its markup, or marked as decoration. */
  ignored: boolean;
  /** Its file has come; true for what has no file. */
  loaded: boolean;
  /** The text alternative by the accessible-name computation; '' where it is empty, null where nothing gives one. */
  name: string | null;
}

export interface RequestFact {
  address: string;
  /** The address that was asked for before redirects; the same as `address` where there were none. */
  first: string;
  host: string;
  /** The protocol's resource type: Script, Image, Document … */
  type: string;
  status: number | null;
  /** Bytes over the wire, headers included, and unpacked. */
  wire: number;
  unpacked: number;
  failed: string | null;
  /** Why the gate refused it. */
  refused: Refusal | null;
  from: Source | null;
  /** The address of the script or page that asked for it. */
  by: string | null;
  /** How its answer forbids to be framed; null where it does not. */
  forbidsFrames: string | null;
  /** From asking to the end of the answer, ms; null where it did not end. */
  waited: number | null;
  /** Made by a frame of another document. */
  inFrame: boolean;
}

export type RefusalKind =
  | 'private-address'
  | 'offline'
  | 'unknown-name'
  | 'bad-scheme'
  | 'unreachable'
  | 'proxy'
  | 'not-recorded'
  | 'not-here'
  | 'no-lookup'
  | 'too-much'
  | 'odd-status';

export interface Refusal {
  kind: RefusalKind;
  /** For a private address: what it is, in words. */
  words: string;
}

export interface ScriptFact {
  /** The page's own code kept the browser busy beyond the limit. */
  hung: {
    from: Source | null;
    /** The address of the script; null where it stands in the page itself, or is not known. */
    address: string | null;
    line: number | null;
    functionName: string | null;
    seconds: number;
  } | null;
  dialogs: { kind: string; text: string }[];
  /** Addresses for which a window was to be opened. */
  windows: string[];
  /** Attempts of the page to reload, or to go elsewhere. */
  navigations: { kind: 'reload' | 'leave'; address: string }[];
  console: string[];
  /** Addresses of sounds outside of the document that a script called play() on. */
  sounds: string[];
}

/** A part of the host page that differs from the page without the snippet. */
export interface HostPartFact {
  offset: number;
  tag: string;
  without: HostPart | null;
  with: HostPart | null;
}

export interface HostPart {
  box: Box;
  shown: boolean;
  style: string;
}

/** What a render measures, by kind. A check names the kinds it reads. */
export interface Facts {
  page: PageFact;
  slot: SlotFact;
  elements: ElementFact[];
  frames: FrameFact[];
  media: MediaFact[];
  pictures: PictureFact[];
  traffic: RequestFact[];
  scripts: ScriptFact;
  host: HostPartFact[];
}

export type FactKind = keyof Facts;

/** All kinds, in the order in which they are told. */
export const FACT_KINDS: readonly FactKind[] = [
  'page',
  'slot',
  'elements',
  'frames',
  'media',
  'pictures',
  'traffic',
  'scripts',
  'host',
];

/**
 * Something that should have been measured and was not, or not all of it. `kept`: how much of it is
 * there all the same; null where nothing is.
 */
export interface Gap {
  kind: FactKind;
  why: string;
  seen: number | null;
  kept: number | null;
}

/** A picture of a render: the bytes stand elsewhere, under their hash. One pixel for each CSS px. */
export interface Shot {
  /** hex SHA-256 of the PNG. */
  hash: string;
  /** What of the page it shows, page px. */
  region: Box;
}

/** All that was measured in one render; where a gap stands, the facts of that kind are empty. */
export interface Evidence extends Facts {
  render: Render;
  gaps: Gap[];
  /** null where none was wanted or could be taken. */
  picture: Shot | null;
}

/** The page with nothing in the slot, rendered twice: what differs between the two is unsteady. */
export interface Baseline {
  viewport: string;
  /** The wider of the two, so that an unsteady page is not put down to the snippet. */
  scrollWidth: number;
  /** Whether the two agree in it. */
  steady: boolean;
  parts: Record<number, HostPart & { tag: string; steady: boolean }>;
  requests: string[];
  /** Selectors of what the page's own scripts make. */
  made: string[];
}
