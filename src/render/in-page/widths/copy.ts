import { FRAMES, MEDIA } from '../../../core/standards/elements.js';
import { standUpright } from '../endless.js';
import { makeBookOf, type Notebook } from '../observe.js';
import { nextFrame } from '../shared.js';
import { Hold } from '../trial/hold.js';
import type { OtherWindow } from './search.js';

/** Nothing of a copy is waited for longer than this, ms. */
const LONGEST = 2000;
/** By so many px a copy may differ from what it was made of. */
const TOLERANCE = 0.6;
const FRAME_STYLE =
  'all: initial; position: fixed; left: 0; top: 0; border: 0; visibility: hidden; pointer-events: none;';
const STILL = '*, *::before, *::after { transition: none !important; }';
const BARE = '* { scrollbar-width: none !important; }';

/**
 * A copy of the page in a frame, which can be made as wide as any window within a millisecond. Nothing runs
 * in it and nothing is loaded that the page does not show itself.
 */
export class PageCopy {
  readonly page: Document;
  readonly book: Notebook;
  readonly #frame: HTMLIFrameElement;
  readonly #ids: WeakMap<Element, number>;
  readonly #copies = new Map<number, Element>();
  readonly #originals: Element[];
  readonly #style: HTMLStyleElement;

  /** Null where the page cannot be copied as it stands: shadow roots are not. */
  static make(height: number): PageCopy | null {
    const { page, closedRoots } = globalThis.mivketNotebook;
    const originals = [page.documentElement, ...page.documentElement.querySelectorAll('*')];
    const isRooted = (one: Element) =>
      globalThis.mivketNotebook.own(one).shadowRoot !== null || closedRoots.has(one);
    return originals.some(isRooted) ? null : new PageCopy(originals, height);
  }

