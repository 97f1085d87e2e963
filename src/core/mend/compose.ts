import { flatMap, mapPresent } from '../lists.js';
import { getElementFrom, getAttribute, type Markup, type MarkupElement } from '../markup/markup.js';
import type { Edit, Span } from '../snippet.js';
import { formatDeclarations, type Intent } from './intent.js';
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
  const draft = new Draft(markup);
  const taken = cures.map((intents) => Boolean(intents?.length) && draft.take(intents!));
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
  readonly #tags = new Map<number, AttributeChange>();
  /** The attributes of each element that are written anew. */
  readonly #touched = new Map<number, Span[]>();
  readonly #texts: Edit[] = [];

  constructor(markup: Markup) {
    this.#markup = markup;
  }

  /** Takes in a cure more: all of it, or nothing where that cannot be. */
  take(intents: readonly Intent[]): boolean {
    const undo: (() => void)[] = [];
    if (intents.every((intent) => this.#take(intent, undo))) return true;
    for (const step of undo.reverse()) step();
    return false;
  }

  #take(intent: Intent, undo: (() => void)[]): boolean {
    if (intent.do === 'ask') return false;
    if (intent.do === 'replace-text')
      return this.#takeText({ ...intent.span, text: intent.text }, undo);
    const element = getElementFrom(this.#markup, intent.element);
    if (!element) return false;
    if (intent.do === 'wrap') return this.#wrap(element, intent.declarations, undo);
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
    if (!fits || mixed || editAttributes(this.#markup, element, change) === null) return false;
    const touched = listTouched(element, change);
    if (this.#texts.some((one) => touched.some((span) => meet(one, span)))) return false;
    this.#setTag(element.offset, change, touched, undo);
    return true;
  }

  /** Only what has an end of its own: what ends where the parser ends it would take in more. */
  #wrap(
    element: MarkupElement,
    declarations: Readonly<Record<string, string>>,
    undo: (() => void)[],
  ): boolean {
    const { offset, endOffset, name } = element;
    const { text } = this.#markup;
    if (!text.slice(0, endOffset).toLowerCase().endsWith(`</${name}>`)) return false;
    const start = `<div style="${formatDeclarations(declarations)}">`;
    const before = { offset, endOffset: offset, text: start };
    const after = { offset: endOffset, endOffset, text: '</div>' };
    return this.#takeText(before, undo) && this.#takeText(after, undo);
  }

  #setTag(offset: number, change: AttributeChange, touched: Span[], undo: (() => void)[]): void {
    const [known, spans] = [this.#tags.get(offset), this.#touched.get(offset)];
    undo.push(() => {
      if (known) this.#tags.set(offset, known);
      else this.#tags.delete(offset);
      this.#touched.set(offset, spans ?? []);
    });
    this.#tags.set(offset, change);
    this.#touched.set(offset, touched);
  }

  #takeText(edit: Edit, undo: (() => void)[]): boolean {
    const same = (one: Edit) =>
      one.offset === edit.offset && one.endOffset === edit.endOffset && one.text === edit.text;
    if (this.#texts.some(same)) return true;
    if (this.#texts.some((one) => meet(one, edit))) return false;
    for (const spans of this.#touched.values())
      if (spans.some((one) => meet(one, edit))) return false;
    undo.push(() => this.#texts.pop());
    this.#texts.push(edit);
    return true;
  }

  toEdits(): Edit[] {
    const tags = flatMap([...this.#tags], ([offset, change]) => {
      const element = getElementFrom(this.#markup, offset);
      return (element && editAttributes(this.#markup, element, change)) ?? [];
    });
    return [...tags, ...this.#texts].sort(
      (a, b) => a.offset - b.offset || a.endOffset - b.endOffset,
    );
  }
}

/** The attributes of an element that are written anew. */
function listTouched(element: MarkupElement, { attributes, styles }: AttributeChange): Span[] {
  const names = Object.keys(attributes);
  if (Object.keys(styles).length > 0) names.push('style');
  return mapPresent(names, (name) => getAttribute(element, name));
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
