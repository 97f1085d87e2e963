/** What the isolated world keeps between its start and the reading of the page. */
export interface Notebook {
  /** Elements in the order they were put into the document, with a signature of their markup. */
  order: { node: Element; parent: Node; signature: string }[];
  /** More was put in than is followed. */
  full: boolean;
  ids: WeakMap<Element, number>;
  nodes: Map<number, Element>;
  /** Closed shadow roots, by host; filled in from outside. */
  closedRoots: WeakMap<Element, ShadowRoot>;
  media: WeakMap<HTMLMediaElement, { started: boolean }>;
  /** Changes of the document so far: tells whether it is at rest. */
  changes: number;
  lastChange: number;
  /** Timers of the page's code that will go off within seconds, and those that will later. */
  timers: number;
  later: number;
  /** Media that a script called play() on while they had sound; addresses of those not in the document. */
  asking: WeakSet<HTMLMediaElement>;
  sounds: string[];
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
  // A form gives its fields by their names, before its own properties; so does a document (HTML, 4.10.3).
  const bare = <T extends object>(real: T): T =>
    new Proxy(real, {
      get: (target, key) => {
        const value: unknown = Reflect.get(Object.getPrototypeOf(target) as object, key, target);
        return typeof value === 'function' ? (value.bind(target) as unknown) : value;
      },
    });
  const own = <T extends Element>(node: T): T =>
    node instanceof HTMLFormElement ? bare<T>(node) : node;
  const page = bare(document);
  const keptOf = (value: string) => (value.length > 60 ? value.slice(0, 60) : value);
  const sign = (node: Element) =>
    own(node).localName +
    Array.from(own(node).attributes, (a) => `|${a.name}=${keptOf(a.value)}`).join('');
  const notebook: Notebook = {
    order: [],
    full: false,
    ids: new WeakMap(),
    nodes: new Map(),
    closedRoots: new WeakMap(),
    media: new WeakMap(),
    changes: 0,
    lastChange: performance.now(),
    timers: 0,
    later: 0,
    asking: new WeakSet(),
    sounds: [],
    page,
    own,
    idOf(node) {
      let id = this.ids.get(node);
      if (id === undefined) {
        id = this.nodes.size + 1;
        this.ids.set(node, id);
        this.nodes.set(id, node);
      }
      return id;
    },
    parentOf(node) {
      const root = own(node).parentNode;
      return own(node).parentElement ?? (root instanceof ShadowRoot ? root.host : null);
    },
    childrenOf(node) {
      const root = own(node).shadowRoot ?? this.closedRoots.get(node);
      const { children } = own(node);
      return root ? [...root.children, ...children] : [...children];
    },
    takeRecords: () => note(observer.takeRecords()),
  };
  const note = (records: MutationRecord[]) => {
    if (records.length === 0) return;
    notebook.changes += records.length;
    notebook.lastChange = performance.now();
    for (const record of records) {
      for (const node of record.addedNodes) {
        if (!(node instanceof Element) || notebook.ids.has(node)) continue;
        notebook.idOf(node);
        if (notebook.order.length < 50_000)
          notebook.order.push({ node, parent: record.target, signature: sign(node) });
        else notebook.full = true;
      }
    }
  };
  const observer = new MutationObserver(note);
  observer.observe(document, { childList: true, subtree: true });
  const onMedia = (event: Event) => {
    if (event.target instanceof HTMLMediaElement)
      notebook.media.set(event.target, { started: true });
  };
  page.addEventListener('play', onMedia, true);
  page.addEventListener('mivket-timer-set', () => notebook.timers++, true);
  page.addEventListener('mivket-timer-over', () => notebook.timers--, true);
  page.addEventListener('mivket-later-set', () => notebook.later++, true);
  page.addEventListener('mivket-later-over', () => notebook.later--, true);
  page.addEventListener(
    'mivket-play',
    (event) => {
      if (event.target instanceof HTMLMediaElement) notebook.asking.add(event.target);
      else if (notebook.sounds.length < 20)
        notebook.sounds.push(String((event as CustomEvent).detail).slice(0, 300));
    },
    true,
  );
  globalThis.mivketNotebook = notebook;
}

/**
 * Runs in the page's own world, before its scripts: tells the isolated world of timers that will go
 * off soon, so that what they do is waited for. Timers set by timers count three deep: what goes on
 * for ever is not waited for.
 */
export function watchTimers(): void {
  if (window.top !== window) return;
  const [shortest, longest, farthest, deepest] = [30, 3000, 30_000, 3];
  const open = new Map<unknown, string>();
  let depth = 0;
  const tell = (name: string) => document.dispatchEvent(new Event(name));
  const close = (id: unknown) => {
    const kind = open.get(id);
    if (open.delete(id)) tell(`mivket-${kind}-over`);
  };
  type Setter = (...args: unknown[]) => unknown;
  const makeSetter = (again: boolean) => (real: Setter, self: unknown, args: unknown[]) => {
    const [work, delay, ...rest] = args;
    const wait = Number(delay) || 0;
    // What happens again and again from later on is not waited for, and not missed.
    const until = again ? longest : farthest;
    const counts =
      typeof work === 'function' && wait >= shortest && wait <= until && depth < deepest;
    if (!counts) return Reflect.apply(real, self, args) as unknown;
    const level = depth + 1;
    const run = function (this: unknown, ...values: unknown[]) {
      close(id);
      depth = level;
      try {
        return Reflect.apply(work as Setter, this, values);
      } finally {
        depth = 0;
      }
    };
    const id = Reflect.apply(real, self, [run, delay, ...rest]) as unknown;
    const kind = wait <= longest ? 'timer' : 'later';
    open.set(id, kind);
    tell(`mivket-${kind}-set`);
    return id;
  };
  const onClear = (real: Setter, self: unknown, args: unknown[]) => {
    close(args[0]);
    return Reflect.apply(real, self, args) as unknown;
  };
  const own = window as unknown as Record<string, Setter>;
  // A proxy keeps name, length and the text of the native function.
  own.setTimeout = new Proxy(own.setTimeout!, { apply: makeSetter(false) });
  own.setInterval = new Proxy(own.setInterval!, { apply: makeSetter(true) });
  for (const name of ['clearTimeout', 'clearInterval'])
    own[name] = new Proxy(own[name]!, { apply: onClear });
}

/** Runs in the page's own world too: tells of play() while there is sound, which browsers refuse before a click. */
export function watchPlay(): void {
  if (window.top !== window) return;
  const media = HTMLMediaElement.prototype;
  media.play = new Proxy(media.play, {
    apply(real, self: HTMLMediaElement, args) {
      const loud = self instanceof HTMLMediaElement && !self.muted && self.volume > 0;
      if (loud && !navigator.userActivation.hasBeenActive) {
        if (self.isConnected) self.dispatchEvent(new Event('mivket-play'));
        else document.dispatchEvent(new CustomEvent('mivket-play', { detail: self.src }));
      }
      return Reflect.apply(real, self, args) as Promise<void>;
    },
  });
}
