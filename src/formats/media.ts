import { flatMap, groupBy, mapPresent } from '../core/lists.js';
import { isAtFirst } from '../core/render-report.js';
import type { RenderReport, SnippetReport } from '../core/run.js';
import { countWords, joinWords } from '../core/words/list.js';
import { cleanLine } from './clean.js';

type Medium = RenderReport['media'][number];

/** A film or a sound: what its code asks for, and what the browser did, in the words of a table. */
export interface MediumCells {
  what: string;
  asked: string;
  sound: string;
  length: string;
  happened: string;
}

/** All that can play, as it was in the windows that were looked at at first. */
export function listMediaCells({ renders }: Pick<SnippetReport, 'renders'>): MediumCells[] {
  const seen = flatMap(renders.filter(isAtFirst), ({ media, width }) =>
    media.map((medium) => ({ medium, width })),
  );
  const byFile = groupBy(seen, ({ medium: { tag, line, address } }) =>
    JSON.stringify([tag, line, address]),
  );
  return [...byFile.values()].map(toCells);
}

/** How many there are of each. */
export function sumMedia(cells: readonly MediumCells[]): string {
  const of = (name: string) => cells.filter(({ what }) => what.startsWith(name)).length;
  return joinWords(
    mapPresent(['film', 'sound'], (name) => (of(name) > 0 ? countWords(of(name), name) : null)),
  );
}

interface Seen {
  medium: Medium;
  width: number;
}

function toCells(all: readonly Seen[]): MediumCells {
  const [{ medium }] = all as [Seen];
  const known = <T>(of: (medium: Medium) => T | null) =>
    all.map((one) => of(one.medium)).find((value) => value !== null) ?? null;
  const sound = known((one) => one.sound);
  const duration = known((one) => one.duration);
  return {
    what: cleanLine(nameMedium(medium)),
    asked: medium.autoplay ? `to start by itself${medium.muted ? ', muted' : ''}` : 'nothing',
    sound: sound === null ? 'not known' : tellSound(sound),
    length: duration === null ? 'not known' : formatLength(duration),
    happened: tellHappened(all),
  };
}

function nameMedium({ tag, line, address }: Medium): string {
  const kind = tag === 'video' ? 'film' : 'sound';
  const where = line === null ? '' : `, line ${line}`;
  const file = URL.canParse(address) ? new URL(address).pathname.split('/').pop() : '';
  return file ? `${kind} ${file}${where}` : `${kind}${where}`;
}

function tellSound(sound: boolean): string {
  return sound ? 'yes' : 'none';
}

/** Minutes and seconds, as players show it. */
function formatLength(seconds: number): string {
  const whole = Math.round(seconds);
  return `${Math.floor(whole / 60)}:${String(whole % 60).padStart(2, '0')}`;
}

function tellHappened(all: readonly Seen[]): string {
  const [started, still] = [true, false].map((is) => [
    ...new Set(all.filter(({ medium }) => medium.started === is).map(({ width }) => width)),
  ]) as [number[], number[]];
  if (still.length === 0) return 'it started by itself';
  if (started.length === 0) return 'it did not start';
  const name = (widths: readonly number[]) => `${joinWords(widths.map(String))} px`;
  return `it started at ${name(started)}, and not at ${name(still)}`;
}
