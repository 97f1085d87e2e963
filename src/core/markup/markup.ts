import {
  defaultTreeAdapter,
  html,
  parseFragment,
  type DefaultTreeAdapterTypes,
  type Token,
} from 'parse5';
import type { Spot, Snippet, Span } from '../snippet.js';
import { getLineStarts, getSpot } from './lines.js';
import { squeeze } from '../words/squeeze.js';

/** An attribute as written; `value` is '' where none was given. */
export interface MarkupAttribute extends Span {
  name: string;
  value: string;
}

/** An element of the snippet as the standard's parser builds it when it stands in a block of the page. */
export interface MarkupElement extends Span {
  index: number;
  name: string;
  parent: MarkupElement | null;
  children: MarkupElement[];
  attributes: MarkupAttribute[];
  /** End of the start tag. */
  tagEnd: number;
  /** Text inside, without the text of child elements. */
  text: string;
}

/** What can be read from a snippet's text alone. */
export interface Markup {
  text: string;
  elements: MarkupElement[];
  place(span: Span): Spot;
}

/**
 * Reads a snippet's elements in source order, with the places of tags and attributes.
 * @param at where in its file the text stands: the line that it begins in, and the columns before each line
 */
export function readMarkup(
  text: string,
  { line = 1, indent = 0 }: Pick<Snippet, 'line' | 'indent'> = {},
): Markup {
  const context = defaultTreeAdapter.createElement('div', html.NS.HTML, []);
  const options = { sourceCodeLocationInfo: true, treeAdapter: ADAPTER };
  const tree = parseFragment(context, text, options);
  const elements = listElements(tree);
  elements.sort((a, b) => a.offset - b.offset);
  elements.forEach((element, index) => (element.index = index));
  const starts = getLineStarts(text);
  const place = (span: Span): Spot => {
    const found = getSpot(starts, span);
    return {
      ...found,
      line: found.line + line - 1,
      column: found.column + indent,
      endLine: found.endLine + line - 1,
      endColumn: found.endColumn + indent,
    };
  };
  return { text, elements, place };
}

/**
 * The usual one makes a new object where a place becomes known to its end: a tenth of the reading. Where the
 * end tag stands is asked of no element here.
 */
const ADAPTER: typeof defaultTreeAdapter = {
  ...defaultTreeAdapter,
  updateNodeSourceCodeLocation(node, end) {
    const place = node.sourceCodeLocation;
    if (place) place.endOffset = end.endOffset ?? place.endOffset;
  },
};

type Parent = DefaultTreeAdapterTypes.ParentNode;
type Element = DefaultTreeAdapterTypes.Element;
type TextNode = DefaultTreeAdapterTypes.TextNode;

/** All elements inside of a node, each before those inside it. */
function listElements(tree: Parent): MarkupElement[] {
  const all: MarkupElement[] = [];
  // A stack of our own: pastes twenty thousand elements deep must not end us.
  const nodes: Parent[] = [tree];
  const parents: (MarkupElement | null)[] = [null];
  for (let node = nodes.pop(); node; node = nodes.pop()) {
    const around = parents.pop() ?? null;
    const element = 'tagName' in node ? toElement(node, around) : null;
    if (element) all.push(element);
    const parent = element ?? around;
    const { childNodes } = node;
    for (let i = childNodes.length - 1; i >= 0; i--) {
      const child = childNodes[i]!;
      if (!('tagName' in child)) continue;
      nodes.push(child);
      parents.push(parent);
    }
    if (parent) parent.text += getOwnText(childNodes);
  }
  return all;
}

function getOwnText(nodes: readonly DefaultTreeAdapterTypes.ChildNode[]): string {
  let text = '';
  for (const node of nodes) if (node.nodeName === '#text') text += (node as TextNode).value;
  return text;
}

