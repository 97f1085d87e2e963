import { getControl } from '../../core/standards/elements.js';
import { describe } from './names.js';
import { nextFrame } from './shared.js';

const MOST = 40;
/** So many frames after a click something has been paused by it, or nothing will. */
const PATIENCE = 10;

/**
 * Clicks buttons, and films themselves, and keeps the browser from going anywhere. Resolves to the films that
 * run and are paused by a click.
 * @param films numbers of media elements
 * @param own numbers of the elements that may be clicked
 */
export async function clickToStop(
  films: readonly number[],
  own: readonly number[],
): Promise<number[]> {
  const { nodes } = globalThis.mivketNotebook;
  const running = films.filter((id) => isRunning(nodes.get(id)));
  const buttons = own.map((id) => nodes.get(id)).filter((one) => one !== undefined);
  const stopped = new Set<number>();
  const clicked = [...running.map((id) => nodes.get(id)!), ...buttons.filter(isButton)];
  for (const node of clicked.slice(0, MOST)) {
    const before = stopped.size;
    const unclick = click(node);
    for (let frame = 0; frame < PATIENCE && stopped.size === before; frame++) {
      await nextFrame();
      for (const id of running) if (!isRunning(nodes.get(id))) stopped.add(id);
    }
    unclick();
    if (stopped.size === running.length) break;
  }
  return [...stopped];
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
  (node as Partial<HTMLElement>).click?.();
  return () => {
    window.removeEventListener('submit', keep, true);
    window.removeEventListener('click', follow);
  };
}
