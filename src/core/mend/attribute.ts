import type { Culprit } from '../check.js';
import type { Intent } from './intent.js';

/** Puts a boolean attribute on the element that is to blame; null where it is not in the source. */
export function addAttribute(culprit: Culprit, name: string): Intent[] | null {
  if (culprit.at !== 'element') return null;
  return [{ do: 'set-attribute', element: culprit.offset, name, value: null }];
}

/** Takes an attribute off the element that is to blame; null where it is not in the source. */
export function removeAttribute(culprit: Culprit, name: string): Intent[] | null {
  if (culprit.at !== 'element') return null;
  return [{ do: 'remove-attribute', element: culprit.offset, name }];
}
