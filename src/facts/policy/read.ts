/** A refusal of the page's policy, with where it was. */
export interface RawRefusal {
  directive: string;
  blocked: string;
  /** In the page's source, from 1; 0 where it is not known. */
  line: number;
  column: number;
  /** The number of its element; null where none is known. */
  id: number | null;
}

/** All refusals so far. */
export function readPolicy(): RawRefusal[] {
  const { refusals, idOf } = globalThis.mivketNotebook;
  return refusals.map(({ node, ...refusal }) => ({ ...refusal, id: node && idOf(node) }));
}
