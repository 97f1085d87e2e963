/**
 * Runs in the page's own world, before its scripts: tells the isolated world of timers that will go
 * off soon, so that what they do is waited for. Timers set by timers count three deep: what goes on
 * for ever is not waited for.
 */
export function watchTimers(): void {
  if (window.top !== window) return;
  const [shortest, longest, deepest] = [30, 3000, 3];
  const open = new Set<unknown>();
  let depth = 0;
  const tell = (name: string) => document.dispatchEvent(new Event(name));
  const close = (id: unknown) => {
    if (open.delete(id)) tell('mivket-timer-over');
  };
  type Setter = (...args: unknown[]) => unknown;
  const onSet = (real: Setter, self: unknown, args: unknown[]) => {
    const [work, delay, ...rest] = args;
    const wait = Number(delay) || 0;
    const counts =
      typeof work === 'function' && wait >= shortest && wait <= longest && depth < deepest;
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
    open.add(id);
    tell('mivket-timer-set');
    return id;
  };
  const onClear = (real: Setter, self: unknown, args: unknown[]) => {
    close(args[0]);
    return Reflect.apply(real, self, args) as unknown;
  };
  const own = window as unknown as Record<string, Setter>;
  // A proxy keeps name, length and the text of the native function.
  for (const name of ['setTimeout', 'setInterval'])
    own[name] = new Proxy(own[name]!, { apply: onSet });
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

/** Runs in the page's own world too: tells of document.write(), which a deferred script may not call. */
export function watchWrites(): void {
  if (window.top !== window) return;
  const page = Document.prototype;
  for (const name of ['write', 'writeln'] as const)
    page[name] = new Proxy(page[name], {
      apply(real, self: Document, args) {
        const script = self === document ? document.currentScript : null;
        if (script) {
          const detail = script instanceof HTMLScriptElement ? script.src : '';
          document.dispatchEvent(new CustomEvent('mivket-write', { detail }));
        }
        return Reflect.apply(real, self, args) as undefined;
      },
    });
}
