import type { Notebook } from './observe.js';

/** How facts of certain elements are read. `node` has an element's own properties even where the page hides them. */
export interface ObjectReader<T> {
  /** Called once before the elements are gone through. */
  begin?(): void;
  fits(real: Element, node: Element): boolean;
  /** null for what need not be told. */
  read(real: Element, node: Element, book: Notebook): T;
}
