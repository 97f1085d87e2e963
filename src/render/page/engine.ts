import type { BrowserPage } from './browser-page.js';
import type { Door, Visitor } from './visitor.js';

/** A browser program, and what its process needs in its environment. */
export interface Program {
  path: string;
  env: Record<string, string>;
  /** Its major version, where that is known before it is asked. */
  major?: number;
}

/** What a browser is started with for a run. */
export interface StartOptions {
  /** base64 SHA-256 of the gate's public key: the one certificate that is let through. */
  spki: string;
  /** The visitor's language, a BCP 47 tag. */
  language: string;
  /** How long it may take to say its first word, ms. */
  limit?: number;
}

/** A running browser. `close` ends it and removes its profile; it never throws. */
export interface RunningBrowser {
  /** Its product and version. */
  readonly version: string;
  readonly sandboxed: boolean;
  readonly pid: number;
  /** It has ended, or nothing more comes from it. */
  readonly gone: boolean;
  /** A page that shares nothing with others, its traffic going through one door. */
  openPage(door: Door, visitor: Omit<Visitor, 'version'>): Promise<BrowserPage>;
  /** Of samples of writing, by name, those that no font here has. */
  listUndrawn(samples: Record<string, string>): Promise<string[]>;
  close(): Promise<void>;
}

/** What an engine is driven by: beside the pages that its browsers open, all that a render needs of it. */
export interface Driver {
  /** @throws ToolError `browser-failed` with what the browser said; Breakdown where it was ended from outside */
  start(program: Program, options: StartOptions): Promise<RunningBrowser>;
}
