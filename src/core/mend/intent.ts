import { flatMap } from '../lists.js';
import type { Span } from '../snippet.js';

/** What a cure is to bring about, not yet how it is written: those of several findings are put together. */
export type Intent =
  /** `element`: the offset of its tag. Values of CSS properties, in the order in which they are to stand. */
  | { do: 'set-style'; element: number; declarations: Readonly<Record<string, string>> }
  /** A value of null: the bare name. */
  | { do: 'set-attribute'; element: number; name: string; value: string | null }
  | { do: 'remove-attribute'; element: number; name: string }
  /** Puts a div around it, with these values of CSS properties. */
  | { do: 'wrap'; element: number; declarations: Readonly<Record<string, string>> }
  /** Of no length: an insertion. */
  | { do: 'replace-text'; span: Span; text: string }
  /** What only a person can say. */
  | ({ do: 'ask' } & AskedFor);

/** What a person is asked, and where the answer goes: into an attribute of the element at that offset. */
export interface AskedFor {
  question: string;
  takes: 'text' | 'address';
  element: number;
  attribute: string;
  /** What is set instead where it says nothing to visitors; null where that cannot be. */
  decoration: { name: string; value: string } | null;
}

/** Declarations as a style attribute has them: `width: 100%; height: auto`. */
export function formatDeclarations(declarations: Readonly<Record<string, string>>): string {
  return Object.entries(declarations)
    .map(([property, value]) => `${property}: ${value}`)
    .join('; ');
}

/** Intents as few as they can be: what is set on one element is set at once. */
export function joinIntents(intents: readonly Intent[]): Intent[] {
  const joined: Intent[] = [];
  for (const intent of intents) {
    const known =
      intent.do === 'set-style'
        ? joined.findIndex((one) => one.do === 'set-style' && one.element === intent.element)
        : -1;
    const before = joined[known];
    if (before?.do !== 'set-style' || intent.do !== 'set-style') joined.push(intent);
    else
      joined[known] = {
        ...before,
        declarations: { ...before.declarations, ...intent.declarations },
      };
  }
  return joined;
}

/** What of the source cures change: cures that share one of these are one change. */
export function listTouched(intents: readonly Intent[] | null): string[] {
  return flatMap(intents ?? [], (intent) => {
    if (intent.do === 'ask') return [];
    if (intent.do === 'replace-text') return [`${intent.span.offset} ${intent.span.endOffset}`];
    if (intent.do === 'wrap') return [`${intent.element} wrap`];
    if (intent.do !== 'set-style') return [`${intent.element} ${intent.name}`];
    const properties = Object.keys(intent.declarations);
    return properties.map((property) => `${intent.element} style ${property}`);
  });
}

/**
 * Orders cures: of two that set different things at one place, the one that says more comes first, for it
 * does what the other would.
 */
export function bySayingMore(a: readonly Intent[] | null, b: readonly Intent[] | null): number {
  return countDeclarations(b) - countDeclarations(a);
}

function countDeclarations(intents: readonly Intent[] | null): number {
  const styles = (intents ?? []).map((one) =>
    one.do === 'set-style' ? Object.keys(one.declarations).length : 0,
  );
  return Math.max(0, ...styles);
}
