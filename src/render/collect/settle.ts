/** What is waited for in the page: fonts, pictures, media, animations that end, and a still page. */
export interface SettleWish {
  /** For how long, at most, ms. */
  limit: number;
  /** How long the document must have been unchanged, ms; 0 where nothing can change it by itself. */
  quiet: number;
  /** Whether video and audio are to be waited for. */
  media: boolean;
}

/**
 * Waits inside the page until it has come to rest. Resolves to what had not when time was over.
 * Runs in the isolated world.
 */
export async function settle(wish: SettleWish): Promise<string[]> {
  const start = performance.now();
  const { page } = globalThis.mivketNotebook;
  const left = () => wish.limit - (performance.now() - start);
  const open = new Set<string>();
  const nextFrame = () => new Promise<void>((resolve) => requestAnimationFrame(() => resolve()));
  const within = async (name: string, promise: Promise<unknown>) => {
    open.add(name);
    let timer = 0;
    const over = new Promise(
      (resolve) => (timer = setTimeout(resolve, Math.max(left(), 0), true) as unknown as number),
    );
    const late = await Promise.race([
      promise.then(
        () => false,
        () => false,
      ),
      over,
    ]);
    clearTimeout(timer);
    if (!late) open.delete(name);
  };
  const once = (target: EventTarget, ...names: string[]) =>
    new Promise<void>((resolve) => {
      for (const name of names) target.addEventListener(name, () => resolve(), { once: true });
    });
  const pictures = () =>
    Array.from(page.images).filter((image) => !image.complete && image.loading !== 'lazy');
  const animations = () =>
    page.getAnimations().filter((animation) => {
      const end = animation.effect?.getComputedTiming().endTime;
      return (
        animation.playState === 'running' &&
        typeof end === 'number' &&
        Number.isFinite(end) &&
        end < 10_000
      );
    });
  const hasSource = (element: HTMLMediaElement) =>
    Boolean(element.getAttribute('src') || element.srcObject || element.querySelector('source'));
  const media = () => {
    const all = Array.from(page.querySelectorAll<HTMLMediaElement>('video, audio'));
    return all.filter(
      (element) =>
        element.autoplay &&
        element.networkState !== HTMLMediaElement.NETWORK_NO_SOURCE &&
        // Without a source nothing can come.
        (element.networkState !== HTMLMediaElement.NETWORK_EMPTY || hasSource(element)) &&
        !element.error &&
        element.readyState < HTMLMediaElement.HAVE_ENOUGH_DATA,
    );
  };
  // A film that has begun has shown something only when a frame was presented.
  const presented = async (film: HTMLVideoElement) => {
    const end = performance.now() + 1500;
    while (
      !film.paused &&
      film.getVideoPlaybackQuality().totalVideoFrames === 0 &&
      performance.now() < end
    ) {
      await nextFrame();
    }
  };
  const stillDocument = async () => {
    const book = globalThis.mivketNotebook;
    for (;;) {
      book.takeRecords();
      const rest = wish.quiet - (performance.now() - Math.max(book.lastChange, start));
      if (rest <= 0 && book.timers === 0) return;
      // A clock on the page never is at rest: what it does shows within a second or so.
      if (book.timers === 0 && performance.now() - start > 1500) return;
      if (book.timers > 0) await once(page, 'mivket-timer-over');
      else await new Promise((resolve) => setTimeout(resolve, rest));
    }
  };
  await Promise.all([
    within('fonts', page.fonts.ready),
    ...pictures().map((image) => within('pictures', once(image, 'load', 'error'))),
    ...animations().map((animation) => within('animations', animation.finished)),
    ...(wish.quiet > 0 ? [within('the document', stillDocument())] : []),
    ...(wish.media
      ? media().map((one) => within('media', once(one, 'canplaythrough', 'error', 'playing')))
      : []),
  ]);
  await nextFrame();
  if (wish.media) {
    const films = Array.from(page.querySelectorAll('video')).filter(
      (film) => film.autoplay && !film.paused,
    );
    await Promise.all(films.map(presented));
  }
  return globalThis.mivketNotebook.later > 0 ? [...open, 'timers'] : [...open];
}

/**
 * Scrolls to the end of the page and back, a screen at a time, as a reader does. Resolves to whether
 * the page, or an animation in it, stirred. Runs in the isolated world.
 */
export async function scrollThrough(): Promise<boolean> {
  const book = globalThis.mivketNotebook;
  book.takeRecords();
  const before = book.changes;
  const nextFrame = () => new Promise<void>((resolve) => requestAnimationFrame(() => resolve()));
  const step = Math.max(window.innerHeight, 200);
  const behavior = 'instant';
  for (let top = step, steps = 0; steps < 30; top += step, steps++) {
    window.scrollTo({ top, left: 0, behavior });
    await nextFrame();
    if (window.scrollY + window.innerHeight >= book.page.documentElement.scrollHeight - 1) break;
  }
  window.scrollTo({ top: 0, left: 0, behavior });
  await nextFrame();
  await nextFrame();
  book.takeRecords();
  const moving = book.page.getAnimations().some((animation) => animation.playState === 'running');
  return book.changes > before || moving;
}
