import stringWidth from 'string-width';
import type { Finding } from '../core/run.js';
import { clean } from './clean.js';

/** A source line with a caret under the faulty piece, cut to the room there is. */
export interface CodeFrame {
  number: string;
  source: string;
  caret: string;
}

/** The first line of what a finding points at. */
export function makeCodeFrame(text: string, where: Finding['where'], room: number): CodeFrame {
  const start = text.slice(0, where.offset).search(/[^\r\n]*$/);
  const rest = text.slice(start).search(/\r|\n|$/);
  const line = text.slice(start, start + rest);
  const from = where.offset - start;
  const to = where.endLine === where.line ? from + (where.endOffset - where.offset) : line.length;
  // Keeps the piece in sight where the line is longer than the room.
  const shift = Math.min(Math.max(0, from - Math.floor(room / 3)), Math.max(0, line.length - room));
  const lead = shift > 0 ? '…' : '';
  const shown = line.slice(shift, shift + room - lead.length);
  const tail = shift + shown.length < line.length ? '…' : '';
  const show = (piece: string) => clean(piece.replaceAll('\t', ' '));
  const before = lead + show(line.slice(shift, from));
  const marked = show(line.slice(Math.max(from, shift), Math.min(to, shift + shown.length)));
  return {
    number: String(where.line),
    source: lead + show(shown) + tail,
    caret: `${' '.repeat(stringWidth(before))}${'^'.repeat(Math.max(1, stringWidth(marked)))}`,
  };
}
