/**
 * How code of ours in the page's own world tells that in the isolated one what it sees: by events on a node that is in
 * no document. The page has no way to it, so that it can neither hear nor send them.
 */

/** With it the node is handed over, before any code of the page runs. */
const HANDED = 'handed';

export type Signal = 'play' | 'write' | 'timer-set' | 'timer-over';
/** A snippet is about to come. */
export const BEGIN = 'begin';
/** What can be asked for in the page's own world. */
export type ChannelQuestion = 'globals';

/** What code of ours in the page's own world tells by, and is told and asked. */
export interface Channel {
  tell(name: Signal, element?: HTMLElement): void;
  on(name: typeof BEGIN, listener: () => void): void;
  /** @param give the answer, in words */
  answer(name: ChannelQuestion, give: () => string): void;
}

/** In the page's own world, before its code. */
export function makeChannel(): Channel {
  const node = document.createElement('i');
  const { apply } = Reflect;
  const { dispatchEvent } = EventTarget.prototype;
  const [Carrier, Answer] = [SubmitEvent, CustomEvent];
  document.dispatchEvent(new MouseEvent(HANDED, { relatedTarget: node }));
  // It carries an element as it is, in whatever tree it stands. Nothing is looked up where the page could have put something.
  const carry = (submitter: HTMLElement | null = null) =>
    ({ __proto__: null, submitter }) as SubmitEventInit;
  const send = (event: Event) => apply(dispatchEvent, node, [event]);
  return {
    tell: (name, element) => send(new Carrier(name, carry(element))),
    on: (name, listener) => node.addEventListener(name, listener),
    answer(name, give) {
      node.addEventListener(name, () => {
        const detail = give();
        send(new Answer(toAnswer(name), { __proto__: null, detail } as CustomEventInit));
      });
    },
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

/** In the isolated world; '' where nobody answers. */
export function ask(node: Element | null, name: ChannelQuestion): string {
  let answer = '';
  const take = (event: Event) => (answer = String((event as CustomEvent).detail ?? ''));
  node?.addEventListener(toAnswer(name), take, { once: true });
  node?.dispatchEvent(new Event(name));
  return answer;
}

function toAnswer(name: ChannelQuestion): string {
  return `${name}-answer`;
}
