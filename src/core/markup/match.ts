import {
  defaultTreeAdapter,
  html,
  parse,
  parseFragment,
  type DefaultTreeAdapterTypes,
} from 'parse5';
import { flatMap } from '../lists.js';

/** An element as the standard's parser makes it from a page's text. */
export interface ParsedElement {
  signature: string;
  name: string;
  /** Where its tag starts; for an element the parser adds by itself, where the first thing inside does, or it stands. */
  offset: number;
  /** The parser has made it once more of the tag of one that was not closed in its place (HTML, 13.2.4.3). */
  again: boolean;
  /** The element it stands in, by its place in the list; -1 where there is none. */
  parent: number;
}

/** An element as it was put into the document. */
export interface Inserted {
  signature: string;
  /** The element it was put into, by its place in the order; -1 where that is not in it. */
  parent: number;
}

const LONGEST_VALUE = 60;
/** How far ahead an element whose attributes were changed is looked for by its name. */
const NEAR = 8;

type Node = DefaultTreeAdapterTypes.Node;
type Element = DefaultTreeAdapterTypes.Element;

/** The elements of a page in the order in which a parser puts them into the document. */
export function listParsedElements(page: string): ParsedElement[] {
  return listElements(parse(page, { sourceCodeLocationInfo: true }));
}

/** The elements of markup that is set as the content of a block, in its order. */
export function listParsedPieces(text: string): ParsedElement[] {
  const block = defaultTreeAdapter.createElement('div', html.NS.HTML, []);
  return listElements(parseFragment(block, text, { sourceCodeLocationInfo: true }));
}

function listElements(root: Node): ParsedElement[] {
  type Found = Omit<ParsedElement, 'parent'> & Standing;
  interface Standing {
    /** Where in the text the parser made it. */
    at: number;
    depth: number;
    around: Found | null;
  }
  const found: Found[] = [];
  const tags = new Set<number>();
  const waiting: Pending<Found>[] = [{ node: root, around: null, before: null }];
  for (let next = waiting.pop(); next; next = waiting.pop()) {
    const { node, before } = next;
    let { around } = next;
    if ('tagName' in node) {
      const tag = node.sourceCodeLocation?.startOffset ?? null;
      const again = tag !== null && tags.has(tag);
      if (tag !== null) tags.add(tag);
      const at = (again ? null : tag) ?? getInnerOffset(node) ?? before ?? around?.at ?? 0;
      const depth = (around?.depth ?? -1) + 1;
      const { tagName: name } = node;
      around = { signature: sign(node), name, offset: tag ?? at, again, at, depth, around };
      found.push(around);
    }
    if ('childNodes' in node) waiting.push(...listInside(node.childNodes, around).reverse());
  }
  found.sort((a, b) => a.at - b.at || a.depth - b.depth);
  const places = new Map(found.map((one, i) => [one, i]));
  return found.map(({ signature, name, offset, again, around }) => ({
    ...{ signature, name, offset, again },
    parent: around ? places.get(around)! : -1,
  }));
}

interface Pending<T> {
  node: Node;
  around: T | null;
  /** Where what stands before it ends; null where nothing does. */
  before: number | null;
}

function listInside<T>(nodes: readonly Node[], around: T | null): Pending<T>[] {
  let before: number | null = null;
  return nodes.map((node) => {
    const one = { node, around, before };
    if ('sourceCodeLocation' in node) before = node.sourceCodeLocation?.endOffset ?? before;
    return one;
  });
}

/**
 * Which inserted elements the parser made, and from where. Both lists are in the parser's order; what
 * scripts put in stands between, so the parser's elements are a subsequence. What is there once in each
 * list holds the two together; between two such, place and parent tell.
 * @param order the elements in the order they were put into the document
 * @returns for each index of `order` what it was parsed as, or null for what a script put in
 */
export function matchParsed(
  parsed: readonly ParsedElement[],
  order: readonly Inserted[],
): (ParsedElement | null)[] {
  const matcher = new Matcher(parsed, order);
  let [from, next] = [0, 0];
  for (const [at, place] of [
    ...findAnchors(parsed, order),
    [parsed.length, order.length] as const,
  ]) {
    matcher.matchBetween(from, at, next, place);
    if (at < parsed.length) matcher.take(at, place);
    [from, next] = [at + 1, place + 1];
  }
  return matcher.matched;
}

