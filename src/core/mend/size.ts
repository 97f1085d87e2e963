import type { Size } from '../evidence.js';
import { getValue, type MarkupElement } from '../markup/markup.js';
import type { Intent } from './intent.js';

/**
 * Says how large a picture or a film is before its file comes, and leaves it as it looks.
 * @param size of its file, px
 */
export function stateSize(element: MarkupElement, size: Size): Intent[] {
  const set = { do: 'set-attribute', element: element.offset } as const;
  const width = /^\d+$/.exec((getValue(element, 'width') ?? '').trim())?.[0];
  const height = Math.round((Number(width ?? size.width) * size.height) / size.width);
  return [
    ...(width ? [] : [{ ...set, name: 'width', value: String(size.width) }]),
    { ...set, name: 'height', value: String(height) },
    { do: 'set-style', element: element.offset, declarations: { height: 'auto' } },
  ];
}
