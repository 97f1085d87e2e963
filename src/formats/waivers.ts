import { getDay } from '../core/words/time.js';
import { Document, isMap, isSeq } from 'yaml';
import type { RunDocument } from '../core/run.js';
import { flatMap } from '../core/lists.js';
import { counts } from '../core/verdict.js';
import { clean, cleanLine } from './clean.js';

/** Days that a waiver is written for; a person may give others. */
const DAYS = 90;

/**
 * All that counts of a run as waivers for a house file (YAML), each with what it accepts as a comment, and without its
 * reason: that is for a person to say.
 */
export function formatWaivers({ snippets, startedAt }: RunDocument): string {
  const found = flatMap(snippets, ({ name, findings }) =>
    findings.filter(counts).map((finding) => ({ name, finding })),
  );
  const until = getDay(new Date(Date.parse(startedAt) + DAYS * 86_400_000));
  const waivers = found.map(({ name, finding: { id, excerpt } }) => ({
    finding: id,
    snippet: name,
    ...(isQuotable(excerpt) && { piece: excerpt }),
    until,
    reason: '',
  }));
  const document = new Document({ waivers });
  const written = document.get('waivers');
  for (const [i, item] of (isSeq(written) ? written.items : []).entries()) {
    const { level, where, message } = found[i]!.finding;
    const words = ` ${level}, line ${where.line}: ${cleanLine(message)}`;
    if (isMap(item)) item.commentBefore = words;
  }
  document.commentBefore =
    ' Put these into the house file. Each needs a reason, and may say who gave it (by:).';
  return document.toString({ lineWidth: 0 });
}

/** What a person can read: a piece with what cannot be seen is left out, and the waiver holds for all of the snippet. */
function isQuotable(piece: string): boolean {
  return piece !== '' && clean(piece) === piece;
}
