import type { Protocol } from 'devtools-protocol';
import type { ScriptFact } from '../core/evidence.js';
import type { Session } from './protocol/connection.js';

const CONSOLE_CAP = 200;
/** More of a kind than this tell nothing new. */
const CAP = 50;
const LONGEST = 300;

/** What the code of a page did, since it was gone to, that a visitor would meet. */
export class Happenings {
  dialogs: ScriptFact['dialogs'] = [];
  windows: ScriptFact['windows'] = [];
  navigations: ScriptFact['navigations'] = [];
  console: string[] = [];
  /** The document was written over after load. */
  replaced = false;
  crashed = false;
  /** Another document stands where the planned one did: nothing of it can be read any more. */
  left = false;
  readonly #address: string;
  #frame: string;
  #committed = false;
  #scripted = '';

  /** @param address where the page is; '' before it is gone anywhere */
  constructor(address: string, frame: string) {
    this.#address = address;
    this.#frame = frame;
  }

  note(text: string): void {
    if (this.console.length < CONSOLE_CAP) this.console.push(text.slice(0, 500));
  }

  /** The page went, or would go, elsewhere or here again. */
  leave(address: string): void {
    const kind = this.#committed && address === this.#address ? 'reload' : 'leave';
    if (this.navigations.length < CAP)
      this.navigations.push({ kind, address: address.slice(0, LONGEST) });
  }

  /** Takes an event of the page's session to heart. */
  onDialog({ type, message }: Protocol.Page.JavascriptDialogOpeningEvent): void {
    if (this.dialogs.length < CAP) this.dialogs.push({ kind: type, text: message.slice(0, 200) });
  }

  onWindow({ url, userGesture }: Protocol.Page.WindowOpenEvent): void {
    if (!userGesture && this.windows.length < CAP) this.windows.push(url.slice(0, LONGEST));
  }

  onScheduled({ frameId, reason, url }: Protocol.Page.FrameScheduledNavigationEvent): void {
    if (frameId !== this.#frame) return;
    // A refresh may be meant for later than anybody waits here.
    if (reason === 'metaTagRefresh') this.leave(url);
    if (url.startsWith('javascript:')) this.#scripted = url;
  }

  /** What needs no request (a blob, about:blank, the page before) cannot be held back: the page is gone. */
  onNavigated({ id, parentId, url }: Protocol.Page.Frame): void {
    if (parentId || id !== this.#frame || this.#address === '') return;
    if (!this.#committed && url === this.#address) this.#committed = true;
    else if (this.#committed) this.#go(url);
  }

  /** A javascript: address whose script gives a text puts that in the page's place. */
  onCleared(): void {
    if (this.#committed && this.#scripted) this.#go(this.#scripted);
    this.#scripted = '';
  }

  #go(url: string): void {
    this.left = true;
    this.leave(url);
  }
}

/** Has one page's happenings told, those of the load that goes on. */
export function followHappenings(session: Session, now: () => Happenings): void {
  session.on('Page.javascriptDialogOpening', (event) => {
    now().onDialog(event);
    session.tell('Page.handleJavaScriptDialog', { accept: event.type === 'beforeunload' });
  });
  session.on('Page.windowOpen', (event) => now().onWindow(event));
  session.on('Page.frameScheduledNavigation', (event) => now().onScheduled(event));
  session.on('Page.frameNavigated', ({ frame }) => now().onNavigated(frame));
  session.on('Runtime.executionContextsCleared', () => now().onCleared());
  session.on('Page.documentOpened', ({ frame }) => {
    if (!frame.parentId) now().replaced = true;
  });
}
