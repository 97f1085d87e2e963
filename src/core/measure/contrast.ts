import type { TextFact } from '../evidence.js';

/** Letters of this size, or bold ones of that, are large (WCAG 2.2, large scale: 18 and 14 pt), px. */
const LARGE = 24;
const LARGE_BOLD = 18.66;

/** The contrast that a text needs (WCAG 2.2, 1.4.3). */
export function getLeastContrast({ size, bold }: Pick<TextFact, 'size' | 'bold'>): number {
  return size >= LARGE || (bold && size >= LARGE_BOLD) ? 3 : 4.5;
}

/** `#rrggbb`. @param parts red, green and blue, from 0 to 255 */
export function formatColour(parts: readonly number[]): string {
  return `#${parts.map((part) => Math.round(part).toString(16).padStart(2, '0')).join('')}`;
}

/** The contrast ratio of two colours `#rrggbb`, from 1 to 21 (WCAG 2.2, contrast ratio). */
export function getContrast(a: string, b: string): number {
  const [lighter, darker] = [getLuminance(a), getLuminance(b)].sort((x, y) => y - x);
  return (lighter! + 0.05) / (darker! + 0.05);
}

/** Relative luminance, from 0 to 1 (WCAG 2.2, relative luminance; sRGB as IEC 61966-2-1 has it). */
function getLuminance(colour: string): number {
  const [r, g, b] = [1, 3, 5].map((at) => toLinear(parseInt(colour.slice(at, at + 2), 16)));
  return addLight(r!, g!, b!);
}

/** How much light a value of a colour's part stands for, from 0 to 1. @param value from 0 to 255 */
export function toLinear(value: number): number {
  const part = value / 255;
  return part <= 0.04045 ? part / 12.92 : ((part + 0.055) / 1.055) ** 2.4;
}

/** Relative luminance of the light of a colour's parts. */
export function addLight(r: number, g: number, b: number): number {
  return 0.2126 * r + 0.7152 * g + 0.0722 * b;
}
