import { getValue, type Markup, type MarkupElement } from './markup.js';
import { listDeclarations, type StyleDeclaration } from './styles.js';

/** Whether an element, or one around it, is hidden from everybody or from assistive technology, as far as the markup tells. */
export function isHidden(markup: Markup, element: MarkupElement): boolean {
  for (let at: MarkupElement | null = element; at; at = at.parent)
    if (isHiddenItself(markup, at)) return true;
  return false;
}

const known = new WeakMap<MarkupElement, boolean>();

function isHiddenItself(markup: Markup, element: MarkupElement): boolean {
  const found =
    known.get(element) ??
    (getValue(element, 'aria-hidden') === 'true' ||
      getValue(element, 'hidden') !== null ||
      isAlways(markup, element, 'display', 'none') ||
      isAlways(markup, element, 'visibility', 'hidden'));
  known.set(element, found);
  return found;
}

/** What holds under a condition (`@media`) only holds only there. */
function isAlways(
  markup: Markup,
  element: MarkupElement,
  property: string,
  value: string,
): boolean {
  const { inline, ruled } = listDeclarations(markup, element, [property]);
  const is = (d: StyleDeclaration | undefined) => d?.value.toLowerCase() === value;
  const plain = ruled.filter(({ inMedia }) => !inMedia);
  const decides = plain.findLast(({ important }) => important) ?? inline.at(-1) ?? plain.at(-1);
  return is(decides) && !ruled.some((d) => d.inMedia && !is(d));
}
