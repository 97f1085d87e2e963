import type { CssNode } from 'css-tree';
import { flatMap } from '../lists.js';
import type { Span } from '../snippet.js';
import { readSheets } from './sheets.js';
import type { Markup, MarkupElement } from './markup.js';

/** A selector that is not kept to the snippet. */
export interface Reaching {
  /** The style element that it stands in. */
  element: MarkupElement;
  text: string;
  span: Span;
  /** Its rule sets custom properties and nothing else: it reaches only what uses them. */
  custom: boolean;
  /** The element's name that it ends on; `*`, `html`, `body`. */
  subject: string;
}

/** A selector of the snippet's, wherever it reaches. */
export type Selecting = Omit<Reaching, 'subject'> & { node: CssNode };

/** All selectors of the snippet's sheets that are not kept to something of its own by their scope. */
export function listSelectors(markup: Markup): Selecting[] {
  return flatMap(readSheets(markup), ({ element, rules }) =>
    flatMap(rules, ({ selectors, custom, scoped }) =>
      scoped ? [] : selectors.map((one) => ({ element, custom, ...one })),
    ),
  );
}

/** The selectors of the snippet that end on an element's name and have nothing of the snippet's own in them. */
export function listReaching(markup: Markup): Reaching[] {
  return flatMap(listSelectors(markup), ({ node, ...selecting }) => {
    const subject = getSubject(node);
    return subject === null ? [] : [{ ...selecting, subject }];
  });
}

/** The element's name that a selector ends on, where nothing in it is the snippet's own; null where something is. */
function getSubject(node: CssNode): string | null {
  if (node.type !== 'Selector') return null;
  let subject = '*';
  for (const part of node.children.toArray()) {
    if (part.type === 'Combinator') subject = '*';
    else if (part.type === 'TypeSelector') {
      if (part.name.includes('-')) return null;
      subject = part.name.toLowerCase();
    } else if (part.type === 'PseudoClassSelector') {
      // What is asked for in brackets may be the snippet's own.
      if (part.children !== null || part.name === 'host' || part.name === 'scope') return null;
      if (part.name === 'root') subject = 'html';
    } else if (part.type !== 'PseudoElementSelector') return null;
  }
  return subject;
}
