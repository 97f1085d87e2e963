import { getValue, type Markup, type MarkupElement } from './markup.js';

/** What a snippet can do, as far as its markup tells: decides how a render is gone about. */
export interface Traits {
  /** Code or foreign documents: the page can change by itself. */
  live: boolean;
  /** What is seen may depend on having scrolled. */
  scrolls: boolean;
  media: boolean;
  /** Offset of the first script (or of the element with the first handler); null where there is none. */
  script: number | null;
}

const SCRIPT_TYPES = /^(|module|(text|application)\/(x-)?(java|ecma)script)$/i;
const FRAMES = new Set(['iframe', 'embed', 'object', 'portal']);
const SCROLL_CSS = /animation-timeline|view-timeline|scroll-timeline|scroll\(|view\(/i;

/** Reads a snippet's traits. */
export function getTraits(markup: Markup): Traits {
  const scripts = markup.elements.filter((element) => isScript(element) || hasHandler(element));
  const live = scripts.length > 0 || markup.elements.some(({ name }) => FRAMES.has(name) || name.includes('-'));
  return {
    live,
    scrolls: live || SCROLL_CSS.test(markup.text) || markup.elements.some((element) => getValue(element, 'loading') === 'lazy'),
    media: live || markup.elements.some(({ name }) => name === 'video' || name === 'audio'),
    script: scripts[0]?.offset ?? null,
  };
}

/** Whether an element is a script that runs: not a block of data. */
export function isScript(element: MarkupElement): boolean {
  return element.name === 'script' && SCRIPT_TYPES.test((getValue(element, 'type') ?? '').trim());
}

function hasHandler(element: MarkupElement): boolean {
  return element.attributes.some(
    ({ name, value }) => /^on[a-z]+$/.test(name) || (/^(href|src|action)$/.test(name) && /^\s*javascript:/i.test(value)),
  );
}
