import type { Intent } from '../mend/intent.js';
import { getElementAt, getElementFrom, type Markup, type MarkupElement } from '../markup/markup.js';
import { readStyleAttribute, readStyles, type StyleDeclaration } from '../markup/styles.js';
import type { Span } from '../snippet.js';

/** A declaration or an attribute in the source. */
export interface Stated {
  where: Span;
  property: string;
  value: string;
  /** null for an attribute. */
  declaration: StyleDeclaration | null;
  /** As written; null for a declaration. */
  attribute: string | null;
  /** The element on whose tag it stands; null in a sheet. */
  owner: MarkupElement | null;
}

/** What stands at a place; null where that is neither a declaration nor an attribute. */
export function findStated(markup: Markup, where: Span): Stated | null {
  const isHere = (one: Span) => one.offset === where.offset && one.endOffset === where.endOffset;
  const { offset, endOffset } = where;
  const ruled = readStyles(markup).find(isHere);
  if (ruled) return state(ruled, null);
  const owner = getElementAt(markup, offset);
  if (!owner) return null;
  const declared = readStyleAttribute(markup, owner).find(isHere);
  if (declared) return state(declared, owner);
  const attribute = owner.attributes.find(isHere);
  if (!attribute) return null;
  const { name: property, value } = attribute;
  const text = markup.text.slice(offset, endOffset);
  return {
    where: { offset, endOffset },
    property,
    value,
    declaration: null,
    attribute: text,
    owner,
  };
}

/** The declarations of a tag, or the one of a sheet, in whose place a change writes others. */
export function listReplaced(markup: Markup, intent: Intent): Stated[] {
  if (intent.do === 'replace-text') {
    const stated = findStated(markup, intent.span);
    return stated ? [stated] : [];
  }
  const owner = intent.do === 'set-style' ? getElementFrom(markup, intent.element) : null;
  if (!owner || intent.do !== 'set-style') return [];
  return readStyleAttribute(markup, owner)
    .filter(({ property }) => property in intent.declarations)
    .map((declaration) => state(declaration, owner));
}

function state(declaration: StyleDeclaration, owner: MarkupElement | null): Stated {
  const { offset, endOffset, property, value } = declaration;
  return { where: { offset, endOffset }, property, value, declaration, attribute: null, owner };
}