/** Pairs of places of what is there once in both lists, in an order that holds in both. */
function findAnchors(parsed: readonly ParsedElement[], order: readonly Inserted[]) {
  const there = placeUnique(order);
  const pairs = flatMap([...placeUnique(parsed)], ([signature, at]): [number, number][] => {
    const place = there.get(signature);
    return at === null || place === undefined || place === null ? [] : [[at, place]];
  }).sort(([a], [b]) => a - b);
  return getLongestRise(pairs);
}

function placeUnique(list: readonly { signature: string }[]): Map<string, number | null> {
  const places = new Map<string, number | null>();
  list.forEach(({ signature }, i) => places.set(signature, places.has(signature) ? null : i));
  return places;
}

/** The longest run of pairs that rises in its second part too (patience sorting). */
function getLongestRise(pairs: readonly [number, number][]): [number, number][] {
  const ends: number[] = [];
  const before: number[] = [];
  pairs.forEach(([, place], i) => {
    const at = findFirst(ends.length, (end) => pairs[ends[end]!]![1] >= place);
    before[i] = ends[at - 1] ?? -1;
    ends[at] = i;
  });
  const rise: [number, number][] = [];
  for (let i = ends.at(-1) ?? -1; i >= 0; i = before[i]!) rise.push(pairs[i]!);
  return rise.reverse();
}

/** Places parsed elements among the inserted ones, forward only. */
class Matcher {
  readonly matched: (ParsedElement | null)[];
  #parsed: readonly ParsedElement[];
  #order: readonly Inserted[];
  /** Where each parsed element was found; -1 where it was not. */
  #placed: number[] = [];
  #bySignature = new Map<string, number[]>();
  #byParent = new Map<string, number[]>();

  constructor(parsed: readonly ParsedElement[], order: readonly Inserted[]) {
    this.#parsed = parsed;
    this.#order = order;
    this.matched = order.map(() => null);
    order.forEach(({ signature, parent }, i) => {
      push(this.#bySignature, signature, i);
      push(this.#byParent, `${parent} ${signature}`, i);
    });
  }

  take(at: number, place: number): void {
    this.#placed[at] = place;
    this.matched[place] = this.#parsed[at]!;
  }

  /** @param at places in the parsed list, `from` included; `next` and `end` those in the order */
  matchBetween(from: number, at: number, next: number, end: number): void {
    for (let i = from, start = next; i < at && start < end; i++) {
      const place = this.#find(this.#parsed[i]!, start, end);
      if (place === null) continue;
      this.take(i, place);
      start = place + 1;
    }
  }

  #find({ signature, name, parent }: ParsedElement, start: number, end: number): number | null {
    const around = parent < 0 ? -1 : (this.#placed[parent] ?? -1);
    const found =
      getNext(this.#byParent.get(`${around} ${signature}`), start, end) ??
      getNext(this.#bySignature.get(signature), start, end);
    if (found !== null) return found;
    // A script may have changed attributes before they were noted: then the name has to do, near by.
    for (let i = start; i < Math.min(end, start + NEAR); i++) {
      const one = this.#order[i]!;
      if (one.parent === around && getName(one.signature) === name) return i;
    }
    return null;
  }
}

function push(map: Map<string, number[]>, key: string, value: number): void {
  const list = map.get(key);
  if (list) list.push(value);
  else map.set(key, [value]);
}

/** The first of rising numbers from `start` on, below `end`. */
function getNext(numbers: readonly number[] = [], start: number, end: number): number | null {
  const found = numbers[findFirst(numbers.length, (i) => numbers[i]! >= start)];
  return found !== undefined && found < end ? found : null;
}

/** The first place for which it holds, where it holds for all behind it; the length where for none. */
function findFirst(length: number, holds: (place: number) => boolean): number {
  let [low, high] = [0, length];
  while (low < high) {
    const middle = (low + high) >> 1;
    if (holds(middle)) high = middle;
    else low = middle + 1;
  }
  return low;
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
