import type { RunDocument } from '../core/run.js';
import type { GetShot } from './html/report.js';
import type { Draw } from './html/sheets.js';
import type { Paint } from './paint.js';

/** What a report is made with, besides the run document. */
export interface FormatMeans {
  paint: Paint;
  /** Columns there are. */
  width: number;
  getShot: GetShot;
  draw: Draw;
}

/** The content of one file. */
export type Content = string | Uint8Array | AsyncIterable<string>;

/** Makes a report: one file, or several of the same kind. */
type Make = (
  document: RunDocument,
  means: FormatMeans,
) => Iterable<Content> | AsyncIterable<Content>;

/** A form that reports have. */
export interface Format {
  name: string;
  /** The ending by which a file is known to be one; null where it is not for files. */
  ending: string | null;
  /** What it is, for the help. */
  about: string;
  /** It can go to standard output. */
  printed: boolean;
  /** It shows what renders looked like. */
  shots: boolean;
  /** A browser draws it. */
  drawn: boolean;
  /** Loads what makes it, which other forms can do without. */
  load(): Promise<Make>;
}

/** All formats. Options, help and complaints are made from this. */
export const FORMATS: readonly Format[] = [
  {
    name: 'text',
    ending: null,
    about: 'for reading in a terminal',
    printed: true,
    shots: false,
    drawn: false,
    async load() {
      const { formatText } = await import('./text.js');
      return (document, means) => [formatText(document, means)];
    },
  },
  {
    name: 'json',
    ending: '.json',
    about: 'the run document',
    printed: true,
    shots: false,
    drawn: false,
    async load() {
      const { formatJson } = await import('./json.js');
      return (document) => [formatJson(document)];
    },
  },
  {
    name: 'html',
    ending: '.html',
    about: 'a report with pictures',
    printed: false,
    shots: true,
    drawn: false,
    async load() {
      const { formatHtml } = await import('./html/report.js');
      return (document, { getShot }) => [formatHtml(document, getShot)];
    },
  },
  {
    name: 'png',
    ending: '.png',
    about: 'the pictures alone',
    printed: false,
    shots: true,
    drawn: true,
    async load() {
      const { drawAll } = await import('./html/sheets.js');
      return (document, { getShot, draw }) => drawAll(document, getShot, draw);
    },
  },
];

/** The formats that can go to standard output. */
export const PRINTED = FORMATS.filter(({ printed }) => printed);
/** The formats that files are saved in, and their endings. */
export const SAVED = FORMATS.filter(({ ending }) => ending !== null);
export const ENDINGS = SAVED.map(({ ending }) => ending!);

/** The format of a file, by its ending; null for none. */
export function getFormatOf(file: string): Format | null {
  return SAVED.find(({ ending }) => file.toLowerCase().endsWith(ending!)) ?? null;
}
