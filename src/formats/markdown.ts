import type { BlockContent, List, ListItem, PhrasingContent, RootContent } from 'mdast';
import { toMarkdown } from 'mdast-util-to-markdown';
import { flatMap } from '../core/lists.js';
import type { RunDocument, SnippetReport } from '../core/run.js';
import { countWords } from '../core/words/list.js';
import { listBlocks } from './blocks.js';
import { clean, cleanLine } from './clean.js';
import { nameWhole } from './corrected.js';
import { formatMore } from './measured.js';
import {
  formatCounts,
  formatFits,
  formatHead,
  getMainReason,
  listEndNotes,
  listNotes,
  orderByWorst,
} from './summary.js';
import { tellBlock, type Told } from './told.js';
import { splitCode } from './words.js';

/** So many lines of a corrected snippet are shown: more are too long for a comment. */
const MOST_LINES = 60;
/** So many places that are alike are named. */
const MOST_ALIKE = 10;

/** A report for a ticket or a review comment: CommonMark without tables and HTML, which not every tracker reads. */
export function formatMarkdown(document: RunDocument): string {
  const snippets = orderByWorst(document.snippets);
  const sum = countWords(snippets.length, 'snippet');
  const children: RootContent[] = [
    heading(2, `${document.verdict.toUpperCase()}: ${sum}`),
    paragraph(formatHead(document)),
    ...(snippets.length > 1 ? [list(snippets.map((one) => tellReason(one, document)))] : []),
    ...flatMap(snippets, (snippet) => formatSnippet(snippet, document)),
    ...listEndNotes(document).map(paragraph),
  ];
  return toMarkdown({ type: 'root', children }, { bullet: '-', rule: '-' });
}

function tellReason(snippet: SnippetReport, document: RunDocument): ListItem {
  const reason = getMainReason(snippet, document);
  const verdict: PhrasingContent = {
    type: 'strong',
    children: text(snippet.verdict.toUpperCase()),
  };
  return item([
    {
      type: 'paragraph',
      children: [verdict, ...text(` ${snippet.name}${reason && `: ${reason}`}`)],
    },
  ]);
}

function formatSnippet(snippet: SnippetReport, document: RunDocument): RootContent[] {
  const fits = formatFits(snippet);
  const title = `${snippet.name}: ${snippet.verdict.toUpperCase()}${formatCounts(snippet)}${fits && ` · ${fits}`}`;
  const blocks = listBlocks(snippet).map((block) => formatBlockItem(tellBlock(block, snippet)));
  return [
    heading(3, title),
    ...(blocks.length > 0 ? [list(blocks, true)] : []),
    ...formatWhole(snippet),
    ...listNotes(snippet, document).map(paragraph),
  ];
}

function formatBlockItem(told: Told): ListItem {
  const { mark, id, place, message, measured, also, rows, corrected, alike } = told;
  const table = measured.rows.map(({ slot, width, what }) =>
    [slot, width, what].filter(Boolean).join(': '),
  );
  const more = formatMore(measured);
  const lines = [
    ...also.map((one) => `${one.level}: ${one.message}`),
    ...[...table, ...(more ? [more] : [])].map((row) => `measured: ${row}`),
    ...rows.map(({ label, words }) => `${label}: ${words}`),
    ...formatAlikeLine(alike),
  ];
  const head: BlockContent = {
    type: 'paragraph',
    children: [
      { type: 'strong', children: text(mark) },
      ...text(` ${place}: ${message} (\`${id}\`)`),
    ],
  };
  return item([
    head,
    list(lines.map((line) => item([paragraph(line)]))),
    ...(corrected.length > 0 ? [code(corrected.join('\n'))] : []),
  ]);
}

function formatAlikeLine(alike: Told['alike']): string[] {
  if (alike.length === 0) return [];
  const shown = alike.slice(0, MOST_ALIKE).map(({ place }) => place);
  const rest = alike.length - shown.length;
  return [`likewise: ${shown.join('; ')}${rest > 0 ? `; and ${rest} more` : ''}`];
}

/** The whole snippet with all cures, where that is more than one line of a finding says. */
function formatWhole(snippet: SnippetReport): RootContent[] {
  const { mended, causes } = snippet;
  if (mended === null || causes.filter(({ mend }) => mend).length < 2) return [];
  const lines = clean(mended.trim()).split('\n');
  const name = nameWhole(snippet);
  if (lines.length > MOST_LINES) return [paragraph(`${name}: in the HTML and JSON reports.`)];
  return [paragraph(`${name}:`), code(lines.join('\n'))];
}

/** What trackers would make a link, or call somebody, by. */
const CALLS = /(@[\w-]+|#\d+|\b(?:https?:\/\/|www\.)[^\s<>()]*[^\s<>().,;:!?])/i;

/** Words of which nothing is taken for more than words. */
function text(words: string): PhrasingContent[] {
  return flatMap(splitCode(onOneLine(words)), (piece) =>
    piece.code
      ? [{ type: 'inlineCode', value: piece.text } as const]
      : piece.text
          .split(CALLS)
          .map((value, i): PhrasingContent =>
            i % 2 === 1 ? { type: 'inlineCode', value } : { type: 'text', value },
          )
          .filter((one) => !('value' in one) || one.value !== ''),
  );
}

/** On one line, with the spaces at its ends. */
function onOneLine(words: string): string {
  return clean(words).replace(/\s+/g, ' ');
}

function heading(depth: 2 | 3, words: string): RootContent {
  return { type: 'heading', depth, children: text(words) };
}

function paragraph(words: string): BlockContent {
  return { type: 'paragraph', children: text(cleanLine(words)) };
}

function code(value: string): BlockContent {
  return { type: 'code', lang: 'html', value };
}

function item(children: ListItem['children']): ListItem {
  return { type: 'listItem', spread: false, children };
}

function list(children: ListItem[], spread = false): List {
  return { type: 'list', ordered: false, spread, children };
}
