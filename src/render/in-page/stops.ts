import { getControl } from '../../core/standards/elements.js';
import { describe } from './names.js';
import { nextFrame } from './shared.js';

const MOST = 40;
/** So many frames after a click something has been paused by it, or nothing will. */
const PATIENCE = 10;

/** What clicks do to films, by their numbers: those that ran and are paused, and those that rested and are started. */
export interface ClickedFilms {
  stopped: number[];
  started: number[];
}

/**
 * Clicks buttons, and films themselves, and keeps the browser from going anywhere.
 * @param films numbers of media elements
 * @param own numbers of the elements that may be clicked
 */
export async function clickFilms(
  films: readonly number[],
  own: readonly number[],
): Promise<ClickedFilms> {
  const { nodes } = globalThis.mivketNotebook;
  const running = new Set(films.filter((id) => isRunning(nodes.get(id))));
  const buttons = own.map((id) => nodes.get(id)).filter((one) => one !== undefined);
  const changed = new Set<number>();
  const hasChanged = (id: number) =>
    running.has(id) ? !isRunning(nodes.get(id)) : isAsked(nodes.get(id));
  const clicked = [...films.map((id) => nodes.get(id)!), ...buttons.filter(isButton)];
  for (const node of clicked.slice(0, MOST)) {
    const before = changed.size;
    const unclick = click(node);
    for (let frame = 0; frame < PATIENCE && changed.size === before; frame++) {
      await nextFrame();
      for (const id of films) if (hasChanged(id)) changed.add(id);
    }
    unclick();
    if (changed.size === films.length) break;
  }
  return {
    stopped: [...changed].filter((id) => running.has(id)),
    started: [...changed].filter((id) => !running.has(id)),
  };
}

/** It runs, or code wants it to: with its sound on only a person's click starts it. */
function isAsked(node: Element | undefined): boolean {
  const { asking } = globalThis.mivketNotebook;
  return isRunning(node) || (node instanceof HTMLMediaElement && asking.has(node));
}

function isRunning(node: Element | undefined): boolean {
  return node instanceof HTMLMediaElement && node.isConnected && !node.paused && !node.ended;
}

/** What people click to do something on the page they are on. */
function isButton(node: Element): boolean {
  const bare = globalThis.mivketNotebook.own(node);
  const control = getControl(describe(bare));
  if (control?.kind === 'link')
    return /^\s*(#|$|javascript:)/i.test(bare.getAttribute('href') ?? '');
  const type = bare.getAttribute('type') ?? '';
  const toggles = bare.localName === 'input' && /^(checkbox|radio)$/i.test(type);
  return control?.kind === 'button' || toggles || bare.hasAttribute('onclick');
}

/** What a pointer that comes over something makes of itself. */
const OVER = ['pointerover', 'pointerenter', 'mouseover', 'mouseenter'];

/** @returns what lets the browser follow clicks again */
function click(node: Element): () => void {
  const keep = (event: Event) => event.preventDefault();
  window.addEventListener('submit', keep, true);
  // Last of all: a handler may still look whether another one has kept the browser from it.
  const follow = (event: Event) => {
    const link = event.target instanceof Element && event.target.closest('a, area');
    if (link) event.preventDefault();
  };
  window.addEventListener('click', follow);
  for (const name of OVER) node.dispatchEvent(new PointerEvent(name, { bubbles: true }));
  (node as Partial<HTMLElement>).click?.();
  return () => {
    window.removeEventListener('submit', keep, true);
    window.removeEventListener('click', follow);
  };
}
