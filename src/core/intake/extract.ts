import { parse, type DefaultTreeAdapterTypes } from 'parse5';
import type { CodePiece } from './piece.js';

/** Elements that show code for reading. */
const SHOWN = new Set(['pre', 'code', 'textarea', 'xmp']);

type Node = DefaultTreeAdapterTypes.Node;

/** The blocks of an HTML document that show code: their text is markup, once what is escaped is read. */
export function takeFromHtml(text: string): CodePiece[] {
  const pieces: CodePiece[] = [];
  const waiting: Node[] = [parse(text, { sourceCodeLocationInfo: true })];
  for (let node = waiting.pop(); node; node = waiting.pop()) {
    if ('tagName' in node && SHOWN.has(node.tagName)) {
      const piece = toPiece(node, text);
      if (piece) pieces.push(piece);
      continue;
    }
    if ('childNodes' in node) waiting.push(...[...node.childNodes].reverse());
  }
  return pieces;
}

function toPiece(node: DefaultTreeAdapterTypes.Element, text: string): CodePiece | null {
  const shown = getText(node);
  const start = node.sourceCodeLocation?.startTag;
  // A word of code in a sentence is no snippet.
  if (!start || !/<[a-z!][^<]*>/i.test(shown)) return null;
  const inline =
    node.tagName === 'code' && !shown.includes('\n') && !/<\/|\/>|<(img|iframe)\b/i.test(shown);
  if (inline) return null;
  // The parser leaves out the first line break of a pre and a textarea.
  const skipped = /^\r?\n/.test(text.slice(start.endOffset)) && node.tagName !== 'code' ? 1 : 0;
  const lead = /^\s*\n/.exec(shown)?.[0] ?? '';
  const line = start.endLine + skipped + (lead.match(/\n/g)?.length ?? 0);
  return { text: shown.slice(lead.length), name: null, line, slot: null };
}

function getText(node: Node): string {
  if (node.nodeName === '#text' && 'value' in node) return node.value;
  return 'childNodes' in node ? node.childNodes.map(getText).join('') : '';
}
