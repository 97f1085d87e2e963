/** A tree that names are computed on: that of the markup, or that of a page. */
export interface NameTree<N> {
  getName(node: N): string;
  getAttribute(node: N, name: string): string | null;
  /** The element of that id in the same tree. */
  findById(node: N, id: string): N | null;
  /** The labels of a field: around it, or pointing at it (HTML, 4.10.4). */
  listFieldLabels(node: N): readonly N[];
  /** Texts and elements inside. */
  listContent(node: N): readonly (string | N)[];
}

const WITH_ALT = /^(img|area|input)$/;

/**
 * The name that an element has by its own attributes and labels (Accessible Name and Description
 * Computation 1.2, steps 2B to 2D and 2I; names from content, 2F, are the caller's). '' where its alt
 * is empty, null where nothing gives it one.
 */
export function computeName<N>(tree: NameTree<N>, node: N): string | null {
  const name = tree.getName(node);
  const labelled =
    tidy(listLabelling(tree, node).map((one) => getText(tree, one))) ||
    tree.getAttribute(node, 'aria-label')?.trim() ||
    tidy(tree.listFieldLabels(node).map((one) => getText(tree, one)));
  if (labelled) return labelled;
  const alt = WITH_ALT.test(name) ? tree.getAttribute(node, 'alt') : null;
  if (alt?.trim()) return alt.trim();
  const title = getInnerTitle(tree, node) || tree.getAttribute(node, 'title')?.trim();
  return title || (alt === null ? null : '');
}

/** What `aria-labelledby` points at. */
function listLabelling<N>(tree: NameTree<N>, node: N): N[] {
  const ids = (tree.getAttribute(node, 'aria-labelledby') ?? '').split(/\s+/).filter(Boolean);
  return ids.map((id) => tree.findById(node, id)).filter((one) => one !== null);
}

/** SVG Accessibility API Mappings 1.0, 8: the title that is a child. */
function getInnerTitle<N>(tree: NameTree<N>, node: N): string {
  if (tree.getName(node) !== 'svg') return '';
  for (const part of tree.listContent(node))
    if (typeof part !== 'string' && tree.getName(part) === 'title') return getText(tree, part);
  return '';
}

/** All that an element says, where it names another. */
function getText<N>(tree: NameTree<N>, node: N): string {
  const label = tree.getAttribute(node, 'aria-label')?.trim();
  if (label) return label;
  const parts = tree
    .listContent(node)
    .map((part) => (typeof part === 'string' ? part : getText(tree, part)));
  return tidy([tree.getAttribute(node, 'alt') ?? '', ...parts]);
}

function tidy(texts: readonly string[]): string {
  return texts.join(' ').replace(/\s+/g, ' ').trim();
}
