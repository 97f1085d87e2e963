import * as z from 'zod';
import { flatMap } from '../lists.js';
import { getValue, type Markup, type MarkupElement } from '../markup/markup.js';
import type { Span } from '../snippet.js';
import type { OnPage, Pair } from './copies.js';
import { squeeze } from '../words/squeeze.js';

/** What is otherwise in a copy of a snippet than it was cleared. */
export const liveChange = z.object({
  what: z.enum([
    'element-missing',
    'element-added',
    'attribute-missing',
    'attribute-changed',
    'attribute-added',
    'text-changed',
  ]),
  tag: z.string(),
  attribute: z.string().nullable(),
  line: z
    .int()
    .describe('Its line in the snippet as it was cleared; of what was added, where that stands.'),
  before: z.string().nullable(),
  after: z.string().nullable(),
});
export type LiveChange = z.output<typeof liveChange>;

/** Holds each element of a snippet against the one that stands for it. */
export function listChanges(
  snippet: Markup,
  page: Markup,
  pairs: readonly Pair[],
  span: Span,
  on: OnPage,
): LiveChange[] {
  const changes = flatMap(pairs, ({ own, other }) => compare(snippet, own, other, on));
  return on.asSent ? [...changes, ...listAdded(page, pairs, span)] : changes;
}

/** Code changes these of what stands in a page as a matter of course. */
const LIVING = new Set(['style', 'class', 'width', 'height']);

function compare(
  snippet: Markup,
  own: MarkupElement,
  other: MarkupElement | null,
  on: OnPage,
): LiveChange[] {
  const { line } = snippet.place(own);
  const tell = (what: LiveChange['what'], rest: Partial<LiveChange> = {}): LiveChange => ({
    ...{ what, tag: own.name, attribute: null, line, before: null, after: null },
    ...rest,
  });
  if (!other) return [tell('element-missing')];
  const attributes = flatMap(own.attributes, ({ name, value }): LiveChange[] => {
    const after = getValue(other, name);
    if (after === null) return [tell('attribute-missing', { attribute: name, before: value })];
    const isItsOwn = !on.asSent && LIVING.has(name);
    return isItsOwn || isAlike(value, after, on.base)
      ? []
      : [tell('attribute-changed', { attribute: name, before: value, after })];
  });
  const added = other.attributes.filter(({ name }) => on.asSent && getValue(own, name) === null);
  const [before, after] = [own, other].map(({ text }) => squeeze(text));
  return [
    ...attributes,
    ...added.map(({ name, value }) => tell('attribute-added', { attribute: name, after: value })),
    ...(before === after || !on.asSent
      ? []
      : [tell('text-changed', { before: before!, after: after! })]),
  ];
}

/** What stands among the snippet's elements and is none of them. */
function listAdded(page: Markup, pairs: readonly Pair[], span: Span): LiveChange[] {
  const known = new Set(pairs.map(({ other }) => other));
  return page.elements
    .filter((one) => one.offset > span.offset && one.endOffset < span.endOffset && !known.has(one))
    .map((one) => ({
      ...{ what: 'element-added', tag: one.name, attribute: null },
      ...{ line: page.place(one).line, before: null, after: null },
    }));
}

/** White space, and how an address is written, make no difference. */
function isAlike(before: string, after: string, base: string): boolean {
  if (squeeze(before) === squeeze(after)) return true;
  if (squeezeStyle(before) === squeezeStyle(after)) return true;
  const read = (value: string) => (URL.canParse(value, base) ? new URL(value, base).href : null);
  return /[/?#]/.test(before) && read(before) !== null && read(before) === read(after);
}

/** How declarations are spaced, and whether the last one has its semicolon. */
function squeezeStyle(value: string): string {
  return squeeze(value)
    .replace(/\s*([:;,])\s*/g, '$1')
    .replace(/;$/, '');
}
