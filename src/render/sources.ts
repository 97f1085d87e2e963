import type { HostPage } from '../core/host/host-page.js';
import { composePage } from '../core/host/host-page.js';
import { listParsedElements, type ParsedElement } from '../core/markup/match.js';
import type { Source } from '../core/evidence.js';

/** What a page is made from: no paths, no live objects, so that it could be rendered elsewhere. */
export interface Sources {
  host: HostPage;
  snippet: string;
  origin: string;
  headers: Record<string, string>;
}

/** Where something in a served page belongs. */
export type Belongs =
  { to: 'snippet'; from: Source } | { to: 'host'; offset: number } | { to: 'script' };

/** A served page with what is known of its text. */
export class ServedPage {
  readonly html: string;
  readonly parsed: ParsedElement[];
  readonly #start: number;
  readonly #end: number;
  readonly #lineStarts: number[];

  constructor(sources: { host: HostPage; snippet: string }) {
    this.html = composePage(sources.host, sources.snippet);
    this.#start = sources.host.before.length;
    this.#end = this.#start + sources.snippet.length;
    this.parsed = listParsedElements(this.html);
    this.#lineStarts = [0];
    for (const match of this.html.matchAll(/\r\n|\n|\r/g))
      this.#lineStarts.push(match.index + match[0].length);
  }

  /** Whether the snippet's own text names an address, as a whole or by its path. */
  mentions(address: string): boolean {
    const snippet = this.html.slice(this.#start, this.#end);
    const { pathname, search } = new URL(address);
    return pathname === '/' && !search
      ? snippet.includes(address.replace(/\/$/, ''))
      : snippet.includes(pathname + search) ||
          snippet.includes((pathname + search).replaceAll('&', '&amp;'));
  }

  /** Whose an offset of the served page is. Host offsets are counted as if the snippet were not there. */
  locate(offset: number): Belongs {
    if (offset < this.#start) return { to: 'host', offset };
    if (offset >= this.#end) return { to: 'host', offset: offset - (this.#end - this.#start) };
    return { to: 'snippet', from: { offset: offset - this.#start } };
  }

  /** The offset in the served page of a line and column, both 0-based, as the protocol counts them. */
  getOffset(line: number, column: number): number {
    const start = this.#lineStarts[Math.min(line, this.#lineStarts.length - 1)] ?? 0;
    return start + column;
  }

  /** The line of the served page, 0-based, on which the snippet starts. */
  getFirstLine(): number {
    return this.#lineStarts.findLastIndex((start) => start <= this.#start);
  }

  /** The snippet's offset at which a line (0-based) of the served page starts, or the snippet on it; null where the line is the host's. */
  getSnippetLineStart(line: number): number | null {
    const start = this.getOffset(line, 0);
    const next = this.#lineStarts[line + 1] ?? this.html.length;
    if (start >= this.#end || next <= this.#start) return null;
    return Math.max(start - this.#start, 0);
  }

  /** The snippet's offset of a line and column of the served page; null where the line is the host's. */
  getSnippetOffset(line: number, column: number): number | null {
    const place = this.locate(this.getOffset(line, column));
    return place.to === 'snippet' && 'offset' in place.from ? place.from.offset : null;
  }
}
