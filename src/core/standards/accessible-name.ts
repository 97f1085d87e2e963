import type { Control } from './elements.js';
import { squeeze } from '../words/squeeze.js';

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
  /** Nobody meets it, or no assistive technology does. */
  isHidden(node: N): boolean;
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
    tidy(tree.listFieldLabels(node).map((one) => getText(tree, one, node)));
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
  if (!/^(svg|image)$/.test(tree.getName(node))) return '';
  for (const part of tree.listContent(node))
    if (typeof part !== 'string' && tree.getName(part) === 'title') return getText(tree, part);
  return '';
}

/**
 * The name of a link, a button or a field; '' where it has none (Accessible Name and Description Computation
 * 1.2, 2F with names from content; HTML Accessibility API Mappings 1.0, 4.1).
 */
export function computeControlName<N>(
  tree: NameTree<N>,
  node: N,
  { byContent }: Pick<Control, 'byContent'>,
): string {
  const own = computeName(tree, node) || getOwnWords(tree, node);
  return own || (byContent ? getHeard(tree, node) : '');
}

const NAMED_BY_BROWSER = /^(submit|reset)$/i;

/** What stands on a button that is a field, and in a field that is empty. */
function getOwnWords<N>(tree: NameTree<N>, node: N): string {
  const get = (name: string) => tree.getAttribute(node, name)?.trim() ?? '';
  const hint = get('placeholder') || get('aria-placeholder');
  if (tree.getName(node) !== 'input') return hint;
  const type = get('type');
  const value = tree.getAttribute(node, 'value');
  if (NAMED_BY_BROWSER.test(type)) return value === null ? type : value.trim();
  return type.toLowerCase() === 'button' ? (value?.trim() ?? '') : hint;
}

/** Parts whose text is none. */
const UNREAD = /^(style|script|template|metadata|desc|noscript)$/;

/** What is heard of what is inside. */
function getHeard<N>(tree: NameTree<N>, node: N): string {
  const parts = tree.listContent(node).map((part) => {
    if (typeof part === 'string') return part;
    if (UNREAD.test(tree.getName(part)) || tree.isHidden(part)) return '';
    return computeName(tree, part) || getHeard(tree, part);
  });
  return tidy(parts);
}

/** All that an element says, where it names another: that itself may stand in it. */
function getText<N>(tree: NameTree<N>, node: N, named: N | null = null): string {
  const label = tree.getAttribute(node, 'aria-label')?.trim();
  if (label) return label;
  const parts = tree.listContent(node).map((part) => {
    if (typeof part === 'string') return part;
    return part === named ? '' : getText(tree, part, named);
  });
  return tidy([tree.getAttribute(node, 'alt') ?? '', ...parts]);
}

function tidy(texts: readonly string[]): string {
  return squeeze(texts.join(' '));
}
