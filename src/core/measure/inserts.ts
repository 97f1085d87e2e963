import type { House } from '../house/house.js';

/** Whether code stands in the page's own source, where the parser reads it together with the page. */
export function isParsedInPage({ insert }: Pick<House, 'insert'>): boolean {
  return insert.includes('inline');
}

/** Whether visitors, and who reads the page to them, meet code as a part of the page: in a shadow root too. */
export function isReadWithPage({ insert }: Pick<House, 'insert'>): boolean {
  return insert.some((one) => one !== 'frame');
}

/** Whether code is part of the page itself, and not of a frame or a shadow root that keeps it apart. */
export function standsInPage({ insert }: Pick<House, 'insert'>): boolean {
  return insert.some(isPartOfPage);
}

/** The same of one way in which code is put in. */
export function isPartOfPage(insert: string): boolean {
  return insert === 'inline' || insert === 'late';
}
