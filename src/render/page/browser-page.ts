import type { Box, StoredFact } from '../../core/evidence.js';
import type { Variant, Viewport } from '../../core/render.js';
import type { PageCalls } from '../reader/calls.js';
import type { PutIn } from '../in-page/put-in.js';
import type { PageScreen } from './page-screen.js';
import type { Happenings } from './happenings.js';
import type { CallFrame, RequestLog } from './request-log.js';

/** Something that code listens for; passive: it may not take what it is told of. */
export interface Listening {
  type: string;
  passive: boolean;
}

/** What a visitor does with keys and a finger. The page counts as used from then on. */
export interface PageHand {
  /** For what events the page's own code listens, anywhere in it, frames of other documents left out. */
  listListeners(): Promise<Listening[]>;
  /** Moves the mouse into the window and out at its side. */
  point(): Promise<void>;
  /** Presses a key and lets it go. */
  press(key: 'Tab' | 'Escape' | 'ArrowDown' | 'Space', shift: boolean): Promise<void>;
  /** Clicks with a mouse that stands there, px of the window. */
  click(at: { x: number; y: number }): Promise<void>;
  /** Turns the wheel of a mouse that stands there, px of the window. */
  wheel(at: { x: number; y: number }, down: number): Promise<void>;
  /** Moves one finger up or down, px of the window, and asks something while it is still there. */
  swipe<T>(way: { x: number; from: number; to: number }, meanwhile: () => Promise<T>): Promise<T>;
}

/** What a page is made ready with before it is loaded. */
export interface Preparation {
  viewport: Viewport;
  variant: Variant;
  /**
   * Something stood there before, and has to be left behind: it, or what stood in its frames, had code,
   * which may store something on leaving; or it had none.
   */
  before: 'code' | 'framed-code' | 'no-code' | null;
  /** The cache too is emptied: everything is asked for again. */
  cold: boolean;
  /** Keep in mind which calls make elements. */
  traced: boolean;
  /** Take a profile, to name the line where it hangs. */
  profiled: boolean;
  /** Keep in mind which of its code has run. */
  covered: boolean;
  /** Its code runs. */
  scripted: boolean;
  /** What it shows is watched from the start. */
  watched: boolean;
}

/** Code that ran, the innermost call first, and its share of the time that was looked at. */
export interface WorkShare {
  share: number;
  calls: readonly CallFrame[];
}

/** Code that ran, the innermost call first, and for how long, ms. */
export interface WorkTime {
  ms: number;
  calls: readonly CallFrame[];
}

/** A script, and how much of it has run, characters. */
export interface RanScript {
  address: string;
  length: number;
  ran: number;
}

/** What is known of a page's code while it runs. */
export interface Running {
  /** Scripts of some length, with what has run of them; null where that was not kept in mind. */
  listRan(): Promise<RanScript[] | null>;
  /** How much of the time its code has the processor, 0 to 1, for `ms` from now. */
  measureBusy(ms: number): Promise<number>;
  /** What code runs for so long. */
  sampleWork(ms: number): Promise<WorkShare[]>;
  /** How long code has run since the page was made ready, ms; null where that was not kept in mind. */
  getTime(): Promise<number | null>;
  /** What code runs while something is done, in the page that stands and in those that are loaded meanwhile. */
  timeWork(work: () => Promise<unknown>): Promise<WorkTime[]>;
}

/** Where code that was stopped spent its time; null where that is not known. */
export type Hottest = CallFrame | null;

/** What is asked of the code that stands in the page. */
export type PageCall = keyof PageCalls;
export type PageAnswer<N extends PageCall> = Awaited<ReturnType<PageCalls[N]>>;

/** What the document of a frame answers; `frame` names it, as long as it stands. */
export interface FrameAnswer<T> {
  frame: string;
  answer: T;
}

/** How a page's time was moved on. */
export interface Passed {
  /** So far, since its code took all the time that there was. */
  busy: boolean;
  /** How far its animations are ahead of it, ms: they go from frame to frame. */
  ahead: number;
}

/** A page that is asked again and again whether it answers. */
export interface Pulse {
  /** Resolves when it has not answered for as long as it may take. */
  hung: Promise<'hung'>;
  /** Resolves as soon as it is known whether it answers now. */
  decide(): Promise<'hung' | 'answers'>;
  stop(): void;
}