  private constructor(originals: Element[], height: number) {
    const { page, idOf } = globalThis.mivketNotebook;
    this.#originals = originals;
    this.#frame = page.createElement('iframe');
    // Nothing of it may run.
    this.#frame.setAttribute('sandbox', 'allow-same-origin');
    this.#frame.style.cssText = FRAME_STYLE.replaceAll(';', ' !important;');
    this.setHeight(height);
    page.documentElement.append(this.#frame);
    this.page = this.#frame.contentDocument!;
    this.page.open();
    // What it is written for decides how old pages are laid out.
    if (page.compatMode === 'CSS1Compat') this.page.write('<!doctype html>');
    this.page.close();
    const root = this.page.importNode(originals[0]!, true);
    // The frame itself was copied too.
    root.lastElementChild!.remove();
    this.#ids = new WeakMap();
    for (const [i, copy] of [root, ...root.querySelectorAll('*')].entries()) {
      const original = originals[i];
      if (!original) continue;
      this.#ids.set(copy, idOf(original));
      this.#copies.set(idOf(original), copy);
      quieten(copy, original);
    }
    this.page.replaceChild(root, this.page.documentElement);
    this.#style = this.page.createElement('style');
    this.#style.textContent = STILL;
    root.append(this.#style);
    this.book = makeBookOf(this.page, (copy) => this.#ids.get(copy) ?? -1);
  }

  remove(): void {
    this.#frame.remove();
  }

  /** Resolves to whether all that gives it its shape has come. */
  async arrive(): Promise<boolean> {
    const over = new Promise<false>((resolve) => setTimeout(resolve, LONGEST, false));
    const open = [...this.page.images].filter((image) => !image.complete);
    const sheets = [...this.page.querySelectorAll('link')].filter(
      (link) => link.rel === 'stylesheet' && link.sheet === null,
    );
    const waiting = [...open, ...sheets].map(
      (one) =>
        new Promise<void>((resolve) => {
          for (const name of ['load', 'error']) one.addEventListener(name, () => resolve());
        }),
    );
    if (waiting.length === 0 && this.page.fonts.status === 'loaded') return true;
    const come = (async () => {
      await Promise.all(waiting);
      await this.page.fonts.ready;
      await nextFrame();
      return true;
    })();
    return Promise.race([come, over]);
  }

  setWidth(width: number): void {
    this.#set('width', width);
  }

  setHeight(height: number): void {
    this.#set('height', height);
  }

  /** Whether scroll bars take no room in it. */
  setBare(bare: boolean): void {
    const css = bare ? STILL + BARE : STILL;
    if (this.#style.textContent !== css) this.#style.textContent = css;
  }

  #set(property: 'width' | 'height', px: number): void {
    this.#frame.style.setProperty(property, `${px}px`, 'important');
  }

  /** The copy of an element, by its number. */
  get(id: number): Element | undefined {
    return this.#copies.get(id);
  }

  /** Whether it is laid out as what it was made of: of what is not, nothing can be told. */
  matches(ids: readonly number[]): boolean {
    const original = globalThis.mivketNotebook.page.documentElement;
    new Hold().show(this.page, (target) =>
      this.#copies.get(globalThis.mivketNotebook.idOf(target)),
    );
    const isAlike = (a: Element, b: Element) => {
      const [x, y] = [a.getBoundingClientRect(), b.getBoundingClientRect()];
      return isNear(x.left, y.left) && isNear(x.width, y.width);
    };
    const known = new Set(ids);
    const own = this.#originals.filter((one) => known.has(globalThis.mivketNotebook.idOf(one)));
    const alike =
      Math.abs(original.scrollWidth - this.page.documentElement.scrollWidth) <= 1 &&
      own.every((one) => isAlike(one, this.get(globalThis.mivketNotebook.idOf(one))!));
    standUpright(this.page);
    return alike;
  }

  /** Whether it is laid out as the page was in another window. */
  matchesOther(ids: readonly number[], { width, scrollWidth, boxes }: OtherWindow): boolean {
    this.setWidth(width);
    const isAlike = (id: number, box: { x: number; width: number } | undefined) => {
      const own = this.get(id)?.getBoundingClientRect();
      return own && box && isNear(own.left, box.x) && isNear(own.width, box.width);
    };
    return (
      ids.length === boxes.length &&
      Math.abs(scrollWidth - this.page.documentElement.scrollWidth) <= 1 &&
      ids.every((id, i) => isAlike(id, boxes[i]))
    );
  }

  /** What reads the page reads the copy instead. */
  asPage<T>(act: () => T): T {
    const { mivketNotebook } = globalThis;
    globalThis.mivketNotebook = this.book;
    try {
      return act();
    } finally {
      globalThis.mivketNotebook = mivketNotebook;
    }
  }
}

function isNear(a: number, b: number): boolean {
  return Math.abs(a - b) < TOLERANCE;
}

/** Takes what would run, load or make a noise out of a copy, and keeps its shape. */
function quieten(copy: Element, original: Element): void {
  const name = copy.localName;
  for (const attribute of [...copy.attributes])
    if (attribute.name.startsWith('on')) copy.removeAttribute(attribute.name);
  if (FRAMES.has(name)) for (const one of ['src', 'srcdoc', 'data']) copy.removeAttribute(one);
  if (MEDIA.has(name)) silence(copy, original);
  if (name === 'source') for (const one of ['src', 'srcset']) copy.removeAttribute(one);
  if (name === 'img') stillPicture(copy, original as HTMLImageElement);
  if (name === 'script') copy.setAttribute('type', 'text/plain');
  if (name === 'meta') copy.removeAttribute('http-equiv');
  if (name === 'link' && copy.getAttribute('rel')?.trim().toLowerCase() !== 'stylesheet')
    copy.removeAttribute('href');
}

/** A picture as large as another, with nothing in it. */
function makeBlank(width: number, height: number): string {
  const svg = `<svg xmlns="http://www.w3.org/2000/svg" width="${width}" height="${height}"/>`;
  return `data:image/svg+xml,${encodeURIComponent(svg)}`;
}

/** What is in a picture does not matter, but its size does; one that is not there stays so. */
function stillPicture(copy: Element, original: HTMLImageElement): void {
  for (const one of ['loading', 'srcset', 'sizes']) copy.removeAttribute(one);
  const { naturalWidth, naturalHeight } = original;
  if (!/^(https?:)?\/\//i.test(original.currentSrc || original.src)) return;
  copy.setAttribute('src', naturalWidth > 0 ? makeBlank(naturalWidth, naturalHeight) : 'data:,');
}

/** A film that is not there is as large as its poster: that is made as large as the film. */
function silence(copy: Element, original: Element): void {
  for (const one of ['src', 'autoplay', 'preload']) copy.removeAttribute(one);
  const { videoWidth = 0, videoHeight = 0 } = original as Partial<HTMLVideoElement>;
  if (videoWidth === 0) return;
  copy.setAttribute('poster', makeBlank(videoWidth, videoHeight));
}
