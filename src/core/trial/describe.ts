import { mapPresent } from '../lists.js';
import { getElementFrom, type Markup } from '../markup/markup.js';
import { readStyleAttribute } from '../markup/styles.js';
import { formatDeclarations, type Intent } from '../mend/intent.js';
import { capitalize, joinWords } from '../words/list.js';
import { findStated } from './stated.js';

/** A cure in words: `Set `overflow-wrap: anywhere` on the <p>.` */
export function describeChange(markup: Markup, intents: readonly Intent[]): string {
  const parts = mapPresent(intents, (intent) => describeOne(markup, intent));
  return `${capitalize(joinWords([...new Set(parts)]))}.`;
}

function describeOne(markup: Markup, intent: Intent): string | null {
  if (intent.do === 'ask') return null;
  if (intent.do === 'replace-text') {
    const stated = findStated(markup, intent.span);
    const before = markup.text.slice(intent.span.offset, intent.span.endOffset);
    return stated && describeWritten(before, intent.text);
  }
  const element = getElementFrom(markup, intent.element);
  const tag = `<${element?.name ?? ''}>`;
  if (intent.do === 'wrap')
    return `put \`<div style="${formatDeclarations(intent.declarations)}">\` and \`</div>\` around the ${tag}`;
  if (intent.do === 'remove-attribute') return `take \`${intent.name}\` out of the ${tag}`;
  if (intent.do === 'set-attribute')
    return `set \`${intent.name}="${intent.value ?? ''}"\` on the ${tag}`;
  const known = element ? readStyleAttribute(markup, element) : [];
  const before = known.find(({ property }) => property in intent.declarations);
  const text = formatDeclarations(intent.declarations);
  return before
    ? describeWritten(`${before.property}: ${before.value}`, text)
    : `set \`${text}\` on the ${tag}`;
}

function describeWritten(before: string, after: string): string {
  if (after.startsWith(`${before}; `))
    return `put \`${after.slice(before.length + 2)}\` beside \`${before}\``;
  return `write \`${after}\` instead of \`${before}\``;
}
