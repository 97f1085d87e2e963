import { flatMap } from '../lists.js';
import { getElementFrom, type Markup } from '../markup/markup.js';
import { formatDeclarations, type Intent } from '../mend/intent.js';
import { capitalize, joinWords } from '../words/list.js';
import { findStated, listReplaced, type Stated } from './stated.js';

/** A cure in words: `Set `overflow-wrap: anywhere` on the <p>.` */
export function describeChange(markup: Markup, intents: readonly Intent[]): string {
  const parts = flatMap(intents, (intent) => describeOne(markup, intent));
  return `${capitalize(joinWords([...new Set(parts)]))}.`;
}

function describeOne(markup: Markup, intent: Intent): string[] {
  if (intent.do === 'ask') return [];
  if (intent.do === 'replace-text') {
    const stated = findStated(markup, intent.span);
    const before = markup.text.slice(intent.span.offset, intent.span.endOffset);
    return stated ? [describeWritten(before, intent.text)] : [];
  }
  const element = getElementFrom(markup, intent.element);
  const tag = `<${element?.name ?? ''}>`;
  if (intent.do === 'wrap')
    return [
      `put \`<div style="${formatDeclarations(intent.declarations)}">\` and \`</div>\` around the ${tag}`,
    ];
  if (intent.do === 'remove-attribute') return [`take \`${intent.name}\` out of the ${tag}`];
  if (intent.do === 'set-attribute')
    return [`set \`${intent.name}="${intent.value ?? ''}"\` on the ${tag}`];
  return describeStyle(listReplaced(markup, intent), intent.declarations, tag);
}

/** What stood there is replaced, together with what is to stand beside it. */
function describeStyle(
  written: readonly Stated[],
  declarations: Readonly<Record<string, string>>,
  tag: string,
): string[] {
  if (written.length === 0) return [`set \`${formatDeclarations(declarations)}\` on the ${tag}`];
  const groups = new Map(written.map((one): [Stated, Record<string, string>] => [one, {}]));
  let at = written.find(({ property }) => property === Object.keys(declarations)[0]) ?? written[0]!;
  for (const [name, value] of Object.entries(declarations)) {
    at = written.find(({ property }) => property === name) ?? at;
    groups.get(at)![name] = value;
  }
  return [...groups].map(([{ property, value }, after]) =>
    describeWritten(`${property}: ${value}`, formatDeclarations(after)),
  );
}

function describeWritten(before: string, after: string): string {
  if (after.startsWith(`${before}; `))
    return `put \`${after.slice(before.length + 2)}\` beside \`${before}\``;
  return `write \`${after}\` instead of \`${before}\``;
}
