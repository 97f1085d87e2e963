import { parse, Tokenizer, TokenizerMode, type DefaultTreeAdapterTypes, type Token } from 'parse5';
import type { Span } from '../snippet.js';

/** How a snippet leaves the page it stands in: what of it stays open, or closes too much. */
export type Break =
  /** `open`: the offsets of all that stay open, the outermost first. */
  | { kind: 'element'; name: string; span: Span; open: number[] }
  /** `spans`: of all end tags too many, in their order; none where there are more than anybody takes out. */
  | { kind: 'stray-end'; name: string; span: Span; spans: Span[] }
  | { kind: 'raw-text'; name: string; span: Span }
  | { kind: 'comment'; span: Span }
  | { kind: 'tag'; span: Span; missing: string; at: number };

type Node = DefaultTreeAdapterTypes.Node;
type Element = DefaultTreeAdapterTypes.Element;

/** What slots stand in on most pages. */
const AROUND = ['main', 'article', 'section', 'aside', 'div'];
const BEFORE = `<!doctype html><html><head><title>x</title></head><body>${AROUND.map((name) => `<${name}>`).join('')}<p>before</p>`;
const AFTER = `<p>after</p></div><p>behind</p>${AROUND.slice(0, -1)
  .reverse()
  .map((name) => `</${name}>`)
  .join('')}</body></html>`;
/** More end tags without a start are not looked for. */
const MOST_STRAYS = 20;
const RAW_TEXT = new Set([
  'script',
  'style',
  'textarea',
  'title',
  'iframe',
  'noembed',
  'noframes',
  'noscript',
  'xmp',
  'plaintext',
]);

/**
 * Parses a snippet between two blocks of a host page, and sees whether these keep their parent, their
 * order, and gain no ancestor. Null where they do: tags that HTML lets one omit are sound.
 */
export function findBreak(text: string): Break | null {
  const found = findFirstBreak(text);
  if (found?.kind !== 'stray-end') return found;
  return { ...found, spans: listStrays(text, found.span) };
}

function findFirstBreak(text: string): Break | null {
  const page = BEFORE + text + AFTER;
  const tree = parse(page, { sourceCodeLocationInfo: true });
  const slot = find(
    tree,
    (node) => 'tagName' in node && getStart(node) === BEFORE.indexOf('<div>'),
  ) as Element | null;
  const after = find(
    tree,
    (node) => 'tagName' in node && getStart(node) === BEFORE.length + text.length,
  ) as Element | null;
  const end = slot?.sourceCodeLocation?.endTag?.startOffset;
  const wanted = page.length - AFTER.length + AFTER.indexOf('</div>');
  const kept =
    after?.parentNode === slot && after?.childNodes[0]?.nodeName === '#text' && getIndex(after) > 0;
  if (kept && end === wanted) return null;
  const toSnippet = (offset: number) => offset - BEFORE.length;
  const inside = (offset: number) => toSnippet(offset) >= 0 && toSnippet(offset) < text.length;
  if (!after) return explainSwallowed(tree, text, inside, toSnippet);
  for (let at: Node | null = slot; at && 'tagName' in at; at = at.parentNode) {
    const tag = at.sourceCodeLocation?.endTag;
    if (!tag || !inside(tag.startOffset)) continue;
    const span = { offset: toSnippet(tag.startOffset), endOffset: toSnippet(tag.endOffset) };
    return { kind: 'stray-end', name: at.tagName, span, spans: [] };
  }
  return explainOpen(tree, after, inside, toSnippet) ?? explainStray(text);
}

/** All end tags too many, this one and what is left when it is taken out; none where there are very many. */
function listStrays(text: string, first: Span): Span[] {
  const strays = [first];
  let rest = text;
  while (strays.length <= MOST_STRAYS) {
    const { offset, endOffset } = strays.at(-1)!;
    rest = rest.slice(0, offset) + ' '.repeat(endOffset - offset) + rest.slice(endOffset);
    const next = findFirstBreak(rest);
    if (next?.kind !== 'stray-end') return strays;
    strays.push(next.span);
  }
  return [];
}

/** The host's text is gone: a tag, a comment or a raw-text element took it in. */
function explainSwallowed(
  tree: Node,
  text: string,
  inside: (n: number) => boolean,
  toSnippet: (n: number) => number,
): Break {
  const broken = findBrokenTag(text);
  if (broken) return broken;
  const comment = find(
    tree,
    (node) =>
      node.nodeName === '#comment' &&
      inside(getStart(node)) &&
      getEnd(node) > BEFORE.length + text.length,
  );
  if (comment) {
    const offset = toSnippet(getStart(comment));
    return { kind: 'comment', span: { offset, endOffset: Math.min(offset + 4, text.length) } };
  }
  const raw = find(
    tree,
    (node) =>
      'tagName' in node &&
      RAW_TEXT.has(node.tagName) &&
      inside(getStart(node)) &&
      !node.sourceCodeLocation?.endTag,
  );
  const location = (raw as Element | null)?.sourceCodeLocation?.startTag;
  if (location) {
    const span = {
      offset: toSnippet(location.startOffset),
      endOffset: Math.min(toSnippet(location.endOffset), text.length),
    };
    const within = findMissingBracket(text, span);
    return within ?? { kind: 'raw-text', name: (raw as Element).tagName, span };
  }
  // In a list of choices the parser keeps no other elements: the host's are dropped.
  const list = find(
    tree,
    (node) =>
      'tagName' in node &&
      node.tagName === 'select' &&
      inside(getStart(node)) &&
      !node.sourceCodeLocation?.endTag,
  ) as Element | null;
  const start = list?.sourceCodeLocation?.startTag;
  if (start) {
    const [offset, endOffset] = [toSnippet(start.startOffset), toSnippet(start.endOffset)];
    return { kind: 'element', name: 'select', span: { offset, endOffset }, open: [offset] };
  }
  const last = text.lastIndexOf('<');
  const offset = Math.max(last, 0);
  return { kind: 'tag', span: { offset, endOffset: text.length }, missing: '>', at: text.length };
}

