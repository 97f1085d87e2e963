import type { ElementFact } from '../evidence.js';
import { getValue, listInside, type Markup, type MarkupElement } from '../markup/markup.js';
import { appliesAt, listByWeight, readStyles, type StyleDeclaration } from '../markup/styles.js';
import { REPLACED } from '../standards/elements.js';
import {
  findFixed,
  findRow,
  getPush,
  isComputed,
  isSigned,
  listPixels,
  sets,
  stateBy,
  stateByAttribute,
} from './declared.js';
import { blameElement, getBlamed, SAMPLE_BLAME, type Blame } from './blame.js';

/** What of an element makes it reach too far. */
export type Reason =
  /** A width of its own. */
  | 'size'
  /** A margin, an offset or a transform. */
  | 'place'
  /** Its padding, borders or indent. */
  | 'room'
  /** Text that does not break. */
  | 'text'
  /** The columns of the grid it stands in. */
  | 'tracks'
  /** The row it stands in, which does not wrap. */
  | 'row'
  | 'animation'
  /** What is inside, or its own nature; nothing in the snippet states it. */
  | 'content';

/** Where a width that is too large is set in the source, and what could be changed there. */
export interface WidthBlame extends Blame {
  reason: Reason;
  /** The element's name; '' for text that stands in none. */
  tag: string;
  declaration: StyleDeclaration | null;
  /** As written, where an attribute sets it. */
  attribute: string | null;
  /** The room there was, px. */
  room: number;
  /** The element's measured box, px. */
  width: number;
}

/** The blame of a usual case, for explaining a finding. */
export const SAMPLE_WIDTH_BLAME: WidthBlame = {
  ...SAMPLE_BLAME,
  reason: 'size',
  tag: 'div',
  declaration: null,
  attribute: null,
  room: 0,
  width: 0,
};

/** The blames of several usual cases. */
export const SAMPLE_WIDTH_BLAMES: WidthBlame[] = [
  sample('size', 'width', '640px'),
  sample('place', 'margin', '0 -30px'),
  sample('text', 'white-space', 'nowrap'),
  { ...SAMPLE_WIDTH_BLAME, reason: 'text' },
  sample('row', 'display', 'flex'),
  { ...SAMPLE_WIDTH_BLAME, culprit: { at: 'made', selector: '' }, maker: 'static.bookbed.example' },
];

function sample(reason: Reason, property: string, value: string): WidthBlame {
  const marks = { selector: null, important: false, inMedia: false, media: null };
  const declaration = { property, value, offset: 0, endOffset: 0, ...marks };
  return { ...SAMPLE_WIDTH_BLAME, reason, declaration };
}

/** As much of an element as tells where its width is set. */
export type Sized = Pick<ElementFact, 'from' | 'selector' | 'box' | 'style' | 'tag'>;

export interface WidthWish {
  /** What sticks out: the box itself, or only what it paints. */
  by?: 'box' | 'ink';
  side?: 'left' | 'right';
  /** The width there is, px. */
  room: number;
  /** The width of the window, px: rules for others are no cause. */
  window: number;
}

/**
 * The smallest piece of the source that sets an element's width, or puts it where it sticks out:
 * declaration, attribute, else its tag.
 */
export function blameWidth(markup: Markup, fact: Sized, wish: WidthWish): WidthBlame {
  const blame: WidthBlame = {
    ...blameElement(markup, fact),
    reason: 'content',
    tag: fact.tag,
    declaration: null,
    attribute: null,
    room: wish.room,
    width: fact.box.width,
  };
  const element = getBlamed(markup, blame);
  if (!element) return blame;
  const search = new Search(markup, element, fact, wish);
  for (const look of search.order()) {
    const found = look();
    if (found) return { ...blame, ...found };
  }
  return blame;
}

/** What is found out of a blame. */
type Found = Partial<WidthBlame> & Pick<WidthBlame, 'reason'>;

const PLACE = [
  'margin-right',
  'margin-left',
  'margin-inline',
  'margin-inline-start',
  'margin-inline-end',
  'margin',
  'left',
  'right',
  'inset',
  'inset-inline',
  'transform',
  'translate',
];
const ROOM = /^(padding|border)(-(left|right|inline)(-(start|end))?)?(-width)?$/;
const KEEPS_LINES = /^(nowrap|pre)\b/;

/** Looks for what to blame, in the order that what sticks out tells. */
class Search {
  constructor(
    private readonly markup: Markup,
    private readonly element: MarkupElement,
    private readonly fact: Sized,
    private readonly wish: WidthWish,
  ) {}

