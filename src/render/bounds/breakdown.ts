/**
 * A browser, a page or the thread of the gates that is gone, or did not answer in time: what a render has to
 * reckon with. Anything else that is thrown is a fault of Mivket's own.
 */
export class Breakdown extends Error {
  override name = 'Breakdown';
}
