import { parse, type DefaultTreeAdapterTypes } from 'parse5';

/** An element as the standard's parser makes it from a page's text. */
export interface ParsedElement {
  signature: string;
  name: string;
  /** Where its tag starts; for an element the parser adds by itself, where the first thing inside does. */
  offset: number;
}

const LONGEST_VALUE = 60;
/** How far ahead an element is looked for before it is taken for gone. */
const WINDOW = 400;

type Node = DefaultTreeAdapterTypes.Node;
type Element = DefaultTreeAdapterTypes.Element;

/** The elements of a page in the order in which a parser puts them into the document. */
export function listParsedElements(page: string): ParsedElement[] {
  const found: { element: ParsedElement; depth: number }[] = [];
  const waiting: { node: Node; depth: number; around: number }[] = [
    { node: parse(page, { sourceCodeLocationInfo: true }), depth: 0, around: 0 },
  ];
  for (let next = waiting.pop(); next; next = waiting.pop()) {
    const { node, depth } = next;
    let { around } = next;
    if ('tagName' in node) {
      around = node.sourceCodeLocation?.startOffset ?? getInnerOffset(node) ?? around;
      found.push({ element: { signature: sign(node), name: node.tagName, offset: around }, depth });
    }
    if (!('childNodes' in node)) continue;
    for (const child of [...node.childNodes].reverse())
      waiting.push({ node: child, depth: depth + 1, around });
  }
  found.sort((a, b) => a.element.offset - b.element.offset || a.depth - b.depth);
  return found.map(({ element }) => element);
}

/**
 * Which inserted elements the parser made, and from where. Both lists are in the parser's order; what
 * scripts put in stands between, so the parser's elements are a subsequence.
 * @param order signatures of the elements in the order they were put into the document
 * @returns for each index of `order` the offset, or null for what a script put in
 */
export function matchParsed(
  parsed: readonly ParsedElement[],
  order: readonly string[],
): (number | null)[] {
  const offsets: (number | null)[] = order.map(() => null);
  let next = 0;
  for (const element of parsed) {
    const at = find(order, next, (signature) => signature === element.signature);
    // A script may have changed attributes before they were noted: then the name has to do, near by.
    const found =
      at ??
      find(order.slice(0, next + 8), next, (signature) => getName(signature) === element.name);
    if (found === null) continue;
    offsets[found] = element.offset;
    next = found + 1;
  }
  return offsets;
}

function find(
  order: readonly string[],
  from: number,
  fits: (signature: string) => boolean,
): number | null {
  const end = Math.min(order.length, from + WINDOW);
  for (let i = from; i < end; i++) if (fits(order[i]!)) return i;
  return null;
}

function getName(signature: string): string {
  const bar = signature.indexOf('|');
  return bar < 0 ? signature : signature.slice(0, bar);
}

function sign(node: Element): string {
  const attributes = node.attrs.map(({ name, prefix, value }) => {
    return `|${prefix ? `${prefix}:` : ''}${name}=${value.slice(0, LONGEST_VALUE)}`;
  });
  return node.tagName + attributes.join('');
}

function getInnerOffset(node: Element): number | null {
  for (const child of node.childNodes) {
    if ('sourceCodeLocation' in child && child.sourceCodeLocation)
      return child.sourceCodeLocation.startOffset;
  }
  return null;
}
