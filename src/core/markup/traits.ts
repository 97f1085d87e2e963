import { FRAMES, MEDIA } from '../standards/elements.js';
import { getAttribute, getValue, type Markup, type MarkupElement } from './markup.js';

/** What a snippet can do, as far as its markup tells: decides how a render is gone about. */
export interface Traits {
  /** Code of its own: the document can change by itself. */
  changes: boolean;
  /** Code or foreign documents: more may be asked for after load. */
  live: boolean;
  /** Something may be otherwise after a while. */
  moves: boolean;
  /** A film or an animated picture may. */
  plays: boolean;
  /** What is seen may depend on having scrolled. */
  scrolls: boolean;
  media: boolean;
  /** It cannot tell a window that was made narrower from a fresh load at that width. */
  resizable: boolean;
  /** Its styles ask for a mouse, a kind of screen or scroll bars. */
  asksKind: boolean;
  /** Its code may wait for a mouse. */
  points: boolean;
  /** What it loads, and so its size, may depend on the window's width or density. */
  chooses: boolean;
  /** Offset of the first script (or of the element with the first handler); null where there is none. */
  script: number | null;
  /** Offsets of all of them. */
  scripts: number[];
}

/** Of what does nothing at all. */
export const STILL: Traits = {
  changes: false,
  live: false,
  moves: false,
  plays: false,
  scrolls: false,
  media: false,
  resizable: true,
  asksKind: false,
  points: false,
  chooses: false,
  script: null,
  scripts: [],
};

/** What the standard takes for JavaScript (WHATWG MIME Sniffing, 4.6). */
const SCRIPT_TYPES =
  /^(|module|(text|application)\/(x-)?(java|ecma)script|text\/(javascript1\.[0-5]|jscript|livescript))$/i;
/** What happens by itself, without code. */
const TIMED =
  /animation|transition|@import|<(animate|set\b|marquee)|<link\b|http-equiv\s*=\s*["']?refresh/i;
/** Pictures that may have several frames. */
const ANIMATED = /\.(gif|apng|webp)\b|data:image\/(gif|apng|webp)/i;
const SCROLL_CSS = /animation-timeline|view-timeline|scroll-timeline|scroll\(|view\(/i;

/** Styles that run in time, or that load by width or density: only a fresh load shows what they do. */
const TELLS_WIDTH =
  /animation|transition|@media[\s\S]*url\(|@container[\s\S]*url\(|image-set|@import|@font-face|prefers-/i;

/** What tells one kind of window from another at the same width. */
const ASKS_KIND =
  /\(\s*(any-)?(hover|pointer)\b|resolution|pixel-ratio|device-(width|height|aspect)|scrollbar|env\(/i;

const POINTS = /mouse|pointer/i;

/** Pictures of which there are several sizes. */
function choosesPicture(element: MarkupElement): boolean {
  const hasSets = ['srcset', 'sizes'].some((one) => getValue(element, one) !== null);
  return hasSets || element.name === 'picture';
}

/** Elements that load, or do not, by the width there is; a film starts by itself where it is in view. */
function choosesByWidth(element: MarkupElement): boolean {
  const { name } = element;
  return (
    /^(picture|link|meta|base|template)$/.test(name) ||
    (MEDIA.has(name) && getValue(element, 'autoplay') !== null) ||
    (name === 'source' && getValue(element, 'media') !== null) ||
    ['srcset', 'sizes', 'loading', 'autofocus', 'shadowrootmode'].some(
      (one) => getValue(element, one) !== null,
    )
  );
}

/** Reads a snippet's traits. */
export function getTraits(markup: Markup): Traits {
  const scripts = markup.elements.filter((element) => isScript(element) || hasHandler(element));
  const changes = scripts.length > 0 || markup.elements.some((element) => isOwnDocument(element));
  const live = changes || markup.elements.some(({ name }) => FRAMES.has(name));
  return {
    changes,
    live,
    moves: live || TIMED.test(markup.text),
    plays: markup.elements.some(({ name }) => MEDIA.has(name)) || ANIMATED.test(markup.text),
    scrolls:
      live ||
      SCROLL_CSS.test(markup.text) ||
      markup.elements.some((element) => getValue(element, 'loading') === 'lazy'),
    media: live || markup.elements.some(({ name }) => MEDIA.has(name)),
    resizable: !live && !TELLS_WIDTH.test(markup.text) && !markup.elements.some(choosesByWidth),
    asksKind: ASKS_KIND.test(markup.text),
    // What stands in a file of its own nobody has read yet.
    points: changes && (POINTS.test(markup.text) || scripts.some(isFile)),
    chooses: markup.elements.some(choosesPicture),
    script: scripts[0]?.offset ?? null,
    scripts: scripts.map(({ offset }) => offset),
  };
}

/** What several snippets on one page can do together. */
export function joinTraits(all: readonly Traits[]): Traits {
  const [only] = all;
  if (only && all.length === 1) return only;
  return {
    changes: all.some(({ changes }) => changes),
    live: all.some(({ live }) => live),
    moves: all.some(({ moves }) => moves),
    plays: all.some(({ plays }) => plays),
    scrolls: all.some(({ scrolls }) => scrolls),
    media: all.some(({ media }) => media),
    resizable: all.every(({ resizable }) => resizable),
    asksKind: all.some(({ asksKind }) => asksKind),
    points: all.some(({ points }) => points),
    chooses: all.some(({ chooses }) => chooses),
    // Offsets are each snippet's own.
    script: null,
    scripts: [],
  };
}

/** Whether an element is a script that runs: not a block of data. */
export function isScript(element: MarkupElement): boolean {
  return element.name === 'script' && SCRIPT_TYPES.test((getValue(element, 'type') ?? '').trim());
}

function isFile(element: MarkupElement): boolean {
  return getValue(element, 'src') !== null;
}

/** A frame with no document has no code. */
const BLANK = /^(about:blank)?$/i;

/** A frame whose document is of the page's own origin can reach into the page. */
function isOwnDocument(element: MarkupElement): boolean {
  const src = getValue(element, 'src')?.trim() ?? '';
  return (
    getValue(element, 'srcdoc') !== null ||
    getValue(element, 'shadowrootmode') !== null ||
    (element.name === 'iframe' && !BLANK.test(src) && !/^(https?:)?\/\//i.test(src))
  );
}

/** Whether a script runs when the page need not wait for it. */
export function runsBeside(element: MarkupElement): boolean {
  return (
    isModule(element) || ['async', 'defer'].some((name) => getAttribute(element, name) !== null)
  );
}

export function isModule(element: MarkupElement): boolean {
  return getValue(element, 'type')?.trim().toLowerCase() === 'module';
}

export function hasHandler(element: MarkupElement): boolean {
  return element.attributes.some(
    ({ name, value }) =>
      /^on[a-z]+$/.test(name) ||
      (/^(href|src|action)$/.test(name) && /^\s*javascript:/i.test(value)),
  );
}