  order(): (() => Found | null)[] {
    const size = () => this.#size(this.element) ?? this.#cell();
    const place = () => this.#place();
    const text = () => this.#text();
    const animation = () => this.#animation();
    const around = [() => this.#tracks(), () => this.#row()];
    // Inline elements have no width of their own.
    const inline = this.fact.style.display === 'inline' && !REPLACED.has(this.element.name);
    if (this.wish.by === 'ink' || inline)
      return [() => this.#room(/^text-indent$/), text, () => this.#generated(), place];
    // What would fit by its width is in the wrong place.
    if (this.fact.box.width <= this.wish.room) return [place, animation, size, ...around];
    return [size, () => this.#room(ROOM), () => this.#kept(), animation, ...around, place, text];
  }

  #find(element: MarkupElement, properties: readonly string[] | RegExp): StyleDeclaration | null {
    return this.#list(element, properties)[0] ?? null;
  }

  #list(element: MarkupElement, properties: readonly string[] | RegExp): StyleDeclaration[] {
    return listByWeight(this.markup, element, properties, this.wish.window);
  }

  /** A width of its own: the least one first, where that decides. */
  #size(element: MarkupElement): Found | null {
    const { style } = this.fact;
    const own = element === this.element;
    const least = this.#find(element, ['min-width', 'min-inline-size']);
    if (least && this.#decides(least)) return at(least, 'size');
    for (const property of ['width', 'inline-size', 'flex-basis', 'flex']) {
      const found = this.#list(element, [property]).find(
        (one) => sets(one) && (!own || isComputed(one, style.width)),
      );
      if (found) return this.#fills(found.value) ?? at(found, 'size');
    }
    const stated = stateByAttribute(this.markup, element);
    if (stated) return this.#fills(getValue(element, 'width')!) ?? { ...stated, reason: 'size' };
    return least && sets(least) ? at(least, 'size') : null;
  }

  /** What takes the whole width of something that is too wide itself is as wide as that makes it. */
  #fills(value: string): Found | null {
    if (value.trim() !== '100%') return null;
    for (let around = this.element.parent; around; around = around.parent) {
      const found = findFixed(this.markup, around, this.wish.room, this.wish.window);
      if (!found) continue;
      const culprit = { at: 'element', offset: around.offset } as const;
      return { ...found, culprit, tag: around.name, reason: 'size' };
    }
    return null;
  }

  /** Whether the least width is what counts: more than the width that is asked for beside it, and than there is room. */
  #decides({ value }: StyleDeclaration): boolean {
    const { style } = this.fact;
    const least = parseFloat(style.minWidth || value);
    const asked = /px$/.test(style.width) ? parseFloat(style.width) : 0;
    return least > asked && least >= Math.min(this.wish.room, this.fact.box.width) - 1;
  }

  /** A table is as wide as its cells make it. */
  #cell(): Found | null {
    if (this.element.name !== 'table') return null;
    for (const cell of listInside(this.element)) {
      const found = /^(td|th|col)$/.test(cell.name) ? this.#size(cell) : null;
      if (found)
        return { ...found, culprit: { at: 'element', offset: cell.offset }, tag: cell.name };
    }
    return null;
  }

  /** What pushes it to the side where it sticks out; of several what pushes farthest. */
  #place(): Found | null {
    const outward = this.wish.side === 'left' ? -1 : 1;
    const pushing = PLACE.flatMap((property) => {
      const found = this.#find(this.element, [property]);
      const push = found ? getPush(found) * (isSigned(property) ? outward : 1) : 0;
      return found && push > 0 ? [{ found, push }] : [];
    });
    pushing.sort((a, b) => b.push - a.push);
    return pushing[0] ? at(pushing[0].found, 'place') : null;
  }

  /** Padding and the like that take up much of the room there is. */
  #room(properties: RegExp): Found | null {
    const found = this.#find(this.element, properties);
    const most = found ? Math.max(0, ...listPixels(found.value)) : 0;
    return found && most > this.wish.room / 4 ? at(found, 'room') : null;
  }

  /** Text that may not break, or has nowhere to; said by the element itself or by one around it. */
  #text(): Found | null {
    const own = hasText(this.element) && !REPLACED.has(this.element.name);
    return this.#kept() ?? (own ? { reason: 'text' } : null);
  }

  #kept(): Found | null {
    for (let one: MarkupElement | null = this.element; one; one = one.parent) {
      const found = this.#find(one, ['white-space', 'text-wrap', 'text-wrap-mode', 'word-break']);
      if (found && (KEEPS_LINES.test(found.value) || found.value === 'keep-all'))
        return at(found, 'text');
      if (found) return null;
      if (one.name === 'pre') return { reason: 'text', tag: 'pre' };
    }
    return null;
  }

  /** A box that a rule makes before or behind the content. */
  #generated(): Found | null {
    const found = readStyles(this.markup).findLast(
      (one) =>
        /::?(before|after)\b/.test(one.selector ?? '') &&
        /^(min-)?(width|inline-size)$|^(left|right|inset|transform|margin.*)$/.test(one.property) &&
        appliesAt(one, this.wish.window) &&
        listPixels(one.value).some((px) => px > this.wish.room / 4),
    );
    return found ? at(found, 'size') : null;
  }

  #animation(): Found | null {
    const found = this.#find(this.element, ['animation', 'animation-name']);
    return found && !/^none\b/.test(found.value) ? at(found, 'animation') : null;
  }

  #tracks(): Found | null {
    const { parent } = this.element;
    const grid = ['grid-template-columns', 'grid-template', 'grid', 'grid-auto-columns'];
    const found = parent && this.#find(parent, grid);
    return found ? at(found, 'tracks') : null;
  }

  /** Items that stand in one row, each of which would fit alone. */
  #row(): Found | null {
    if (this.fact.box.width > this.wish.room) return null;
    const row = findRow(this.markup, this.element, this.wish.window);
    return row && at(row, 'row');
  }
}

function at(declaration: StyleDeclaration, reason: Reason): Found {
  return { ...stateBy(declaration), reason };
}

function hasText(element: MarkupElement): boolean {
  return element.text.trim() !== '';
}
