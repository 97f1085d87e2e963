import type { Culprit } from '../check.js';
import type { AskedFor, Intent } from './intent.js';

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

/** Asks a person for the value of an attribute; null where the element is not in the source. */
export function askFor(
  culprit: Culprit,
  attribute: string,
  question: string,
  more: Partial<Pick<AskedFor, 'takes' | 'decoration'>> = {},
): Intent[] | null {
  // A part that has a text of its own is no tag of the source.
  if (culprit.at !== 'element' || culprit.part === 'srcdoc') return null;
  const asked = { question, takes: 'text', attribute, decoration: null, ...more } as const;
  return [{ do: 'ask', element: culprit.offset, ...asked }];
}

/** What is asked of a link or a button that has no name. */
export function askOfControl(control: string): string {
  return `Where does the ${control} lead, or what does it do?`;
}
