/** A snippet's markup that is put into a page that stands. */
export interface PutIn {
  slot: string;
  text: string;
  /** Into the slot, or into a shadow root of it. */
  how: 'late' | 'shadow';
  /** Its scripts are made again, in their order, so that they run. */
  scripts: boolean;
}

/**
 * Runs in the page's own world, as a site's own code does it: sets the markup as the slot's content
 * (HTML, 8.5.4 innerHTML: scripts put in so do not run). Calls nothing outside itself.
 * @returns what it was put into; null where there is no such slot
 */
export function putIn({ slot, text, how }: Omit<PutIn, 'scripts'>): Element | ShadowRoot | null {
  const place = document.querySelector(`[data-mivket-slot="${CSS.escape(slot)}"]`);
  if (!place) return null;
  const root = how === 'shadow' ? place.attachShadow({ mode: 'open' }) : place;
  root.innerHTML = text;
  return root;
}

/**
 * Runs there too, when that has been noted: makes the scripts of what was put in again. Calls nothing outside itself.
 * @param this what tells of events that they wait for in vain
 */
export function runPutIn(this: Element, root: Element | ShadowRoot): void {
  const made: unknown[] = [];
  // The page has loaded: what is waited for from now on does not come.
  const over = ['DOMContentLoaded', 'load', 'readystatechange'];
  const tell = (type: unknown, target: unknown) => {
    const isPage = target === window || target === document || target === undefined;
    if (!isPage || !over.includes(String(type))) return;
    const detail = `${String(type)} ${made.indexOf(document.currentScript)}`;
    this.dispatchEvent(new CustomEvent('wait', { detail }));
  };
  EventTarget.prototype.addEventListener = new Proxy(EventTarget.prototype.addEventListener, {
    apply(real, self: unknown, args: unknown[]) {
      tell(args[0], self);
      return Reflect.apply(real, self, args) as unknown;
    },
  });
  // Ours is there by now, and the snippet's code comes next.
  this.dispatchEvent(new Event('begin'));
  const { onload } = window;
  for (const old of root.querySelectorAll('script')) {
    const script = document.createElement('script');
    made.push(script);
    for (const { name, value } of old.attributes) script.setAttribute(name, value);
    // Those that are made wait for none before them, unless they are told to (HTML, 4.12.1).
    script.async = old.hasAttribute('async');
    script.text = old.text;
    old.replaceWith(script);
  }
  if (window.onload !== onload) tell('load', window);
}
