import { getBlamed, type Blame } from '../measure/blame.js';
import { getValue, type Markup, type MarkupElement } from '../markup/markup.js';
import { findDeclaration, type StyleDeclaration } from '../markup/styles.js';
import { FRAMES, mayPlay } from '../standards/elements.js';
import { describeElement } from '../markup/names.js';
import type { Stated } from '../trial/stated.js';
import type { Intent } from './intent.js';

type Declarations = Record<string, string>;

/** Sets styles of the element that is to blame; null where it is not in the source. */
export function mendStyle(
  markup: Markup,
  blame: Pick<Blame, 'culprit'>,
  declarations: Readonly<Declarations>,
): Intent[] | null {
  const element = getBlamed(markup, blame);
  return element && writeOnTag(element, declarations);
}

/** A width that is stated, and how wide its element comes out with all that is put to it, px; null where that is not known. */
export interface WidthStated extends Stated {
  outer: number | null;
}

/** Ways to let an element shrink with its room, the plainest first; none where what is stated is no width. */
export function shrinkStated(
  markup: Markup,
  element: MarkupElement | null,
  stated: WidthStated,
): Intent[][] {
  const { property, declaration, attribute } = stated;
  if (attribute !== null)
    return property === 'width' && element ? shrinkByAttribute(element, stated.outer) : [];
  if (!declaration || !/^(width|inline-size)$/.test(property)) return [];
  return listShrinking(declaration.value, stated.outer).map((width) =>
    shrinkDeclared(markup, element, declaration, width),
  );
}

/** With what is put to its width, such as padding, inside of it or not. */
function listShrinking(width: string, outer: number | null): Declarations[] {
  const inside = { 'box-sizing': 'border-box' };
  const whole = outer !== null && /px$/.test(width) ? `${outer}px` : width;
  return [
    { width: '100%', 'max-width': width },
    { width: '100%', 'max-width': width, ...inside },
    ...(whole === width ? [] : [{ width: '100%', 'max-width': whole, ...inside }]),
  ];
}

function shrinkDeclared(
  markup: Markup,
  element: MarkupElement | null,
  declaration: StyleDeclaration,
  shrinking: Declarations,
): Intent[] {
  const keeps = element && keepShape(markup, element, declaration.value);
  const { property } = declaration;
  const own = property === 'width' ? shrinking : { ...shrinking, [property]: '100%' };
  if (!keeps) return writeStated(declaration, element, own);
  const { height: auto, ...ratio } = keeps;
  const wide = writeStated(declaration, element, { ...own, ...ratio });
  const height = findDeclaration(markup, element, ['height']);
  return [
    ...wide,
    ...(height
      ? writeStated(height, element, { height: auto })
      : writeOnTag(element, { height: auto })),
  ];
}

const KEEPS_RATIO = /^(img|video|canvas|svg)$/;

/** A picture and a player keep their shape; another document its height, for its content has one. */
function keepShape(
  markup: Markup,
  element: MarkupElement,
  width: string | null,
): { height: string; 'aspect-ratio'?: string } | null {
  const player = FRAMES.has(element.name) && mayPlay(describeElement(element));
  if (!player && !KEEPS_RATIO.test(element.name)) return null;
  const height = findDeclaration(markup, element, ['height'])?.value ?? null;
  const wide = width ?? toLength(getValue(element, 'width'));
  const ratio = getRatio(wide, height ?? toLength(getValue(element, 'height')));
  if (player && ratio === null) return null;
  return { height: 'auto', ...(ratio !== null && { 'aspect-ratio': ratio }) };
}

function shrinkByAttribute(element: MarkupElement, outer: number | null): Intent[][] {
  const shape = shapeByAttribute(element);
  const written = toLength(getValue(element, 'width'));
  if (!FRAMES.has(element.name))
    return [
      writeOnTag(element, { 'max-width': '100%', ...shape }),
      writeOnTag(element, { 'max-width': '100%', ...shape, 'box-sizing': 'border-box' }),
    ];
  return listShrinking(written ?? '100%', outer).map((width) =>
    writeOnTag(element, { ...width, ...shape }),
  );
}

function shapeByAttribute(element: MarkupElement): Declarations {
  const ratio = getRatio(
    ...(['width', 'height'].map((name) => toLength(getValue(element, name))) as [
      string | null,
      string | null,
    ]),
  );
  if (FRAMES.has(element.name))
    return ratio !== null && mayPlay(describeElement(element))
      ? { height: 'auto', 'aspect-ratio': ratio }
      : {};
  if (!KEEPS_RATIO.test(element.name)) return {};
  return { height: 'auto', ...(ratio !== null && { 'aspect-ratio': ratio }) };
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

/** Puts declarations in the place of one: in its sheet, or on the tag. */
export function writeStated(
  declaration: StyleDeclaration,
  element: MarkupElement | null,
  instead: Readonly<Declarations>,
): Intent[] {
  if (declaration.selector === null) return element ? writeOnTag(element, instead) : [];
  const { offset, endOffset, important } = declaration;
  const mark = important ? ' !important' : '';
  const text = Object.entries(instead).map(([name, value]) => `${name}: ${value}${mark}`);
  return [{ do: 'replace-text', span: { offset, endOffset }, text: text.join('; ') }];
}

export function writeOnTag(element: MarkupElement, declarations: Readonly<Declarations>): Intent[] {
  return [{ do: 'set-style', element: element.offset, declarations }];
}

/** Whether a sheet insists on it: what is written on the tag does nothing then. */
export function outdoesTag(declaration: StyleDeclaration | null): boolean {
  return declaration !== null && declaration.important && declaration.selector !== null;
}
