import { parse } from 'acorn';
import { getValue, type Markup, type MarkupElement } from './markup.js';

/** The text of a script or style element, without its tags, and where it starts. */
export function getCode(
  { text }: Pick<Markup, 'text'>,
  element: MarkupElement,
): { code: string; start: number } {
  const close = text.toLowerCase().lastIndexOf('</', element.endOffset);
  const start = element.tagEnd;
  return { code: text.slice(start, close >= start ? close : element.endOffset), start };
}

/** Whether a script's text can be read at all, as the kind of script that its element is. */
export function isReadable(code: string, element: MarkupElement): boolean {
  const module = /^module$/i.test(getValue(element, 'type')?.trim() ?? '');
  try {
    parse(code, { ecmaVersion: 'latest', sourceType: module ? 'module' : 'script' });
    return true;
  } catch {
    return false;
  }
}
