import MarkdownIt from 'markdown-it';
import type { Piece } from './piece.js';

const MARKUP = /^(html?|xhtml|svg|xml)$/i;

/** The fenced blocks of a Markdown text that are markup: by the word behind the fence, or, without one, by how they begin. */
export function takeFromMarkdown(text: string): Piece[] {
  return new MarkdownIt('commonmark').parse(text, {}).flatMap((token): Piece[] => {
    if (token.type !== 'fence' || !token.map) return [];
    const [word = ''] = token.info.trim().split(/[\s{,]+/);
    const markup = word === '' ? /^\s*<[a-z!]/i.test(token.content) : MARKUP.test(word);
    if (!markup || token.content.trim() === '') return [];
    // The map counts lines from 0; the block begins behind its fence.
    return [{ text: token.content, name: null, line: token.map[0] + 2, slot: null }];
  });
}