/** Elements of the snippet that still stand open where the host goes on: the outermost is told. */
function explainOpen(
  tree: Node,
  after: Element,
  inside: (n: number) => boolean,
  toSnippet: (n: number) => number,
): Break | null {
  const open = new Map<number, Element>();
  const note = (node: Element) => {
    const start = node.sourceCodeLocation?.startTag?.startOffset ?? -1;
    if (inside(start)) open.set(start, node);
  };
  for (let at: Node | null = after.parentNode; at && 'tagName' in at; at = at.parentNode) note(at);
  // Formatting elements are opened again inside the host's own.
  const reopened = find(after, (node) => node !== after && 'tagName' in node) as Element | null;
  if (reopened) note(reopened);
  const unclosed = find(
    tree,
    (node) =>
      'tagName' in node &&
      inside(getStart(node)) &&
      !node.sourceCodeLocation?.endTag &&
      getEnd(node) > getStart(after),
  ) as Element | null;
  if (unclosed) note(unclosed);
  const all = [...open].sort(([a], [b]) => a - b);
  const [first] = all;
  const tag = first?.[1].sourceCodeLocation?.startTag;
  if (!first || !tag) return null;
  const span = { offset: toSnippet(tag.startOffset), endOffset: toSnippet(tag.endOffset) };
  return {
    kind: 'element',
    name: first[1].tagName,
    span,
    open: all.map(([start]) => toSnippet(start)),
  };
}

/** An end tag too many that closed something of the host other than the slot. */
function explainStray(text: string): Break {
  const ends = [...text.matchAll(/<\/([a-z][^\s>]*)[^>]*>/gi)];
  const last = ends.at(-1);
  const offset = last?.index ?? 0;
  const span = { offset, endOffset: offset + (last?.[0].length ?? 0) };
  return {
    kind: 'stray-end',
    name: last?.[1]?.toLowerCase() ?? '',
    span,
    spans: [],
  };
}

/** A tag that is still open when the snippet ends: a `>` or a quote is missing. */
function findBrokenTag(text: string): Break | null {
  let done = 0;
  let failed = false;
  const take = (token: Token.Token) => void (done = Math.max(done, token.location?.endOffset ?? 0));
  const tokenizer = new Tokenizer(
    { sourceCodeLocationInfo: true },
    {
      onComment: take,
      onDoctype: take,
      onStartTag(token) {
        take(token);
        if (RAW_TEXT.has(token.tagName)) {
          tokenizer.state =
            token.tagName === 'script' ? TokenizerMode.SCRIPT_DATA : TokenizerMode.RAWTEXT;
          tokenizer.lastStartTagName = token.tagName;
        }
      },
      onEndTag: take,
      onEof: () => undefined,
      onCharacter: take,
      onNullCharacter: take,
      onWhitespaceCharacter: take,
      onParseError: (error) => void (failed ||= error.code === 'eof-in-tag'),
    },
  );
  tokenizer.write(text, true);
  if (!failed) return null;
  const start = text.indexOf('<', done);
  const quote = findOpenQuote(text, start);
  const span = { offset: quote ?? start, endOffset: quote === null ? text.length : quote + 1 };
  const missing = quote === null ? '>' : text[quote]!;
  return { kind: 'tag', span, missing, at: text.length };
}

/** Inside a start tag the beginning of another one: there the `>` is missing. */
function findMissingBracket(text: string, span: Span): Break | null {
  const tag = text.slice(span.offset + 1, span.endOffset);
  const at = tag
    .replace(/"[^"]*"|'[^']*'/g, (quoted) => '.'.repeat(quoted.length))
    .search(/<\/?[a-z]/i);
  if (at < 0) return null;
  const offset = span.offset + 1 + at;
  return { kind: 'tag', span: { offset, endOffset: offset + 1 }, missing: '>', at: offset };
}

/** The offset of the quote that opens a value and is never closed. */
function findOpenQuote(text: string, from: number): number | null {
  let open: number | null = null;
  for (let i = from; i < text.length; i++) {
    const letter = text[i];
    if (open !== null) open = letter === text[open] ? null : open;
    else if ((letter === '"' || letter === "'") && /=\s*$/.test(text.slice(from, i))) open = i;
  }
  return open;
}

function find(root: Node, fits: (node: Node) => boolean): Node | null {
  const waiting: Node[] = [root];
  for (let node = waiting.pop(); node; node = waiting.pop()) {
    if (fits(node)) return node;
    if ('childNodes' in node)
      for (let i = node.childNodes.length - 1; i >= 0; i--) waiting.push(node.childNodes[i]!);
  }
  return null;
}

function getStart(node: Node): number {
  return ('sourceCodeLocation' in node ? node.sourceCodeLocation?.startOffset : undefined) ?? -1;
}

function getEnd(node: Node): number {
  return ('sourceCodeLocation' in node ? node.sourceCodeLocation?.endOffset : undefined) ?? -1;
}

function getIndex(element: Element): number {
  return element.parentNode?.childNodes.indexOf(element) ?? -1;
}
