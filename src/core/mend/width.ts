import type { WidthBlame } from '../measure/blame-width.js';
import { findFixed, findRow } from '../measure/declared.js';
import { getBlamed, type Blame } from '../measure/blame.js';
import { getValue, listInside, type Markup, type MarkupElement } from '../markup/markup.js';
import { findDeclaration, type StyleDeclaration } from '../markup/styles.js';
import { FRAMES, isPlayer, REPLACED } from '../standards/elements.js';
import { describeElement } from '../markup/names.js';
import type { Intent } from './intent.js';

type Declarations = Record<string, string>;

/** Sets styles of the element that is to blame; null where it is not in the source. */
export function mendStyle(
  markup: Markup,
  blame: Pick<Blame, 'culprit'>,
  declarations: Readonly<Declarations>,
): Intent[] | null {
  const element = getBlamed(markup, blame);
  return element && [{ do: 'set-style', element: element.offset, declarations }];
}

/** A cure for what reaches too far; null where its form is not certain. */
export function mendWidth(markup: Markup, blame: WidthBlame): Intent[] | null {
  const element = getBlamed(markup, blame);
  if (!element || isInTable(element)) return null;
  if (blame.reason === 'text') return mendText(element, blame);
  if (blame.reason === 'row') return mendRow(markup, element, blame);
  if (blame.reason === 'content') return mendContent(element);
  return blame.reason === 'size' ? mendSize(markup, element, blame) : null;
}

/** A table makes its cells as wide as what is in them: to what a cell would shrink is not certain. */
function isInTable(element: MarkupElement): boolean {
  for (let at: MarkupElement | null = element; at; at = at.parent)
    if (/^(td|th|tr|tbody|thead|col|colgroup)$/.test(at.name)) return true;
  return false;
}

/**
 * It may shrink with its room, and so may what is around it, and in it, that is too wide by a width of its
 * own: one without the other cures nothing.
 */
function mendSize(markup: Markup, element: MarkupElement, blame: WidthBlame): Intent[] | null {
  const { room } = blame;
  const around = getOutermost(markup, element, room);
  // The shapes of a drawing shrink with it.
  const inside = around.name === 'svg' ? [] : listInside(around);
  const wide = [around, ...inside].filter((one) => one === element || isTooWide(markup, one, room));
  const cures = wide.map((one) => {
    const known = one === element ? blame.declaration : findOwn(markup, one);
    return isMoved(markup, one) ? null : shrinkOne(markup, one, known);
  });
  const row = findRow(markup, element);
  const beside = element.parent?.children.filter((one) => one !== element) ?? [];
  // Each of a row must fit for the row to fit.
  if (row && beside.some((one) => isTooWide(markup, one, room))) return null;
  if (cures.some((one) => one === null)) return null;
  return [...cures.flatMap((one) => one ?? []), ...(row ? wrapRow(row, element.parent!) : [])];
}

function getOutermost(markup: Markup, element: MarkupElement, room: number): MarkupElement {
  let outermost = element;
  for (let at = element.parent; at; at = at.parent) if (isTooWide(markup, at, room)) outermost = at;
  return outermost;
}

function findOwn(markup: Markup, element: MarkupElement): StyleDeclaration | null {
  return findDeclaration(markup, element, ['min-width', 'width', 'inline-size']);
}

function shrinkOne(
  markup: Markup,
  element: MarkupElement,
  declaration: StyleDeclaration | null,
): Intent[] | null {
  if (declaration) return shrink(markup, element, declaration);
  const declarations = shrinkByAttribute(element);
  return declarations && setStyle(element, declarations);
}

const KEEPS_RATIO = /^(img|video|canvas)$/;

function shrinkByAttribute(element: MarkupElement): Declarations | null {
  const { name } = element;
  if (FRAMES.has(name)) return shrinkFrame(element, null, null);
  const drawing = name === 'svg' && getValue(element, 'viewBox') !== null;
  // Without a view box a drawing does not shrink: it is cut.
  if (name === 'svg' && !drawing) return null;
  const height = KEEPS_RATIO.test(name) || drawing ? { height: 'auto' } : {};
  return { 'max-width': '100%', ...height, 'box-sizing': 'border-box' };
}

/** A player keeps its shape; another document its height, for its content has one. */
function shrinkFrame(
  element: MarkupElement,
  width: string | null,
  height: string | null,
): Declarations {
  const wide = width ?? toLength(getValue(element, 'width'));
  const high = height ?? toLength(getValue(element, 'height'));
  const ratio = isPlayer(describeElement(element)) ? getRatio(wide, high) : null;
  return {
    width: '100%',
    'max-width': wide ?? '100%',
    ...(ratio !== null && { height: 'auto', 'aspect-ratio': ratio }),
    'box-sizing': 'border-box',
  };
}

function toLength(attribute: string | null): string | null {
  const px = /^\s*([\d.]+)\s*(px)?\s*$/i.exec(attribute ?? '')?.[1];
  return px === undefined ? null : `${px}px`;
}

/** `16 / 9`; null where not both lengths are in px. */
function getRatio(width: string | null, height: string | null): string | null {
  const [wide, high] = [width, height].map((one) => /^([\d.]+)px$/i.exec(one ?? '')?.[1]);
  return wide !== undefined && high !== undefined && Number(high) > 0 ? `${wide} / ${high}` : null;
}

