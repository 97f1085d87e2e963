import { getBlamed, type Blame } from '../measure/blame.js';
import type { Markup } from '../markup/markup.js';
import type { Intent } from './intent.js';

/** Sets styles of the element that is to blame; null where it is not in the source. */
export function mendStyle(
  markup: Markup,
  blame: Pick<Blame, 'culprit'>,
  declarations: Readonly<Record<string, string>>,
): Intent[] | null {
  const element = getBlamed(markup, blame);
  return element && [{ do: 'set-style', element: element.offset, declarations }];
}

/** A cure for a width that is too large: it may shrink with its room. */
export function mendWidth(markup: Markup, blame: Blame): Intent[] | null {
  const { declaration } = blame;
  if (!declaration) {
    const element = getBlamed(markup, blame);
    const keepsRatio = element !== null && /^(img|video|canvas)$/.test(element.name);
    return mendStyle(markup, blame, {
      'max-width': '100%',
      ...(keepsRatio && { height: 'auto' }),
      'box-sizing': 'border-box',
    });
  }
  const instead = getInstead(declaration.property, declaration.value);
  if (!instead) return null;
  // What stands in a sheet is mended there; what stands on the tag goes together with all else there.
  if (declaration.selector === null) return mendStyle(markup, blame, instead);
  const text = Object.entries(instead).map(([name, value]) => `${name}: ${value}`);
  const span = { offset: declaration.offset, endOffset: declaration.endOffset };
  return [{ do: 'replace-text', span, text: text.join('; ') }];
}

/** What is to stand in a declaration's place; null where nothing certain is. */
function getInstead(property: string, value: string): Record<string, string> | null {
  if (/^(width|inline-size)$/.test(property))
    return { [property]: '100%', 'max-width': value, 'box-sizing': 'border-box' };
  if (/^min-/.test(property)) return { [property]: '0' };
  if (property === 'white-space') return { 'white-space': 'normal', 'overflow-wrap': 'anywhere' };
  return null;
}
