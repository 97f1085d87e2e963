import type { FrameFact, MediaFact, PictureFact } from '../../core/evidence.js';

type Raw<T> = Omit<T, 'from' | 'selector' | 'box' | 'shown' | 'style'>;

/** Frames, media and pictures as read in the page; box and style stand with the element of that id. */
export interface RawObjects {
  frames: Raw<FrameFact>[];
  media: Raw<MediaFact>[];
  pictures: Raw<PictureFact>[];
}

/** Reads frames, media and pictures, those in shadow roots too. Runs in the isolated world. */
export function readObjects(): RawObjects {
  const book = globalThis.mivketNotebook;
  const { page, own } = book;
  const found: RawObjects = { frames: [], media: [], pictures: [] };
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
    const alt =
      node.localName === 'img' || node.localName === 'area' || node.localName === 'input'
        ? node.getAttribute('alt')
        : null;
    if (alt?.trim()) return alt.trim();
    const title = node.getAttribute('title')?.trim();
    return title || (alt === null ? null : '');
  };
  const isIgnored = (node: Element): boolean => {
    const role = own(node).getAttribute('role')?.trim().split(/\s+/)[0];
    if (role === 'presentation' || role === 'none') return true;
    for (let at: Element | null = node; at; at = book.parentOf(at)) {
      if (own(at).getAttribute('aria-hidden') === 'true' || own(at).hasAttribute('inert'))
        return true;
    }
    return false;
  };
  const isPicture = (node: Element) =>
    node.localName === 'img' ||
    (node.localName === 'area' && node.hasAttribute('href')) ||
    (node instanceof HTMLInputElement && node.type === 'image') ||
    (node.getAttribute('role') === 'img' && node.localName !== 'svg');

  const readFrame = (node: Element) => {
    const written = node.getAttribute(node.localName === 'object' ? 'data' : 'src') ?? '';
    const address = URL.canParse(written, page.baseURI)
      ? new URL(written, page.baseURI).href
      : written;
    const tag = node.localName as FrameFact['tag'];
    found.frames.push({ id: book.idOf(node), tag, address, attributes: attributesOf(node) });
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
    else if (isPicture(own(node))) readPicture(node);
    waiting.push(...book.childrenOf(node).reverse());
  }
  return found;
}

/** Brings a medium into view, where the browser would start it. Runs in the isolated world. */
export async function showMedia(id: number): Promise<void> {
  globalThis.mivketNotebook.nodes.get(id)?.scrollIntoView({ block: 'center', behavior: 'instant' });
  await new Promise((resolve) => requestAnimationFrame(() => requestAnimationFrame(resolve)));
}