/** What stands in a sheet is mended there; what stands on the tag goes together with all else there. */
function shrink(
  markup: Markup,
  element: MarkupElement,
  declaration: StyleDeclaration,
): Intent[] | null {
  const { property, value, selector } = declaration;
  if (/^min-/.test(property)) {
    const own = REPLACED.has(element.name) ? mendContent(element) : [];
    return own && [...write(declaration, element, { [property]: '0' }), ...own];
  }
  if (!/^(width|inline-size)$/.test(property)) return null;
  const height = findDeclaration(markup, element, ['height']);
  const instead = getInstead(element, value, height?.value ?? null);
  if (!instead) return null;
  const { height: auto, ...rest } = instead;
  const own = write(declaration, element, property === 'width' ? rest : { ...rest, width: '100%' });
  if (auto === undefined) return own;
  if (height && height.selector !== selector) return null;
  return height
    ? [...own, ...write(height, element, { height: auto })]
    : [...own, ...setStyle(element, { height: auto })];
}

function getInstead(
  element: MarkupElement,
  width: string,
  height: string | null,
): Declarations | null {
  if (FRAMES.has(element.name)) return shrinkFrame(element, width, height);
  if (element.name === 'svg' && getValue(element, 'viewBox') === null) return null;
  const plain = { width: '100%', 'max-width': width, 'box-sizing': 'border-box' };
  if (!KEEPS_RATIO.test(element.name) && element.name !== 'svg') return plain;
  const ratio = getRatio(width, height);
  return { ...plain, height: 'auto', ...(ratio !== null && { 'aspect-ratio': ratio }) };
}

/** Puts declarations in the place of one. */
function write(
  declaration: StyleDeclaration,
  element: MarkupElement,
  instead: Declarations,
): Intent[] {
  if (declaration.selector === null) return setStyle(element, instead);
  const { offset, endOffset, important } = declaration;
  const mark = important ? ' !important' : '';
  const text = Object.entries(instead).map(([name, value]) => `${name}: ${value}${mark}`);
  return [{ do: 'replace-text', span: { offset, endOffset }, text: text.join('; ') }];
}

function setStyle(element: MarkupElement, declarations: Declarations | null): Intent[] {
  return declarations ? [{ do: 'set-style', element: element.offset, declarations }] : [];
}

/** Beside a margin or an offset the whole width is too much. */
function isMoved(markup: Markup, element: MarkupElement): boolean {
  const found = findDeclaration(
    markup,
    element,
    /^(margin(-(left|right|inline)(-(start|end))?)?|left|right|inset(-inline)?|transform|translate|zoom)$/,
  );
  const placed = findDeclaration(markup, element, ['position']);
  const moves = found !== null && /[1-9]/.test(found.value);
  return moves || /^(absolute|fixed)$/.test(placed?.value ?? '');
}

/** A width of its own that is more than the room. */
function isTooWide(markup: Markup, element: MarkupElement, room: number): boolean {
  return findFixed(markup, element, room) !== null;
}

/** Only where each of a row fits by itself. */
function mendRow(
  markup: Markup,
  { parent }: MarkupElement,
  { declaration, room, width }: WidthBlame,
): Intent[] | null {
  if (!declaration || !parent || width > room) return null;
  if (parent.children.some((one) => isTooWide(markup, one, room))) return null;
  return wrapRow(declaration, parent);
}

function wrapRow(declaration: StyleDeclaration, parent: MarkupElement): Intent[] {
  const { property, value } = declaration;
  if (property !== 'display') return write(declaration, parent, { 'flex-wrap': 'wrap' });
  return write(declaration, parent, { display: value, 'flex-wrap': 'wrap' });
}

/** Text breaks; lines that are meant to stay as they are get a scroller. */
function mendText(element: MarkupElement, { declaration }: WidthBlame): Intent[] | null {
  if (declaration) {
    const breaks = { 'white-space': 'normal', 'overflow-wrap': 'anywhere' };
    return declaration.property === 'white-space' && /^nowrap/.test(declaration.value)
      ? write(declaration, getHolder(element, declaration), breaks)
      : null;
  }
  if (element.name === 'pre') return setStyle(element, { 'overflow-x': 'auto' });
  if (element.parent && isInPre(element)) return null;
  return setStyle(element, { 'overflow-wrap': 'anywhere' });
}

/** The element, or one around it, whose tag has the declaration. */
function getHolder(element: MarkupElement, { offset }: StyleDeclaration): MarkupElement {
  for (let at: MarkupElement | null = element; at; at = at.parent)
    if (offset > at.offset && offset < at.tagEnd) return at;
  return element;
}

function isInPre(element: MarkupElement): boolean {
  for (let at = element.parent; at; at = at.parent) if (at.name === 'pre') return true;
  return false;
}

/** Fields, pictures and frames may always be narrower than they come; of all else it is not certain. */
function mendContent(element: MarkupElement): Intent[] | null {
  if (!REPLACED.has(element.name) || element.name === 'svg') return null;
  return setStyle(element, {
    'max-width': '100%',
    ...(KEEPS_RATIO.test(element.name) && { height: 'auto' }),
    'box-sizing': 'border-box',
  });
}
