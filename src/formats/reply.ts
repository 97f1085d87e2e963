import { flatMap } from '../core/lists.js';
import type { RunDocument, SnippetReport } from '../core/run.js';
import { counts, isHeldOn } from '../core/verdict.js';
import { countWords } from '../core/words/list.js';
import { listBlocks, type Block } from './blocks.js';
import { clean, cleanLine } from './clean.js';
import { getMainReason } from './summary.js';
import { tellBlock } from './told.js';
import { wrap } from './wrap.js';

/** So many things are asked for; who gets more reads none. */
const MOST_ASKED = 4;
/** As wide as mail is written. */
const WIDTH = 78;
/** So many lines of code are sent along. */
const MOST_LINES = 40;

/** What to send to whoever sent the code: some plain lines for each snippet, without names of findings. */
export function formatReply(document: RunDocument): string {
  return `${document.snippets.map((one) => formatOne(one, document)).join('\n\n---\n\n')}\n`;
}

function formatOne(snippet: SnippetReport, document: RunDocument): string {
  const { holdOn } = document.house;
  const blocks = listBlocks(snippet).filter(({ main }) => counts(main));
  const needed = blocks.filter(({ main }) => isHeldOn(main.level, holdOn));
  const wished = blocks.filter((block) => !needed.includes(block) && block.main.level !== 'advice');
  const asked = [...needed, ...wished].slice(0, MOST_ASKED);
  const lines = [
    wrap(getOpening(snippet, document, needed.length > 0, asked.length > 0), WIDTH, ''),
    ...asked.map((block, i) => formatAsked(block, i + 1, snippet)),
    ...formatRest(blocks.length - asked.length),
    ...formatInstead(snippet, blocks, asked.length),
  ];
  return lines.join('\n');
}

function getOpening(
  snippet: SnippetReport,
  document: RunDocument,
  held: boolean,
  asks: boolean,
): string {
  const name = cleanLine(snippet.name);
  if (snippet.verdict === 'hold' && held)
    return `Thank you for ${name}. It cannot go online yet; please change this:`;
  if (snippet.verdict === 'unsure') {
    const reason = cleanLine(getMainReason(snippet, document));
    const more = asks ? ' What is known already:' : '';
    return `Thank you for ${name}. We cannot say yet whether it can go online (${reason}).${more}`;
  }
  return asks
    ? `Thank you for ${name}. It can go online. It would be better with this changed:`
    : `Thank you for ${name}. It can go online as it is.`;
}

/** What is wrong, what visitors notice of it, and what to change, in one line. */
function formatAsked(block: Block, number: number, snippet: SnippetReport): string {
  const { where, message, rows } = tellBlock(block, snippet);
  const words = flatMap(['visitors', 'change'], (label) =>
    rows.filter((row) => row.label === label).map((row) => row.words),
  );
  const line = cleanLine(`Line ${where.line}: ${[message, ...words].join(' ')}`);
  return wrap(line, WIDTH, '   ', `${number}. `);
}

function formatRest(count: number): string[] {
  if (count === 0) return [];
  const verb = count === 1 ? 'is' : 'are';
  return [`There ${verb} ${countWords(count, 'thing')} more, less pressing.`];
}

/** The code with all cures, to send instead. */
function formatInstead(
  { mended, causes }: SnippetReport,
  blocks: readonly Block[],
  asked: number,
): string[] {
  if (asked === 0) return [];
  if (mended === null) return ['Please send it again with that changed.'];
  const lines = clean(mended.trim()).split('\n');
  const open = blocks.some(({ number }) =>
    causes.some((one) => one.number === number && !one.mend),
  );
  if (lines.length > MOST_LINES) return ['Please send it again with that changed.'];
  const lead = open
    ? 'This has what we could change; the rest is yours to decide:'
    : 'Please send this instead:';
  return [lead, '', ...lines];
}
