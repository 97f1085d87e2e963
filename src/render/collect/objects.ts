import type { FrameFact, MediaFact, PictureFact } from '../../core/evidence.js';

type Raw<T> = Omit<T, 'from' | 'selector' | 'box' | 'shown' | 'exposed' | 'style'>;

/** Frames, media and pictures as read in the page; box and style stand with the element of that id. */
export interface RawObjects {
  frames: Raw<FrameFact>[];
  media: Raw<MediaFact>[];
  pictures: Raw<PictureFact>[];
  sounds: string[];
}

/** Reads frames, media and pictures, those in shadow roots too. Runs in the isolated world. */
export function readObjects(): RawObjects {
  const book = globalThis.mivketNotebook;
  const { page, own } = book;
  const found: RawObjects = { frames: [], media: [], pictures: [], sounds: book.sounds };
  const attributesOf = (node: Element) =>
    Object.fromEntries(Array.from(node.attributes, (a) => [a.name, a.value]));

  const textOf = (real: Element): string => {
    const node = own(real);
    const label = node.getAttribute('aria-label')?.trim();
    if (label) return label;
    const alt = node.getAttribute('alt') ?? '';
    return `${alt} ${Array.from(node.childNodes, (child) => {
      if (child.nodeType === Node.TEXT_NODE) return child.nodeValue ?? '';
      return child instanceof Element ? textOf(child) : '';
    }).join(' ')}`;
  };
  const labelledBy = (node: Element) => {
    const ids = (node.getAttribute('aria-labelledby') ?? '').split(/\s+/).filter(Boolean);
    const scope = node.getRootNode() as Document | ShadowRoot;
    const texts = ids.map((id) => scope.getElementById?.(id)).filter((e) => e instanceof Element);
    return texts.map(textOf).join(' ').replace(/\s+/g, ' ').trim();
  };
  // Accessible Name and Description Computation 1.2, steps 2B to 2I, for pictures.
  const nameOf = (node: Element): string | null => {
    const aria = labelledBy(node) || node.getAttribute('aria-label')?.trim();
    if (aria) return aria;
    const labels = node instanceof HTMLInputElement ? [...(node.labels ?? [])] : [];
    const label = labels.map(textOf).join(' ').replace(/\s+/g, ' ').trim();
    if (label) return label;
    const alt =
      node.localName === 'img' || node.localName === 'area' || node.localName === 'input'
        ? node.getAttribute('alt')
        : null;
    if (alt?.trim()) return alt.trim();
    // SVG Accessibility API Mappings 1.0, 8: the title that is a child.
    const inner = node.localName === 'svg' ? [...node.children] : [];
    const title =
      inner.find((child) => child.localName === 'title')?.textContent.trim() ||
      node.getAttribute('title')?.trim();
    return title || (alt === null ? null : '');
  };
  const roleOf = (node: Element) =>
    own(node).getAttribute('role')?.trim().split(/\s+/)[0]?.toLowerCase();
  const isIgnored = (node: Element): boolean => {
    const role = roleOf(node);
    if (role === 'presentation' || role === 'none') return true;
    for (let at: Element | null = node; at; at = book.parentOf(at)) {
      if (own(at).getAttribute('aria-hidden') === 'true' || own(at).hasAttribute('inert'))
        return true;
    }
    return false;
  };
  const isPicture = (node: Element) =>
    own(node).localName === 'img' ||
    (own(node).localName === 'area' && own(node).hasAttribute('href')) ||
    (node instanceof HTMLInputElement && node.type === 'image') ||
    /^(img|image)$/.test(roleOf(node) ?? '');

  const readFrame = (node: Element) => {
    const written = node.getAttribute(node.localName === 'object' ? 'data' : 'src') ?? '';
    const address = URL.canParse(written, page.baseURI)
      ? new URL(written, page.baseURI).href
      : written;
    const tag = node.localName as FrameFact['tag'];
    const style = getComputedStyle(node);
    const getInset = (kind: string, width: string) => (kind === 'inset' ? parseFloat(width) : 0);
    found.frames.push({
      id: book.idOf(node),
      tag,
      address,
      attributes: attributesOf(node),
      border:
        getInset(style.borderLeftStyle, style.borderLeftWidth) +
        getInset(style.borderRightStyle, style.borderRightWidth),
    });
  };
  const isInView = (node: Element) => {
    const r = node.getBoundingClientRect();
    return (
      r.width > 0 &&
      r.height > 0 &&
      r.bottom > 0 &&
      r.right > 0 &&
      r.top < innerHeight &&
      r.left < innerWidth
    );
  };
  const readMedia = (node: HTMLMediaElement) => {
    const video = node instanceof HTMLVideoElement ? node : null;
    const decoded =
      (node as unknown as { webkitAudioDecodedByteCount?: number }).webkitAudioDecodedByteCount ??
      0;
    const frames = video?.getVideoPlaybackQuality().totalVideoFrames ?? 0;
    const errors = ['', 'aborted', 'network', 'decode', 'source not supported'];
    found.media.push({
      id: book.idOf(node),
      tag: video ? 'video' : 'audio',
      address: node.currentSrc,
      autoplay: node.autoplay,
      asksForSound: book.asking.has(node),
      muted: node.muted,
      volume: node.volume,
      controls: node.controls,
      loop: node.loop,
      inline: node.hasAttribute('playsinline'),
      poster: Boolean(video?.poster),
      paused: node.paused,
      started: book.media.has(node),
      inView: isInView(node),
      readyState: node.readyState,
      networkState: node.networkState,
      error: node.error ? `${errors[node.error.code]}: ${node.error.message}` : null,
      frames,
      duration: Number.isFinite(node.duration) ? node.duration : null,
      sound: decoded > 0 ? true : null,
    });
  };
  const readPicture = (node: Element) => {
    const loaded = !(node instanceof HTMLImageElement) || (node.complete && node.naturalWidth > 0);
    found.pictures.push({
      id: book.idOf(node),
      tag: own(node).localName,
      ignored: isIgnored(node),
      loaded,
      name: nameOf(own(node)),
    });
  };

  const waiting: Element[] = [page.documentElement];
  for (let node = waiting.pop(); node; node = waiting.pop()) {
    if (/^(iframe|embed|object)$/.test(own(node).localName)) readFrame(node);
    else if (node instanceof HTMLMediaElement) readMedia(node);
    else if (isPicture(node)) readPicture(node);
    waiting.push(...book.childrenOf(node).reverse());
  }
  return found;
}

/** Brings the slot into view, where what waits to be looked at shows itself. Runs in the isolated world. */
export async function showSlot(selector: string): Promise<void> {
  const { page } = globalThis.mivketNotebook;
  page.querySelector(selector)?.scrollIntoView({ block: 'center', behavior: 'instant' });
  await new Promise((resolve) => requestAnimationFrame(() => requestAnimationFrame(resolve)));
}

/** Brings a medium into view, where the browser would start it. Runs in the isolated world. */
export async function showMedia(id: number): Promise<void> {
  globalThis.mivketNotebook.nodes.get(id)?.scrollIntoView({ block: 'center', behavior: 'instant' });
  await new Promise((resolve) => requestAnimationFrame(() => requestAnimationFrame(resolve)));
}
