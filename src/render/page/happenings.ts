import type { Device, ScriptFact } from '../../core/evidence.js';
import type { CallFrame } from './request-log.js';

const CONSOLE_CAP = 200;
/** More of a kind than this tell nothing new. */
const CAP = 50;
const LONGEST = 300;
/** It goes there itself, by a window, or by one that a click opens. */
const WAYS = 3;

/** An error of a page's code: the calls that led to it, the innermost first. */
export interface Raised {
  how: ScriptFact['errors'][number]['how'];
  text: string;
  calls: readonly CallFrame[];
}

/** Something that a visitor is to give away before having touched the page. */
export interface Plea {
  what: Device;
  calls: readonly CallFrame[];
}

/** What the code of a page did since its load began that a visitor would meet; an engine tells it. */
export class Happenings {
  dialogs: ScriptFact['dialogs'] = [];
  windows: ScriptFact['windows'] = [];
  navigations: ScriptFact['navigations'] = [];
  downloads: ScriptFact['downloads'] = [];
  console: string[] = [];
  errors: Raised[] = [];
  readonly pleas: Plea[] = [];
  /** The document was written over after load. */
  replaced = false;
  crashed = false;
  /** Another document stands where the planned one did: nothing of it can be read any more. */
  left = false;
  /** Keys or a finger were tried on it. */
  handled = false;
  /** A wheel or a finger has scrolled it: that may go on, and a page of the same address begins where it ends. */
  glides = false;
  /** Every address that it led to, or would have, in whatever way. */
  readonly led: string[] = [];
  readonly #address: string;
  #committed = false;
  #scripted = '';

  /** @param address where the page is; '' before it is gone anywhere */
  constructor(address: string) {
    this.#address = address;
  }

  note(text: string): void {
    if (this.console.length < CONSOLE_CAP) this.console.push(text.slice(0, 500));
  }

  /** An error that nobody caught, or that was told to the console. */
  raise(error: Raised): void {
    const isKnown = this.errors.some(({ text, how }) => text === error.text && how === error.how);
    if (!isKnown && this.errors.length < CAP) this.errors.push(error);
  }

  /** The visitor is asked for something. */
  plead(plea: Plea): void {
    if (this.pleas.length < CAP) this.pleas.push(plea);
  }

  /** The page went, or would go, elsewhere or here again. */
  leave(address: string): void {
    const kind = this.#committed && address === this.#address ? 'reload' : 'leave';
    if (this.navigations.length < CAP)
      this.navigations.push({ kind, address: address.slice(0, LONGEST) });
    this.#lead(address);
  }

  openDialog(kind: string, text: string): void {
    if (this.dialogs.length < CAP) this.dialogs.push({ kind, text: text.slice(0, 200) });
  }

  /** It has opened so many dialogs that nobody would come to the end of them. */
  get insists(): boolean {
    return this.dialogs.length === CAP;
  }

  download(address: string, name: string): void {
    if (this.downloads.length < CAP)
      this.downloads.push({ address: address.slice(0, LONGEST), name: name.slice(0, LONGEST) });
  }

  openWindow(address: string): void {
    if (this.windows.length < CAP) this.windows.push(address.slice(0, LONGEST));
    this.#lead(address);
  }

  /** A window that a click of ours has opened: nobody is to blame for that. */
  openByClick(address: string): void {
    this.#lead(address);
  }

  /** It is to go elsewhere; `refresh`: by a refresh, which may be meant for later than anybody waits here. */
  schedule(address: string, refresh: boolean): void {
    if (refresh) this.leave(address);
    if (address.startsWith('javascript:')) this.#scripted = address;
  }

  /** What needs no request (a blob, about:blank, the page before) cannot be held back: the page is gone. */
  arrive(address: string): void {
    if (this.#address === '') return;
    if (!this.#committed && address === this.#address) this.#committed = true;
    else if (this.#committed) this.#go(address);
  }

  /** A javascript: address whose script gives a text puts that in the page's place. */
  clear(): void {
    if (this.#committed && this.#scripted) this.#go(this.#scripted);
    this.#scripted = '';
  }

  #lead(address: string): void {
    if (this.led.length < WAYS * CAP) this.led.push(address.slice(0, LONGEST));
  }

  #go(address: string): void {
    this.left = true;
    this.leave(address);
  }
}
