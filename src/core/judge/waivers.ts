import picomatch from 'picomatch';
import type { Fact } from '../check.js';
import type { House } from '../house/house.js';
import { flatMap } from '../lists.js';
import type { CheckReport, Finding, IdleWaiver, NotJudged, SnippetReport } from '../run.js';
import type { Snippet } from '../snippet.js';
import { squeeze } from '../words/squeeze.js';

type Waiver = House['waivers'][number];

/** What a waiver may be for: a finding, and what is said of it. */
interface About {
  id: string;
  snippet: Pick<Snippet, 'name' | 'path' | 'text'>;
  fact: Pick<Fact<unknown>, 'where'>;
  /** Its message, which names addresses too. */
  say: () => string;
}

/**
 * The waiver that the house grants this finding, or null.
 * @param today the day it is judged on, `YYYY-MM-DD`; a waiver holds through its last day.
 */
export function findWaiver(house: House, about: About, today: string): Finding['waiver'] {
  const fitting = house.waivers.filter(
    (waiver) =>
      waiver.finding === about.id && fits(waiver, about.snippet) && isPiece(waiver, about),
  );
  const waiver = fitting.find((candidate) => candidate.until >= today) ?? fitting[0];
  return waiver ? { ...tellWaiver(waiver), expired: waiver.until < today } : null;
}

function tellWaiver({ snippet, piece, reason, until, by }: Waiver) {
  return { snippet: snippet ?? null, piece: piece ?? null, reason, until, by: by ?? null };
}

function fits({ snippet: pattern }: Waiver, { name, path }: About['snippet']): boolean {
  if (pattern === undefined) return true;
  const matches = picomatch(pattern, { basename: !pattern.includes('/') });
  return [name, path].some((text) => text !== null && (text === pattern || matches(text)));
}

function isNamed({ snippet }: Waiver, { name, path }: Pick<Snippet, 'name' | 'path'>): boolean {
  return snippet !== undefined && (snippet === name || snippet === path);
}

/** What stands for the middle of a long piece, as excerpts have it. */
const CUT = '…';

/** Whether it points at the piece that a waiver is for: its source has that, or what is said of it. */
function isPiece({ piece }: Waiver, { snippet: { text }, fact: { where }, say }: About): boolean {
  if (piece === undefined) return true;
  return hasParts(text.slice(where.offset, where.endOffset), piece) || hasParts(say(), piece);
}

/** Whether the parts of a piece stand in a text, one behind the other; white space is one like another. */
function hasParts(text: string, piece: string): boolean {
  const plain = text.replace(/\s+/g, ' ');
  let from = 0;
  for (const part of piece.split(CUT)) {
    const words = squeeze(part);
    const at = plain.indexOf(words, from);
    if (at < 0) return false;
    from = at + words.length;
  }
  return true;
}

/** What of a run waivers are held against. */
export interface Waived {
  house: House;
  snippets: readonly SnippetReport[];
  checks: readonly CheckReport[];
  notJudged: readonly NotJudged[];
  today: string;
}

/**
 * The waivers in force that accept nothing, of those that name a snippet of the run, where what they are for was looked
 * for in it: another may be for a snippet that is not here.
 */
export function listIdleWaivers({
  house,
  snippets,
  checks,
  notJudged,
  today,
}: Waived): IdleWaiver[] {
  const ran = new Set(checks.filter((check) => check.ran).map(({ id }) => id));
  const due = house.waivers.filter(({ finding, until }) => until >= today && ran.has(finding));
  return flatMap(due, (waiver) => {
    const own = snippets.filter((snippet) => isNamed(waiver, snippet));
    const isUnseen = ({ name }: SnippetReport) =>
      notJudged.some(({ id, snippet }) => id === waiver.finding && snippet === name);
    const used = own.some(({ findings }) => findings.some((one) => isGranted(one, waiver)));
    if (own.length === 0 || used || own.some(isUnseen)) return [];
    return [{ finding: waiver.finding, ...tellWaiver(waiver) }];
  });
}

function isGranted({ id, waiver }: Finding, given: Waiver): boolean {
  if (!waiver || id !== given.finding) return false;
  return Object.entries(tellWaiver(given)).every(
    ([key, value]) => waiver[key as keyof typeof waiver] === value,
  );
}
