import { parse, type DefaultTreeAdapterTypes } from 'parse5';
import { flatMap, mapPresent } from '../lists.js';
import type { CodePiece } from './piece.js';

/** Elements that show code for reading. */
const SHOWN = new Set(['pre', 'code', 'textarea', 'xmp']);

type Node = DefaultTreeAdapterTypes.Node;

/** Code that a document shows, and where that is written. */
export interface ShownCode {
  piece: CodePiece;
  /** Its texts in the document, from where to where; between them stand tags. */
  texts: { from: number; to: number }[];
  /** Nothing in it is escaped. */
  isRaw: boolean;
}

/** The blocks of an HTML document that show code: their text is markup, once what is escaped is read. */
export function takeFromHtml(text: string): CodePiece[] {
  return listShownCode(text).map(({ piece }) => piece);
}

/** The same, with where it is written. */
export function listShownCode(text: string): ShownCode[] {
  const all: ShownCode[] = [];
  const waiting: Node[] = [parse(text, { sourceCodeLocationInfo: true })];
  for (let node = waiting.pop(); node; node = waiting.pop()) {
    if ('tagName' in node && SHOWN.has(node.tagName)) {
      const shown = toShown(node, text);
      if (shown) all.push(shown);
      continue;
    }
    if ('childNodes' in node) waiting.push(...[...node.childNodes].reverse());
  }
  return all;
}

function toShown(node: DefaultTreeAdapterTypes.Element, text: string): ShownCode | null {
  const nodes = listTexts(node);
  const shown = nodes.map(({ value }) => value).join('');
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
  return {
    piece: { text: shown.slice(lead.length), name: null, line, slot: null },
    texts: mapPresent(nodes, ({ sourceCodeLocation: at }) =>
      at ? { from: at.startOffset, to: at.endOffset } : null,
    ),
    isRaw: node.tagName === 'xmp',
  };
}

function listTexts(node: Node): DefaultTreeAdapterTypes.TextNode[] {
  if (node.nodeName === '#text') return [node as DefaultTreeAdapterTypes.TextNode];
  return 'childNodes' in node ? flatMap(node.childNodes, listTexts) : [];
}
