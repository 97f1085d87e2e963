import type { ToolError } from '../core/errors.js';
import type { StoodText } from '../core/live/pieces.js';
import type { Render } from '../core/render.js';
import type { ShownPiece } from '../render/standing.js';
import type { NotJudged, SnippetReport } from '../core/run.js';

/** What happens while an audit runs. */
export type AuditEvent =
  /** So many renders more are to be made; told again where what was seen calls for more. */
  | { type: 'planned'; renders: number }
  /** The browser is there. `sandboxed` is false where it runs as root. */
  | { type: 'browser'; version: string; sandboxed: boolean }
  | { type: 'begun'; snippet: string }
  /** What stood in a page, and which pictures there are of it, where that is asked for. */
  | { type: 'standing'; render: Render; texts: readonly StoodText[] }
  | { type: 'pieces'; render: Render; pieces: readonly ShownPiece[] }
  /** So many renders of a snippet are made, or were found kept. */
  | { type: 'rendered'; snippet: string; renders: number }
  | {
      type: 'judged';
      snippet: string;
      report: SnippetReport;
      notJudged: readonly NotJudged[];
      /**
       * For how long code of the page, of whomever, had its main thread until it came to rest, as it is, ms; null where
       * that was not timed. It goes by the machine: no document of a run has it.
       */
      scriptTime: number | null;
    }
  /** Something could not be written; all else goes on. */
  | { type: 'fault'; error: ToolError };

/** Events on their way to who listens. Where nobody does they are not kept. */
export class Events implements AsyncIterable<AuditEvent> {
  #waiting: AuditEvent[] = [];
  #wake: (() => void) | null = null;
  #heard = false;
  #ended = false;
  #error: { error: unknown } | null = null;

  tell(event: AuditEvent): void {
    if (!this.#heard) return;
    this.#waiting.push(event);
    this.#wake?.();
  }

  /** @param error what ends it before its time */
  end(error: { error: unknown } | null): void {
    this.#ended = true;
    this.#error = error;
    this.#wake?.();
  }

  async *[Symbol.asyncIterator](): AsyncGenerator<AuditEvent, void, undefined> {
    for (;;) {
      yield* this.#waiting.splice(0);
      if (this.#waiting.length > 0) continue;
      if (this.#error) throw this.#error.error;
      if (this.#ended) return;
      await new Promise<void>((resolve) => (this.#wake = resolve));
    }
  }

  /** From now on somebody listens. */
  listen(): AsyncIterator<AuditEvent> {
    this.#heard = true;
    return this[Symbol.asyncIterator]();
  }
}
