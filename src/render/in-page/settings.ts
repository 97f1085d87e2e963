import { getBottom } from './shared.js';

/** Metas that set something for the whole page, by what they are known by. */
const METAS = ['refresh', 'viewport', 'robots', 'referrer'];
/** As much of a value tells it from others. */
const LONGEST = 1000;

/**
 * What is set for the whole page, as the browser has it: its title, base and canonical link, the metas, and the
 * attributes of html and body, such as `html lang`. What is not set is not there.
 */
export function readSettings(): Record<string, string> {
  const { page } = globalThis.mivketNotebook;
  const list = (selector: string) => [...page.querySelectorAll(selector)];
  const join = (nodes: readonly Element[], attribute: string) =>
    nodes.map((node) => node.getAttribute(attribute) ?? '').join('\n');
  const metas = METAS.map((name) => [
    name,
    join(list(`meta[name="${name}" i], meta[http-equiv="${name}" i]`), 'content'),
  ]);
  const settings = [
    ['title', page.title],
    // Of several the first with an address counts.
    ['base', list('base[href]')[0]?.getAttribute('href') ?? ''],
    ['base target', list('base[target]')[0]?.getAttribute('target') ?? ''],
    ['canonical', join(list('link[rel~="canonical" i]'), 'href')],
    ...metas,
    ['held', isHeld(page) ? 'yes' : ''],
    ...listAttributes('html', page.documentElement),
    ...listAttributes('body', page.body),
  ];
  const set = settings.filter(([, value]) => value !== '');
  return Object.fromEntries(set.map(([name, value]) => [name, value!.slice(0, LONGEST)]));
}

/** Less than this nobody would scroll, px. */
const LEAST = 8;

/** There is more of the page than the window shows, and its styles keep whoever visits it from scrolling there. */
function isHeld({ documentElement, body }: Document): boolean {
  if (getBottom() < innerHeight + LEAST) return false;
  const own = getComputedStyle(documentElement);
  const inner = body ? getComputedStyle(body) : own;
  // The body's counts for the window where the root has none of its own (CSS Overflow 3, 3.3).
  const { overflowY } = own.overflowY === 'visible' ? inner : own;
  return /^(hidden|clip)$/.test(overflowY) || inner.position === 'fixed';
}

/** A page may have no body. */
function listAttributes(name: string, root: Element | null): string[][] {
  return [...(root?.attributes ?? [])].map((one) => [`${name} ${one.name}`, one.value || ' ']);
}
