import { makeChannel, type Channel } from './channel.js';
import { watchGlobals } from './globals.js';

type Tell = Channel['tell'];

/** Runs in the page's own world, before its scripts. */
export function watch(): void {
  if (window.top !== window) return;
  const channel = makeChannel();
  const { tell } = channel;
  watchTimers(tell);
  watchPlay(tell);
  watchWrites(tell);
  // Last: ours are the browser's own by then.
  watchGlobals(channel);
}

/**
 * Tells of timers that will go off soon, so that what they do is waited for. Timers set by timers count three deep:
 * what goes on for ever is not waited for.
 */
function watchTimers(tell: Tell): void {
  const [shortest, longest, deepest] = [30, 3000, 3];
  const { apply } = Reflect;
  const { has, add, delete: remove } = Set.prototype;
  const open = new Set<unknown>();
  let depth = 0;
  const close = (id: unknown) => {
    if (!apply(has, open, [id])) return;
    apply(remove, open, [id]);
    tell('timer-over');
  };
  type Setter = (...args: unknown[]) => unknown;
  const onSet = (real: Setter, self: unknown, args: unknown[]) => {
    // Not taken apart: what goes through a list one by one can be overheard.
    const work = args[0];
    const delay = args[1];
    const wait = typeof delay === 'number' || typeof delay === 'string' ? +delay : 0;
    const counts =
      typeof work === 'function' && wait >= shortest && wait <= longest && depth < deepest;
    if (!counts) return apply(real, self, args) as unknown;
    const level = depth + 1;
    args[0] = function (this: unknown, ...values: unknown[]) {
      close(id);
      depth = level;
      try {
        return apply(work as Setter, this, values) as unknown;
      } finally {
        depth = 0;
      }
    };
    const id = apply(real, self, args) as unknown;
    apply(add, open, [id]);
    tell('timer-set');
    return id;
  };
  const onClear = (real: Setter, self: unknown, args: unknown[]) => {
    close(args[0]);
    return apply(real, self, args) as unknown;
  };
  const own = window as unknown as Record<string, Setter>;
  for (const name of ['setTimeout', 'setInterval']) own[name] = replace(own[name]!, onSet);
  for (const name of ['clearTimeout', 'clearInterval']) own[name] = replace(own[name]!, onClear);
}

/** Tells of play(): while there is sound browsers refuse it before a click, and leave no trace of it. */
function watchPlay(tell: Tell): void {
  const media = HTMLMediaElement.prototype;
  media.play = overhear(media.play, (self) => tell('play', self));
}

/** Tells of document.write(), which a deferred script may not call. */
function watchWrites(tell: Tell): void {
  const page = Document.prototype;
  const current = Object.getOwnPropertyDescriptor(page, 'currentScript')!.get!;
  const { apply } = Reflect;
  const own = document;
  for (const name of ['write', 'writeln'] as const)
    page[name] = overhear(page[name], (self) => {
      const script = self === own ? (apply(current, own, []) as HTMLElement | null) : null;
      if (script) tell('write', script);
    });
}

/** The same method, of which it is told. */
function overhear<M extends (...args: never[]) => unknown>(
  method: M,
  told: (self: ThisParameterType<M> & never) => void,
): M {
  const { apply } = Reflect;
  return replace(method, (real, self, args) => {
    try {
      told(self as never);
    } catch {
      // Called on what it is not a method of: the browser says so itself.
    }
    return apply(real, self, args);
  });
}

/**
 * Another in the place of a method, with its name and length. What the page puts on the prototype of all objects changes
 * nothing about it.
 */
function replace<M extends (...args: never[]) => unknown>(
  method: M,
  apply: (real: M, self: unknown, args: never[]) => unknown,
): M {
  const traps: ProxyHandler<M> = { apply };
  return new Proxy(method, Object.setPrototypeOf(traps, null) as ProxyHandler<M>);
}
