import type { NotJudged, RunDocument, SnippetReport } from '../core/run.js';
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

/** How a run is told that goes on. */
export interface Lines {
  tellSnippet(report: SnippetReport, notJudged: readonly NotJudged[]): string;
  tellEnd(document: RunDocument): string;
}

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
  /** Loads what tells it piece by piece while it goes on; left out: it is told at the end. */
  loadLines?(): Promise<Lines>;
}

const PLAIN = { shots: false, drawn: false } as const;

/** All formats. Options, help and complaints are made from this. */
export const FORMATS: readonly Format[] = [
  {
    ...{ name: 'text', ending: null, printed: true, ...PLAIN },
    about: 'for reading in a terminal',
    async load() {
      const { formatText } = await import('./text.js');
      return (document, means) => [formatText(document, means)];
    },
  },
  {
    ...{ name: 'json', ending: '.json', printed: true, ...PLAIN },
    about: 'the run document',
    async load() {
      const { formatJson } = await import('./json.js');
      return (document) => [formatJson(document)];
    },
  },
  {
    ...{ name: 'jsonl', ending: '.jsonl', printed: true, ...PLAIN },
    about: 'a line for each snippet, as it is finished',
    async load() {
      const { formatJsonLines } = await import('./jsonl.js');
      return (document) => [[...formatJsonLines(document)].join('')];
    },
    async loadLines() {
      const { formatSnippetLine, formatRunLine } = await import('./jsonl.js');
      return { tellSnippet: formatSnippetLine, tellEnd: formatRunLine };
    },
  },
  {
    ...{ name: 'sarif', ending: '.sarif', printed: true, ...PLAIN },
    about: 'SARIF 2.1.0, for code review and editors',
    async load() {
      const { formatSarif } = await import('./sarif.js');
      return (document) => [formatSarif(document)];
    },
  },
  {
    ...{ name: 'junit', ending: '.xml', printed: true, ...PLAIN },
    about: 'test results, for a build',
    async load() {
      const { formatJunit } = await import('./junit.js');
      return (document) => [formatJunit(document)];
    },
  },
  {
    ...{ name: 'markdown', ending: '.md', printed: true, ...PLAIN },
    about: 'for a ticket or a review comment',
    async load() {
      const { formatMarkdown } = await import('./markdown.js');
      return (document) => [formatMarkdown(document)];
    },
  },
  {
    ...{ name: 'csv', ending: '.csv', printed: true, ...PLAIN },
    about: 'a row for each finding',
    async load() {
      const { formatCsv } = await import('./csv.js');
      return (document) => [formatCsv(document)];
    },
  },
  {
    ...{ name: 'reply', ending: null, printed: true, ...PLAIN },
    about: 'some plain lines for whoever sent the code',
    async load() {
      const { formatReply } = await import('./reply.js');
      return (document) => [formatReply(document)];
    },
  },
  {
    ...{ name: 'html', ending: '.html', printed: false, shots: true, drawn: false },
    about: 'a report with pictures',
    async load() {
      const { formatHtml } = await import('./html/report.js');
      return (document, { getShot }) => [formatHtml(document, getShot)];
    },
  },
  {
    ...{ name: 'png', ending: '.png', printed: false, shots: true, drawn: true },
    about: 'the pictures alone',
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
