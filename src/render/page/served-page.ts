import { composePage, listTexts, type HostPage, type Placed } from '../../core/host/host-page.js';
import type { PutIn } from '../in-page/put-in.js';
import type { Source } from '../../core/evidence.js';
import {
  listParsedElements,
  listParsedPieces,
  type ParsedElement,
} from '../../core/markup/match.js';

/** What a page is made from: no paths, no live objects, so that it could be rendered elsewhere. */
export interface Sources {
  host: HostPage;
  /** In the order of the render's. */
  snippets: readonly Placed[];
  /** Those that are put in when the page has loaded. */
  late: readonly Late[];
  /** Where the page is. */
  address: string;
  headers: Record<string, string>;
  /** It stands where it is: all of it is the snippet's, and its site is there. */
  published: boolean;
}

/** As much of it as the page's text is made from. */
type PageSources = Pick<Sources, 'snippets'> &
  Partial<Pick<Sources, 'late'>> & { host: Omit<HostPage, 'css'> };

/** A snippet that is put in late, by its place in the render. */
export interface Late extends PutIn {
  snippet: number;
}

/** Where something in a served page belongs; a snippet by its place in the render. */
export type Belongs =
  | { to: 'snippet'; snippet: number; from: Source }
  | { to: 'host'; offset: number }
  | { to: 'script' };

/** A snippet's text in a served page. */
interface Piece {
  snippet: number;
  start: number;
  end: number;
}

/** A served page with what is known of its text. */
export class ServedPage {
  readonly html: string;
  readonly parsed: ParsedElement[];
  readonly late: readonly (Late & { parsed: ParsedElement[] })[];
  readonly #pieces: Piece[] = [];
  readonly #lineStarts: number[];

  constructor({ host, snippets, late = [] }: PageSources) {
    this.html = composePage(host, snippets);
    this.late = late.map((one) => ({ ...one, parsed: listParsedPieces(one.text) }));
    let at = 0;
    listTexts(host, snippets).forEach((text, i) => {
      const start = at + host.pieces[i]!.length;
      const snippet = snippets.findIndex(({ slot }) => slot === host.slots[i]);
      this.#pieces.push({ snippet, start, end: start + text.length });
      at = start + text.length;
    });
    this.parsed = listParsedElements(this.html);
    this.#lineStarts = [0];
    for (const match of this.html.matchAll(/\r\n|\n|\r/g))
      this.#lineStarts.push(match.index + match[0].length);
  }

  /** Whether it is what would be made from these. */
  isOf({ host, snippets, late = [] }: PageSources): boolean {
    const isSame = (one: Late, i: number) =>
      (['slot', 'text', 'how', 'scripts'] as const).every(
        (key) => this.late[i]?.[key] === one[key],
      );
    return (
      this.html === composePage(host, snippets) &&
      this.late.length === late.length &&
      late.every(isSame)
    );
  }

  /** Whether there is but one snippet, so that whatever is not the page's own is its. */
  get hasOne(): boolean {
    return this.#pieces.length < 2;
  }

  /** The text of a snippet. */
  getText(snippet: number): string {
    const late = this.late.find((one) => one.snippet === snippet);
    if (late) return late.text;
    const piece = this.#getPiece(snippet);
    return piece ? this.html.slice(piece.start, piece.end) : '';
  }

  #getPiece(snippet: number): Piece | undefined {
    return this.#pieces.find((piece) => piece.snippet === snippet);
  }

  /** Whether a snippet's own text names an address, as a whole or by its path. */
  mentions(snippet: number, address: string): boolean {
    const text = this.getText(snippet);
    const { pathname, search } = new URL(address);
    return pathname === '/' && !search
      ? text.includes(address.replace(/\/$/, ''))
      : text.includes(pathname + search) ||
          text.includes((pathname + search).replaceAll('&', '&amp;'));
  }

  /** Whose an offset of the served page is. Host offsets are counted as if there were no snippets. */
  locate(offset: number): Belongs {
    let put = 0;
    for (const { snippet, start, end } of this.#pieces) {
      if (offset < start) break;
      if (offset < end) return { to: 'snippet', snippet, from: { offset: offset - start } };
      put += end - start;
    }
    return { to: 'host', offset: offset - put };
  }

  /** The offset in the served page of a line and column, both 0-based, as the protocol counts them. */
  getOffset(line: number, column: number): number {
    const start = this.#lineStarts[Math.min(line, this.#lineStarts.length - 1)] ?? 0;
    return start + column;
  }

  /** The line of the served page, 0-based, on which a snippet starts. */
  getFirstLine(snippet: number): number {
    const start = this.#getPiece(snippet)?.start ?? 0;
    return this.#lineStarts.findLastIndex((line) => line <= start);
  }

  /** A snippet's offset at which a line (0-based) of the served page starts, or the snippet on it; null where the line is not its. */
  getSnippetLineStart(snippet: number, line: number): number | null {
    const piece = this.#getPiece(snippet);
    const start = this.getOffset(line, 0);
    const next = this.#lineStarts[line + 1] ?? this.html.length;
    if (!piece || start >= piece.end || next <= piece.start) return null;
    return Math.max(start - piece.start, 0);
  }

  /** Whose a line and column of the served page are. */
  locateLine(line: number, column: number): Belongs {
    return this.locate(this.getOffset(line, column));
  }
}