/** Elements that the parser adds by itself have no place in the source, and none here. */
function toElement(node: Element, parent: MarkupElement | null): MarkupElement | null {
  const location = node.sourceCodeLocation;
  if (!location) return null;
  const tag = location.startTag ?? location;
  const element: MarkupElement = {
    index: 0,
    name: node.tagName,
    parent,
    children: [],
    attributes: node.attrs.map((attribute) => toAttribute(attribute, tag)),
    offset: location.startOffset,
    endOffset: location.endOffset,
    tagEnd: tag.endOffset,
    text: '',
  };
  parent?.children.push(element);
  return element;
}

function toAttribute(
  attribute: Token.Attribute,
  tag: Token.LocationWithAttributes,
): MarkupAttribute {
  const name = attribute.prefix ? `${attribute.prefix}:${attribute.name}` : attribute.name;
  const at = tag.attrs?.[name.toLowerCase()] ?? tag.attrs?.[name];
  return {
    name,
    value: attribute.value,
    offset: at?.startOffset ?? tag.startOffset,
    endOffset: at?.endOffset ?? tag.endOffset,
  };
}

/** The attribute of that name, or null. */
export function getAttribute(element: MarkupElement, name: string): MarkupAttribute | null {
  return element.attributes.find((attribute) => attribute.name === name) ?? null;
}

/** The attribute's value, or null where it is not there. */
export function getValue(element: MarkupElement, name: string): string | null {
  return getAttribute(element, name)?.value ?? null;
}

/** The start tag alone: the smallest piece to point at where the element as a whole is meant. */
export function getTagSpan(element: MarkupElement): Span {
  return { offset: element.offset, endOffset: element.tagEnd };
}

/** All elements inside, in source order. */
export function listInside({ children }: MarkupElement): MarkupElement[] {
  const found: MarkupElement[] = [];
  const waiting = [...children].reverse();
  for (let next = waiting.pop(); next; next = waiting.pop()) {
    found.push(next);
    waiting.push(...[...next.children].reverse());
  }
  return found;
}

/** All text inside, in source order. */
export function getText(element: MarkupElement): string {
  const found =
    texts.get(element) ?? squeeze([element.text, ...element.children.map(getText)].join(' '));
  texts.set(element, found);
  return found;
}

const texts = new WeakMap<MarkupElement, string>();

/** The labels of a field: around it, or pointing at it (HTML, 4.10.4). */
export function listFieldLabels(markup: Markup, field: MarkupElement): MarkupElement[] {
  if (!/^(input|button|meter|output|progress|select|textarea)$/.test(field.name)) return [];
  const id = getValue(field, 'id');
  const around = listAround(field.parent).filter(({ name }) => name === 'label');
  const pointing = markup.elements.filter(
    (one) => one.name === 'label' && id !== null && id !== '' && getValue(one, 'for') === id,
  );
  return [...around.filter((one) => getValue(one, 'for') === null), ...pointing];
}

/** An element and those that it stands in, outwards; none of null. */
export function listAround(element: MarkupElement | null): MarkupElement[] {
  const around: MarkupElement[] = [];
  for (let at = element; at; at = at.parent) around.push(at);
  return around;
}

/** Whether it is of a drawing or a formula: there, names mean other things. */
export function isForeign(element: MarkupElement): boolean {
  // Asked of very many elements: without a list of those around each.
  for (let at: MarkupElement | null = element; at; at = at.parent)
    if (at.name === 'svg' || at.name === 'math') return true;
  return false;
}

/** The element at an offset of the source: the innermost whose tag, or whose text, it is in. */
export function getElementAt(markup: Markup, offset: number): MarkupElement | null {
  const holds = (element: MarkupElement) =>
    element.offset <= offset && offset <= Math.max(element.endOffset, element.tagEnd);
  return markup.elements.findLast(holds) ?? null;
}

/** The element that starts at an offset. */
export function getElementFrom(markup: Markup, offset: number): MarkupElement | null {
  const { elements } = markup;
  let [low, high] = [0, elements.length];
  while (low < high) {
    const middle = (low + high) >> 1;
    if (elements[middle]!.offset < offset) low = middle + 1;
    else high = middle;
  }
  const element = elements[low];
  return element?.offset === offset ? element : null;
}
