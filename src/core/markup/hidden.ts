import { getValue, type Markup, type MarkupElement } from './markup.js';
import { findDeclaration } from './styles.js';

/** Whether an element, or one around it, is hidden from everybody or from assistive technology, as far as the markup tells. */
export function isHidden(markup: Markup, element: MarkupElement): boolean {
  for (let at: MarkupElement | null = element; at; at = at.parent) {
    if (getValue(at, 'aria-hidden') === 'true' || getValue(at, 'hidden') !== null) return true;
    if (findDeclaration(markup, at, ['display'])?.value === 'none') return true;
    if (findDeclaration(markup, at, ['visibility'])?.value === 'hidden') return true;
  }
  return false;
}
