import { formatColour } from '../../core/measure/contrast.js';
import type { TextFact } from '../../facts/texts/fact.js';
import { listParents, round } from './shared.js';

/** Red, green and blue from 0 to 255, and alpha from 0 to 1. */
type Colour = [number, number, number, number];

const WHITE: Colour = [255, 255, 255, 1];
const CLEAR: Colour = [0, 0, 0, 0];
/** What is fainter is not there to be read. */
const FAINT = 0.05;

let known = new Map<string, Colour | null>();

/** Forgets what belongs to a page that was read before. */
export function beginColours(): void {
  known = new Map();
}

/** How a text is painted on what is behind it, as far as that is plain colour. @param slot the element around the snippet @param style of its letters */
export function readPaint(
  real: Element,
  slot: Element | null,
  style = getComputedStyle(real),
): Pick<TextFact, 'colour' | 'ground' | 'given'> {
  const drawn = real instanceof SVGElement;
  const own = parse(drawn ? style.fill : getTextColour(style));
  let text = own;
  let [ground, plain, given]: [Colour, boolean, boolean] = [
    CLEAR,
    style.textShadow === 'none' && !drawn,
    false,
  ];
  if (!text || paintsLetters(style)) return { colour: null, ground: null, given };
  // What is drawn behind such letters may well stand for them.
  const faint = text[3] < FAINT;
  for (const node of listParents(real)) {
    const around = getComputedStyle(node);
    const back = parse(around.backgroundColor) ?? CLEAR;
    given ||= !isOutside(node, slot) && (back[3] > 0 || around.opacity !== '1');
    if (!isPlain(around, ground)) plain = false;
    text = fade(lay(text, back), around);
    ground = fade(lay(ground, back), around);
  }
  plain &&= !isOver(real);
  if (faint && !plain) return { colour: null, ground: null, given };
  const canvas = getCanvas();
  const isHouse =
    slot !== null && parse(getTextColour(getComputedStyle(slot)))?.join() === own?.join();
  return {
    colour: formatColour(lay(text, canvas).slice(0, 3)),
    ground: plain ? formatColour(lay(ground, canvas).slice(0, 3)) : null,
    given: given || !isHouse,
  };
}

/** The same of a shape in a drawing, whatever it is painted with; null where it is not plain. */
export function readPaintOf(
  real: Element,
  paint: string,
): { colour: string; ground: string } | null {
  let shape = parse(paint);
  let ground: Colour = CLEAR;
  if (!shape || isOver(real)) return null;
  for (const node of listParents(real)) {
    const around = getComputedStyle(node);
    // In a drawing nothing has a ground of its own.
    const back = isPart(node) ? CLEAR : (parse(around.backgroundColor) ?? CLEAR);
    if (!isPlain(around, ground)) return null;
    shape = fade(lay(shape, back), around);
    ground = fade(lay(ground, back), around);
  }
  const canvas = getCanvas();
  const format = (one: Colour) => formatColour(lay(one, canvas).slice(0, 3));
  return { colour: format(shape), ground: format(ground) };
}

function isPart(node: Element): boolean {
  return node instanceof SVGElement && node.ownerSVGElement !== null;
}

/** Neither a picture nor an effect changes what shows through. */
function isPlain(around: CSSStyleDeclaration, ground: Colour): boolean {
  const isOpaque = ground[3] >= 1;
  const isAltered = around.filter !== 'none' || around.mixBlendMode !== 'normal';
  return (isOpaque || !hasPicture(around)) && !isAltered;
}

function fade([r, g, b, a]: Colour, { opacity }: CSSStyleDeclaration): Colour {
  return [r, g, b, a * Number(opacity)];
}

function getTextColour(style: CSSStyleDeclaration): string {
  return style.getPropertyValue('-webkit-text-fill-color') || style.color;
}

/** Its letters show a picture, or are drawn by their outlines. */
function paintsLetters(style: CSSStyleDeclaration): boolean {
  const stroke = parseFloat(style.getPropertyValue('-webkit-text-stroke-width'));
  return style.backgroundClip.includes('text') || stroke > 0;
}

function hasPicture({ backgroundImage, maskImage }: CSSStyleDeclaration): boolean {
  return backgroundImage !== 'none' || (maskImage !== '' && maskImage !== 'none');
}

function isOutside(node: Element, slot: Element | null): boolean {
  return slot !== null && (node === slot || node.contains(slot));
}

/** Whether something that is not around it can lie behind it: it is taken out of the flow, or moved over something. */
function isOver(real: Element): boolean {
  for (const node of listParents(real)) {
    const { position, marginTop, gridRowStart, gridColumnStart } = getComputedStyle(node);
    const moved = /absolute|fixed|sticky/.test(position) || parseFloat(marginTop) < 0;
    if (moved || (gridRowStart !== 'auto' && gridColumnStart !== 'auto')) return true;
    if (position === 'relative' && getComputedStyle(node).zIndex !== 'auto') return true;
  }
  return false;
}

/** What the window has behind everything: with a dark scheme it is dark. */
function getCanvas(): Colour {
  const { documentElement } = globalThis.mivketNotebook.page;
  const { colorScheme } = getComputedStyle(documentElement);
  const dark = /\bdark\b/.test(colorScheme) && matchMedia('(prefers-color-scheme: dark)').matches;
  const only = /\bdark\b/.test(colorScheme) && !/\blight\b/.test(colorScheme);
  return dark || only ? [18, 18, 18, 1] : WHITE;
}

/** One colour over another (Compositing and Blending 1, 5.1). */
function lay(over: Colour, under: Colour): Colour {
  const alpha = over[3] + under[3] * (1 - over[3]);
  if (alpha === 0) return CLEAR;
  const mix = (i: 0 | 1 | 2) => (over[i] * over[3] + under[i] * under[3] * (1 - over[3])) / alpha;
  return [mix(0), mix(1), mix(2), alpha];
}

/** A computed colour. What is not of the usual form is left to the browser to draw. */
function parse(text: string): Colour | null {
  const found = known.get(text);
  if (found !== undefined) return found;
  const match = /^rgba?\(([\d.]+), ([\d.]+), ([\d.]+)(?:, ([\d.]+))?\)$/.exec(text);
  const colour: Colour | null = match
    ? [Number(match[1]), Number(match[2]), Number(match[3]), Number(match[4] ?? 1)]
    : draw(text);
  known.set(text, colour);
  return colour;
}

function draw(text: string): Colour | null {
  const context = new OffscreenCanvas(1, 1).getContext('2d');
  if (!context || !CSS.supports('color', text)) return null;
  context.fillStyle = text;
  context.fillRect(0, 0, 1, 1);
  const [r = 0, g = 0, b = 0, a = 0] = context.getImageData(0, 0, 1, 1).data;
  return [r, g, b, round(a / 255)];
}
