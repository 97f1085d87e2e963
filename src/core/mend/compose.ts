import { getElementFrom, getAttribute, type Markup } from '../markup/markup.js';
import type { Edit, Span } from '../snippet.js';
import type { Intent } from './intent.js';
import { editAttributes, type AttributeChange } from './tag.js';

/** What several cures make of a snippet together. */
export interface Composed {
  /** In source order; they do not overlap. */
  edits: Edit[];
  /** For each cure whether it is in it: not what is for a person to say, nor what contradicts one before. */
  taken: boolean[];
}

/**
 * Puts cures together into edits; all else of the snippet stays as it is, byte for byte.
 * @param cures where two contradict each other the first counts
 */
export function composeMends(
  markup: Markup,
  cures: readonly (readonly Intent[] | null)[],
): Composed {
  let draft = new Draft(markup);
  const taken = cures.map((intents) => {
    const next = intents && intents.length > 0 ? draft.with(intents) : null;
    if (next) draft = next;
    return next !== null;
  });
  return { edits: draft.toEdits(), taken };
}

/** The edits of one cure alone; null where it has something that a person has to say. */
export function composeMend(markup: Markup, intents: readonly Intent[] | null): Edit[] | null {
  const { edits, taken } = composeMends(markup, [intents]);
  return taken[0] && edits.length > 0 ? edits : null;
}

/** What is wanted of a snippet so far. */
class Draft {
  readonly #markup: Markup;
  /** By element: its attributes, and the properties of its style. */
  readonly #tags: Map<number, AttributeChange>;
  readonly #texts: Edit[];

  constructor(
    markup: Markup,
    tags: ReadonlyMap<number, AttributeChange> = new Map(),
    texts: readonly Edit[] = [],
  ) {
    this.#markup = markup;
    this.#tags = new Map(tags);
    this.#texts = [...texts];
  }

  /** With a cure more; null where that cannot be. */
  with(intents: readonly Intent[]): Draft | null {
    const next = new Draft(this.#markup, this.#tags, this.#texts);
    return intents.every((intent) => next.#take(intent)) ? next : null;
  }

  #take(intent: Intent): boolean {
    if (intent.do === 'ask') return false;
    if (intent.do === 'replace-text') return this.#takeText({ ...intent.span, text: intent.text });
    const element = getElementFrom(this.#markup, intent.element);
    if (!element) return false;
    const before = this.#tags.get(element.offset) ?? { attributes: {}, styles: {} };
    const wanted =
      intent.do === 'set-style'
        ? { styles: intent.declarations, attributes: {} }
        : {
            styles: {},
            attributes: {
              [intent.name]: intent.do === 'set-attribute' ? { value: intent.value } : null,
            },
          };
    const fits = agree(before.styles, wanted.styles) && agree(before.attributes, wanted.attributes);
    const change = {
      styles: { ...before.styles, ...wanted.styles },
      attributes: { ...before.attributes, ...wanted.attributes },
    };
    // A style that is written as a whole cannot be added to as well.
    const mixed = 'style' in change.attributes && Object.keys(change.styles).length > 0;
    if (!fits || mixed) return false;
    if (editAttributes(this.#markup, element, change) === null) return false;
    this.#tags.set(element.offset, change);
    return !this.#touched(element.offset).some((span) =>
      this.#texts.some((one) => meet(one, span)),
    );
  }

  #takeText(edit: Edit): boolean {
    const same = (one: Edit) =>
      one.offset === edit.offset && one.endOffset === edit.endOffset && one.text === edit.text;
    if (this.#texts.some(same)) return true;
    const tags = [...this.#tags.keys()].flatMap((offset) => this.#touched(offset));
    if ([...this.#texts, ...tags].some((one) => meet(one, edit))) return false;
    this.#texts.push(edit);
    return true;
  }

  /** The attributes of an element that are written anew. */
  #touched(offset: number): Span[] {
    const change = this.#tags.get(offset);
    const element = getElementFrom(this.#markup, offset);
    if (!change || !element) return [];
    const names = Object.keys(change.attributes);
    if (Object.keys(change.styles).length > 0) names.push('style');
    return names.flatMap((name) => getAttribute(element, name) ?? []);
  }

  toEdits(): Edit[] {
    const tags = [...this.#tags].flatMap(([offset, change]) => {
      const element = getElementFrom(this.#markup, offset);
      return (element && editAttributes(this.#markup, element, change)) ?? [];
    });
    return [...tags, ...this.#texts].sort(
      (a, b) => a.offset - b.offset || a.endOffset - b.endOffset,
    );
  }
}

/** Whether what both want is the same. */
function agree(a: object, b: object): boolean {
  const known = a as Record<string, unknown>;
  return Object.entries(b).every(
    ([key, value]) => !(key in known) || JSON.stringify(known[key]) === JSON.stringify(value),
  );
}

/** Whether two changes touch the same text, or both put something in at one place. */
function meet(a: Span, b: Span): boolean {
  if (a.offset === b.offset && a.endOffset === b.endOffset) return true;
  return a.offset < b.endOffset && b.offset < a.endOffset;
}
