import MarkdownIt from 'markdown-it';
import { flatMap } from '../lists.js';
import type { CodePiece } from './piece.js';

const MARKUP = /^(html?|xhtml|svg|xml)$/i;

/** The fenced blocks of a Markdown text that are markup: by the word behind the fence, or, without one, by how they begin. */
export function takeFromMarkdown(text: string): CodePiece[] {
  const lines = text.split(/\r\n|\n|\r/);
  return flatMap(new MarkdownIt('commonmark').parse(text, {}), (token): CodePiece[] => {
    if (token.type !== 'fence' || !token.map) return [];
    const [word = ''] = token.info.trim().split(/[\s{,]+/);
    const markup = word === '' ? /^\s*<[a-z!]/i.test(token.content) : MARKUP.test(word);
    if (!markup || token.content.trim() === '') return [];
    // The map counts lines from 0; the block begins behind its fence.
    const line = token.map[0] + 2;
    const indent = getIndent(token.content, lines.slice(line - 1));
    const inside = indent > 0 ? { indent } : {};
    return [{ text: token.content, name: null, line, slot: null, ...inside }];
  });
}

/** What stands before the lines of a block in a list or a quotation, as its first line that is not empty shows. */
function getIndent(content: string, lines: readonly string[]): number {
  const own = content.split('\n');
  const at = own.findIndex((line) => line.trim() !== '');
  const written = lines[at] ?? '';
  return written.endsWith(own[at] ?? '') ? written.length - own[at]!.length : 0;
}