/** The file of a picture. */
export interface PictureFile {
  type: string;
  base64: string;
}

/** A file of a page. */
export interface PageFile {
  address: string;
  text: string;
}

/**
 * A page in a browser, as renders work with it: what a second engine has to do. Each call that the
 * page's own code could keep from ending either has a limit of its own, or may be left waiting.
 */
export interface BrowserPage {
  /** Names the page's own frame in the requests. */
  readonly mainFrame: string;
  readonly requests: RequestLog;
  readonly hand: PageHand;
  readonly happened: Happenings;
  /** The address that was last loaded. */
  readonly address: string;
  /** Its whole browser is gone: nothing more is to be had from it. */
  readonly gone: boolean;
  /** Whether it tells so much, as by its log, that an answer may be on its way behind that. */
  readonly talks: boolean;

  prepare(wish: Preparation): Promise<void>;
  /** Resolves when it has loaded; to null after `ms` without. @throws Error where it could not be loaded at all */
  load(address: string, ms: number): Promise<true | null>;
  /** What is still to come of the load that goes on is not waited for: it counts as over. */
  endLoad(): void;
  /** Puts a snippet into the page that stands, as the page's own code would. */
  putIn(wish: PutIn): Promise<void>;
  /** Brings what stands there to another window, as if it had been loaded in that. */
  resize(viewport: Viewport): Promise<void>;

  /** Asks the code that reads the page, unseen by the page's own. @throws Error where there is none to ask */
  read<N extends PageCall>(name: N, ...args: Parameters<PageCalls[N]>): Promise<PageAnswer<N>>;
  /** The same of every frame in it, of whatever origin; those that do not answer within `ms` are left out. */
  readFrames<N extends PageCall>(
    name: N,
    ms: number,
    ...args: Parameters<PageCalls[N]>
  ): Promise<FrameAnswer<PageAnswer<N>>[]>;
  /** The number of the element of the page in which a frame stands, in whatever shadow root; null where it is not in this page. */
  findOwner(frame: string): Promise<number | null>;
  /** The scripts and sheets that it has loaded, as far as the browser keeps them. */
  listFiles(): Promise<PageFile[]>;
  /** Its code, as it runs. */
  readonly running: Running;
  readonly screen: PageScreen;
  /** The file of a picture, as it was loaded; null where it is not kept. */
  readPicture(address: string): Promise<PictureFile | null>;
  /** The cookies that are kept by now, whoever set them. */
  listCookies(): Promise<StoredFact[]>;
  /** Lets what reads see into closed shadow roots, so that the page's code cannot tell. */
  openClosedRoots(): Promise<void>;
  /** The calls that made an element, where they were kept in mind. */
  listMakers(id: number): Promise<readonly CallFrame[]>;
  /** Waits until it is known of these media files whether they have a sound track, `ms` at most. */
  learnSounds(addresses: readonly string[], ms: number): Promise<void>;
  /** Whether a media file has a sound track; null where nothing was told. */
  hasSound(address: string): boolean | null;

  /**
   * Moves the page's own time on, with that of its frames and workers: timers go off, animations run. No other page
   * can be loaded here afterwards.
   * @param ms of the page
   * @param limit how long its code may take for it, ms
   * @param then how its time goes on: not at all, or with that of the machine
   */
  pass(ms: number, limit: number, then: 'stands' | 'flows'): Promise<Passed>;
  /** Its time was moved on. */
  readonly aged: boolean;

  /** `ms`: how long its code may have the processor without an answer. */
  watchHeart(ms: number): Pulse;
  /** Gets a hanging page to answer again: its code is stopped. */
  contain(profiled: boolean): Promise<Hottest>;

  /** A PNG of a piece of the page, one pixel for each CSS px; null where it was not drawn within `ms`. */
  shoot(region: Box, density: number, ms: number): Promise<Buffer | null>;
  /** Draws a page of our own in place of what stands there; null where it is higher than a picture can be. */
  draw(html: string, width: number): Promise<Buffer | null>;

  /** Ends the page and all that is stored of it. Never throws. */
  close(): Promise<void>;
}
