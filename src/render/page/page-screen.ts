/** A frame of a page as it was shown. */
export interface ShownFrame {
  /** When, by a clock that goes on evenly, ms. */
  at: number;
  /** How much later it came here, ms: what was shown meanwhile may be left out. */
  late: number;
  /** All of the window, in small. */
  png: Buffer;
  /** How wide the window is, px. */
  width: number;
  /** px of the window for each px of the page. */
  zoom: number;
  /** Where the page stands in it, px of the page. */
  left: number;
  top: number;
}

/** What a page shows, as soon as something in it is painted: it cannot tell that it is watched. */
export interface PageScreen {
  /** How many frames were shown since it was opened, while it was watched. */
  readonly count: number;
  /** Begins. @param window its size, px */
  watch(window: { width: number; height: number }): Promise<void>;
  /** The frames since it began, or since they were taken. */
  take(): ShownFrame[];
  /** Resolves with the next frame. */
  whenShown(): Promise<true>;
  /** Ends. */
  rest(): Promise<void>;
}
