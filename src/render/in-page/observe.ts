import { SLOT_ATTRIBUTE } from '../../core/host/slot-attribute.js';
import { BEGIN } from './channel.js';
import type { Early } from './early.js';
import { listen, type RefusedPart } from './listen.js';
import { MOST, sign } from './noted.js';
import { bare, own } from './own.js';

/** What the isolated world keeps between its start and the reading of the page. */
export interface Notebook {
  /** Elements in the order they were put into the document, with a signature of their markup. */
  order: { node: Element; parent: Node; signature: string }[];
  /** What was put in late, by its slot: the elements in the order of the tree. */
  late: Map<string, Notebook['order']>;
  /** More was put in than is followed. */
  full: boolean;
  ids: WeakMap<Element, number>;
  nodes: Map<number, Element>;
  /** Closed shadow roots, by host; filled in from outside. */
  closedRoots: WeakMap<Element, ShadowRoot>;
  /** What code in the page's own world tells by; null in frames. @see ./channel.ts */
  channel: Element | null;
  /** A slot stands: a snippet may come from now on. */
  begun: boolean;
  /** Media that a play event was seen of. */
  played: WeakSet<HTMLMediaElement>;
  /** Changes of the document so far: tells whether it is at rest. */
  changes: number;
  lastChange: number;
  /** Where things were when the page had loaded; null where nothing could change since. */
  early: Early | null;
  /** Timers of the page's code that will go off within seconds. */
  timers: number;
  /** Media that a script called play() on while they had sound; addresses of those not in the document. */
  asking: WeakSet<HTMLMediaElement>;
  sounds: string[];
  /** How often it was about to be printed. */
  prints: number;
  writers: string[];
  /** Events that scripts put in late wait for in vain, with the script's place among them. */
  waits: { event: string; script: number }[];
  /** When something of the page was otherwise for a moment, to be tried, in the page's time, ms. */
  tried: { from: number; until: number }[];
  /** Jumps of the layout that no action of a visitor's explains, with when (ms) and what was moved from where to where (tops, px). */
  jumps: { at: number; score: number; moved: { node: Element; from: number; to: number }[] }[];
  /** Its own time was moved on. */
  aged: boolean;
  /** What frames posted of their height, px, by their windows. */
  posts: Map<unknown, number[]>;
  /** What the page's policy refused. */
  refusals: RefusedPart[];
  /** Nothing is asked that a browser is known to break down on. */
  careful: boolean;
  /** Features that were asked for and are not allowed here. */
  features: Set<string>;
  /** The document, and an element, as the standards have them: names of fields and pictures do not hide their own properties. */
  page: Document;
  own<T extends Element>(node: T): T;
  idOf(node: Element): number;
  /** The element whose box something is in, across shadow roots. */
  parentOf(node: Element): Element | null;
  childrenOf(node: Element): Element[];
  takeRecords(): void;
}

declare global {
  var mivketNotebook: Notebook;
}

/**
 * Runs in an isolated world from the start of the document, before any of its scripts; the page
 * cannot see it. Elements that the parser makes are put in one by one, so each has a record of its
 * own; of a piece that a script puts in, only the root has.
 */
export function observe(): void {
  const notebook = makeNotebook(() => note(notebook, observer.takeRecords()));
  const observer = new MutationObserver((records) => note(notebook, records));
  observer.observe(document, { childList: true, subtree: true });
  listen(notebook);
  globalThis.mivketNotebook = notebook;
}

/** A notebook of another document, which is read but not watched. */
export function makeBookOf(other: Document, idOf: Notebook['idOf']): Notebook {
  return { ...makeNotebook(() => undefined), page: bare(other), idOf };
}

function makeNotebook(takeRecords: () => void): Notebook {
  const ids = new WeakMap<Element, number>();
  const nodes = new Map<number, Element>();
  const closedRoots = new WeakMap<Element, ShadowRoot>();
  return {
    order: [],
    late: new Map(),
    full: false,
    ids,
    nodes,
    closedRoots,
    channel: null,
    begun: false,
    played: new WeakSet(),
    changes: 0,
    lastChange: performance.now(),
    early: null,
    timers: 0,
    asking: new WeakSet(),
    sounds: [],
    prints: 0,
    writers: [],
    waits: [],
    tried: [],
    jumps: [],
    aged: false,
    posts: new Map(),
    careful: false,
    refusals: [],
    features: new Set(),
    page: bare(document),
    own,
    idOf(node) {
      let id = ids.get(node);
      if (id === undefined) {
        id = nodes.size + 1;
        ids.set(node, id);
        nodes.set(id, node);
      }
      return id;
    },
    parentOf(node) {
      const root = own(node).parentNode;
      return own(node).parentElement ?? (root instanceof ShadowRoot ? root.host : null);
    },
    childrenOf(node) {
      const root = own(node).shadowRoot ?? closedRoots.get(node);
      const { children } = own(node);
      return root ? [...root.children, ...children] : [...children];
    },
    takeRecords,
  };
}

/** The first slot stands: what comes now is a snippet's. */
function begin(notebook: Notebook): void {
  notebook.begun = true;
  notebook.channel?.dispatchEvent(new Event(BEGIN));
}

function note(notebook: Notebook, records: readonly MutationRecord[]): void {
  if (records.length === 0) return;
  notebook.changes += records.length;
  notebook.lastChange = performance.now();
  for (const record of records) {
    for (const node of record.addedNodes) {
      if (!(node instanceof Element) || notebook.ids.has(node)) continue;
      notebook.idOf(node);
      if (!notebook.begun && node.hasAttribute(SLOT_ATTRIBUTE)) begin(notebook);
      if (notebook.order.length < MOST)
        notebook.order.push({ node, parent: record.target, signature: sign(node) });
      else notebook.full = true;
    }
  }
}
