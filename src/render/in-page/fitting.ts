/**
 * Which of these selectors each of these elements fits, by their places in the list.
 * @param ids -1 for what is not there
 */
export function fitSelectors(ids: readonly number[], selectors: readonly string[]): number[][] {
  const { nodes, own } = globalThis.mivketNotebook;
  return ids.map((id) => {
    const node = nodes.get(id);
    return node ? selectors.flatMap((one, at) => (fits(own(node), one) ? [at] : [])) : [];
  });
}

/** What the browser cannot read fits nothing. */
function fits(node: Element, selector: string): boolean {
  try {
    return node.matches(selector);
  } catch {
    return false;
  }
}
