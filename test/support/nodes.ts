import { parse, type DefaultTreeAdapterTypes } from 'parse5';

export type Node = DefaultTreeAdapterTypes.Element;

/** All elements of a page, as they stand. */
export function listNodes(html: string): Node[] {
  const all: Node[] = [];
  const visit = (node: DefaultTreeAdapterTypes.Node) => {
    if ('tagName' in node) all.push(node);
    if ('childNodes' in node) node.childNodes.forEach(visit);
  };
  visit(parse(html));
  return all;
}

export function getAttribute(node: Node, name: string): string | null {
  return node.attrs.find((one) => one.name === name)?.value ?? null;
}

/** Its words, on one line. */
export function getText(node: DefaultTreeAdapterTypes.Node): string {
  const read = (one: DefaultTreeAdapterTypes.Node): string => {
    if ('value' in one) return one.value;
    return 'childNodes' in one ? one.childNodes.map(read).join('') : '';
  };
  return read(node).replace(/\s+/g, ' ').trim();
}
