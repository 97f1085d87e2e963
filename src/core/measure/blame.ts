import type { ElementFact, Source } from '../evidence.js';
import { getElementAt, getElementFrom } from '../markup/addresses.js';
import { getAttribute, getTagSpan, type Markup, type MarkupElement } from '../markup/markup.js';
import { findDeclaration, type StyleDeclaration } from '../markup/styles.js';
import type { Edit, Span } from '../snippet.js';

/** Where a measured fault is set in the source, and what could be changed there. */
export interface Blame {
  where: Span;
  made?: string;
  subject: string;
  element: MarkupElement | null;
  declaration: StyleDeclaration | null;
}

const SIZE = ['width', 'inline-size', 'min-width', 'min-inline-size', 'flex-basis', 'flex'];
const PLACE = [
  'margin-right',
  'margin-left',
  'margin-inline',
  'margin',
  'left',
  'right',
  'inset',
  'transform',
  'translate',
];
const TEXT = ['white-space', 'word-break', 'overflow-wrap'];
const TRACKS = [
  'grid-template-columns',
  'grid-template',
  'grid-auto-columns',
  'flex-wrap',
  'flex-flow',
];

/**
 * The smallest piece of the source that sets an element's width, or puts it where it sticks out:
 * declaration, attribute, else its tag.
 * @param room the width there is, px
 */
export function blameWidth(
  markup: Markup,
  fact: ElementFact,
  { by = 'box', room = 0 }: { by?: 'box' | 'ink'; room?: number } = {},
): Blame {
  const blame = blameElement(markup, fact);
  const { element } = blame;
  if (!element) return blame;
  // What would fit by its width is in the wrong place.
  const boxes = fact.box.width > room ? [SIZE, PLACE] : [PLACE, SIZE];
  const groups = by === 'ink' ? [TEXT] : boxes;
  for (const group of groups) {
    const declaration =
      group.map((name) => findDeclaration(markup, element, [name])).find(Boolean) ?? null;
    if (declaration && sets(declaration)) return at(blame, declaration);
    const attribute = group === SIZE ? getAttribute(element, 'width') : null;
    if (attribute) return { ...blame, where: attribute };
  }
  const tracks =
    by === 'box' && element.parent ? findDeclaration(markup, element.parent, TRACKS) : null;
  return tracks ? at(blame, tracks) : blame;
}

/** `max-width: 100%` and the like are no cause. */
function sets({ property, value }: StyleDeclaration): boolean {
  return !(SIZE.includes(property) && /^(auto|0|none|initial)$/.test(value));
}

function at(blame: Blame, declaration: StyleDeclaration): Blame {
  return {
    ...blame,
    where: { offset: declaration.offset, endOffset: declaration.endOffset },
    declaration,
  };
}

/** The element in the source; for what a script made, the script's tag. */
export function blameElement(
  markup: Markup,
  fact: { from: Source; selector: string | null },
): Blame {
  const { from } = fact;
  if ('offset' in from) {
    const element = getElementFrom(markup, from.offset) ?? getElementAt(markup, from.offset);
    const where = element ? getTagSpan(element) : { offset: from.offset, endOffset: from.offset };
    return { where, subject: `@${from.offset}`, element, declaration: null };
  }
  const script = from.script === null ? null : getElementFrom(markup, from.script);
  const where = script
    ? getTagSpan(script)
    : { offset: 0, endOffset: Math.min(markup.text.length, 80) };
  return {
    where,
    made: fact.selector ?? '',
    subject: `made ${fact.selector}`,
    element: null,
    declaration: null,
  };
}

/** The offset in the snippet that something comes from: the element's, or its script's; null where none is known. */
export function getSourceOffset(from: Source | null): number | null {
  if (from === null) return null;
  return 'offset' in from ? from.offset : from.script;
}

/** Adds declarations to an element's style attribute; null where the element is not in the source. */
export function addStyle(element: MarkupElement | null, declarations: string): Edit[] | null {
  if (!element) return null;
  const style = getAttribute(element, 'style');
  if (style) {
    const written = style.value.trim().replace(/;$/, '');
    const quote = /["]/.test(written) ? "'" : '"';
    const text = `style=${quote}${written ? `${written}; ` : ''}${declarations}${quote}`;
    return [{ offset: style.offset, endOffset: style.endOffset, text }];
  }
  const at = element.offset + 1 + element.name.length;
  return [{ offset: at, endOffset: at, text: ` style="${declarations}"` }];
}

/** A cure for a width that is too large: it may shrink with its room. */
export function mendWidth({ declaration, element }: Blame): Edit[] | null {
  if (!declaration) {
    const keepsRatio = element && /^(img|video|canvas)$/.test(element.name) ? '; height: auto' : '';
    return addStyle(element, `max-width: 100%${keepsRatio}; box-sizing: border-box`);
  }
  const { offset, endOffset, property, value } = declaration;
  if (/^(width|inline-size)$/.test(property)) {
    return [
      { offset, endOffset, text: `${property}: 100%; max-width: ${value}; box-sizing: border-box` },
    ];
  }
  if (/^min-/.test(property)) return [{ offset, endOffset, text: `${property}: 0` }];
  if (property === 'white-space')
    return [{ offset, endOffset, text: 'white-space: normal; overflow-wrap: anywhere' }];
  return null;
}
