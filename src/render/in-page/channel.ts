/**
 * How code of ours in the page's own world tells that in the isolated one what it sees: by events on a node that is in
 * no document. The page has no way to it, so that it can neither hear nor send them.
 */

/** With it the node is handed over, before any code of the page runs. */
const HANDED = 'handed';

export type Signal = 'play' | 'write' | 'timer-set' | 'timer-over';

/** In the page's own world. @returns what tells of an element */
export function makeChannel(): (name: Signal, element?: HTMLElement) => void {
  const node = document.createElement('i');
  const { apply } = Reflect;
  const { dispatchEvent } = EventTarget.prototype;
  const Carrier = SubmitEvent;
  document.dispatchEvent(new MouseEvent(HANDED, { relatedTarget: node }));
  // It carries an element as it is, in whatever tree it stands. Nothing is looked up where the page could have put something.
  const carry = (submitter: HTMLElement | null = null) =>
    ({ __proto__: null, submitter }) as SubmitEventInit;
  return (name, element) => {
    apply(dispatchEvent, node, [new Carrier(name, carry(element))]);
  };
}

/** In the isolated world, before that. @param on is called with the node, when it has come */
export function whenHanded(on: (node: Element) => void): void {
  const take = (event: Event) => {
    const { relatedTarget } = event as MouseEvent;
    if (relatedTarget instanceof Element) on(relatedTarget);
  };
  document.addEventListener(HANDED, take, { capture: true, once: true });
}
