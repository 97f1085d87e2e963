import { htmlTagNames } from 'html-tag-names';
import { mathmlTagNames } from 'mathml-tag-names';
import { svgTagNames } from 'svg-tag-names';

/** Elements of HTML, those of earlier versions among them, and what newer ones have that the table lacks. */
export const HTML_ELEMENTS: readonly string[] = [
  ...htmlTagNames,
  ...'selectedcontent fencedframe portal permission geolocation'.split(' '),
];

const ELEMENTS = new Set(
  [...HTML_ELEMENTS, ...svgTagNames, ...mathmlTagNames].map((name) => name.toLowerCase()),
);

/** Whether an element is one of HTML, SVG or MathML, or may be one of the author's own: those have a hyphen. */
export function isElementName(name: string): boolean {
  return ELEMENTS.has(name.toLowerCase()) || /[-:.]/.test(name);
}
