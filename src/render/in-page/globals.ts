import { BEGIN, type Channel } from './channel.js';

/** What the browser gives to all code, and code likes to change: the names of what they are prototypes of. */
const SHARED = (
  'Object Function Array String Number Boolean Symbol Date RegExp Promise Map Set WeakMap Error ' +
  'EventTarget Node Element HTMLElement Document DocumentFragment Event History Navigator Storage ' +
  'XMLHttpRequest Response Request Headers FormData URL URLSearchParams WebSocket HTMLMediaElement ' +
  'HTMLFormElement HTMLInputElement HTMLAnchorElement HTMLImageElement HTMLScriptElement ' +
  'HTMLIFrameElement CSSStyleDeclaration DOMTokenList NodeList HTMLCollection MutationObserver ' +
  'IntersectionObserver Performance'
).split(' ');
/** What is there once: what stands in the way of what it has by its kind counts too. */
const SINGLE = 'document history navigator console JSON Math'.split(' ');

type Names = Record<string, PropertyDescriptor>;
/** What the browser has in a window of its own. */
type Born = Record<string, true>;

/** An object and what it had of its own. */
interface Noted {
  name: string;
  of: object;
  single: boolean;
  had: Names;
}

// Taken before the page's code runs: nothing is looked up later where that could have put something.
const { ownKeys, getOwnPropertyDescriptor: describe, getPrototypeOf, has } = Reflect;
const { create, is } = Object;

/**
 * Notes, just before a snippet comes, what the page's own code has made global, and what of the browser’s own all
 * code shares; tells afterwards what of it is another. Runs in the page's own world, and calls nothing of it.
 */
export function watchGlobals({ on, answer }: Channel): void {
  const holders = listHolders();
  // By their names alone: an interface is made when it is looked up.
  const born = create(null) as Born;
  for (const key of ownKeys(window)) if (isName(key)) born[key] = true;
  let noted: Noted[] = [];
  let globals = create(null) as Record<string, unknown>;
  on(BEGIN, () => {
    globals = listGlobals(born);
    noted = [];
    for (let i = 0; i < holders.length; i++)
      noted[i] = { ...holders[i]!, had: listOf(holders[i]!.of) };
  });
  answer('globals', () => {
    let told = '';
    const now = listGlobals(born, globals);
    for (const name in globals)
      if (!is(globals[name], now[name]))
        told += `${name in now ? 'replaced' : 'gone'} ${getWhose(name, born)} ${name}\n`;
    for (let i = 0; i < noted.length; i++) told += compare(noted[i]!);
    return told;
  });
}

/** What an object has of its own, by its names. */
function listOf(of: object): Names {
  const names = create(null) as Names;
  const keys = ownKeys(of);
  for (let i = 0; i < keys.length; i++) {
    const key = keys[i]!;
    if (isName(key)) names[key] = describe(of, key)!;
  }
  return names;
}

/** Frames stand in a window by their numbers. */
function isName(key: string | symbol): key is string {
  return typeof key === 'string' && +key !== +key;
}

/** A handler is the page's, though the browser has its name. */
function getWhose(name: string, born: Born): 'browser' | 'page' {
  return name in born && !isHandler(name) ? 'browser' : 'page';
}

function isHandler(name: string): boolean {
  return name[0] === 'o' && name[1] === 'n';
}

/** The browser makes an interface when it is looked up. */
function isMade(name: string): boolean {
  return name[0]! >= 'a';
}

/** What is to happen to the document, by the names that the browser has for it. */
const HANDLERS = ownKeys(Document.prototype).filter(
  (key): key is string => isName(key) && isHandler(key),
);

/**
 * What code made global, handlers of the window and the document, and functions that the browser has there.
 * @param only what has these names, whatever it is by now
 */
function listGlobals(born: Born, only?: Record<string, unknown>): Record<string, unknown> {
  const all = create(null) as Record<string, unknown>;
  const keys = ownKeys(window);
  for (let i = 0; i < keys.length; i++) {
    const name = keys[i]!;
    if (!isName(name) || (only && !(name in only))) continue;
    const isBorn = name in born;
    if (isBorn && !isMade(name)) continue;
    const { get, value: own } = describe(window, name)!;
    // What it takes a call to see is left alone, but for handlers: those are the browser's own.
    const asks = isBorn && get !== undefined && isHandler(name);
    const value: unknown = asks ? (window as unknown as typeof all)[name] : own;
    const kind = typeof value;
    const counts = kind === 'function' || (!isBorn && (kind === 'object' || kind === 'string'));
    if (only || (counts && value !== null)) all[name] = value;
  }
  for (let i = 0; i < HANDLERS.length; i++) {
    const name = HANDLERS[i]!;
    const value = (document as unknown as typeof all)[name];
    const key = `document.${name}`;
    if (only ? key in only : typeof value === 'function') all[key] = value;
  }
  return all;
}

function compare({ name, of, single, had }: Noted): string {
  let told = '';
  const now = listOf(of);
  const kind = getPrototypeOf(of);
  for (const key in now) {
    const [before, after] = [had[key], now[key]!];
    // What stands in the way of what it has by its kind.
    const hides = single && kind !== null && has(kind, key);
    // What does not show where things are gone through is in nobody's way.
    const isNew = !before && (single ? hides : after.enumerable);
    if (before ? !isSame(before, after) : isNew)
      told += `${before || single ? 'replaced' : 'added'} browser ${name}.${key}\n`;
  }
  for (const key in had) if (!(key in now)) told += `gone browser ${name}.${key}\n`;
  return told;
}

/** Other values than functions change by use. */
function isSame(a: PropertyDescriptor, b: PropertyDescriptor): boolean {
  return (
    is(a.get, b.get) && is(a.set, b.set) && (is(a.value, b.value) || typeof a.value !== 'function')
  );
}

function listHolders(): Omit<Noted, 'had'>[] {
  const own = window as unknown as Record<string, { prototype: object } & object>;
  const shared = SHARED.filter((name) => name in own);
  return [
    ...shared.map((name) => ({
      name: `${name}.prototype`,
      of: own[name]!.prototype,
      single: false,
    })),
    ...SINGLE.map((name) => ({ name, of: own[name]!, single: true })),
  ];
}
