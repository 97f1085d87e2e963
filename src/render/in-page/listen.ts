import { mapPresent } from '../../core/lists.js';
import { whenHanded, type Signal } from './channel.js';
import type { Notebook } from './observe.js';
import { parseHeight } from './posted.js';

/** Something that the page's Content-Security-Policy refused (CSP 3, 5.3). */
export interface RefusedPart {
  directive: string;
  /** An address or its origin; `inline`, `eval` and the like where it has none. */
  blocked: string;
  /** Where in the page's source, from 1; 0 where the browser does not say. */
  line: number;
  column: number;
  /** The element it stood in; null where none is known. */
  node: Element | null;
}

const MOST_TOLD = 20;
const MOST_REFUSED = 100;
const MOST_JUMPS = 200;
const MOST_POSTS = 200;
const LONGEST_ADDRESS = 300;

/** Keeps what the browser, and the code that watches in the page's own world, tell of. @see ./watch.ts */
export function listen(notebook: Notebook): void {
  followPage(notebook);
  whenHanded((node) => {
    notebook.channel = node;
    followCalls(notebook, node);
  });
  followPolicy(notebook);
  followFrames(notebook);
  followJumps(notebook);
}

function followPage(notebook: Notebook): void {
  const { page } = notebook;
  const on = (name: string, listener: (event: Event) => void) =>
    page.addEventListener(name, listener, true);
  on('play', ({ target }) => {
    if (target instanceof HTMLMediaElement) notebook.played.add(target);
  });
  window.addEventListener('beforeprint', () => notebook.prints++);
}

/** What code in the page's own world tells of. @see ./watch.ts */
function followCalls(notebook: Notebook, channel: Element): void {
  const { asking, sounds, writers } = notebook;
  const keep = (all: string[], address: string) => {
    if (all.length < MOST_TOLD) all.push(address.slice(0, LONGEST_ADDRESS));
  };
  const on = (name: Signal, listener: (element: HTMLElement | null) => void) =>
    channel.addEventListener(name, (event) => listener((event as SubmitEvent).submitter));
  on('timer-set', () => notebook.timers++);
  on('timer-over', () => notebook.timers--);
  on('play', (real) => {
    if (!(real instanceof HTMLMediaElement) || navigator.userActivation.hasBeenActive) return;
    if (real.muted || real.volume === 0) return;
    if (real.isConnected) asking.add(real);
    else keep(sounds, real.src);
  });
  channel.addEventListener('wait', (event) => {
    const [name = '', script = '-1'] = String((event as CustomEvent).detail).split(' ');
    if (notebook.waits.length < MOST_TOLD)
      notebook.waits.push({ event: name, script: Number(script) });
  });
  on('write', (script) => keep(writers, script instanceof HTMLScriptElement ? script.src : ''));
}

function followPolicy({ page, refusals, features }: Notebook): void {
  page.addEventListener('securitypolicyviolation', (event) => {
    if (event.disposition !== 'enforce' || refusals.length >= MOST_REFUSED) return;
    const { effectiveDirective: directive, blockedURI, lineNumber: line, target } = event;
    refusals.push({
      directive,
      blocked: blockedURI.slice(0, LONGEST_ADDRESS),
      line,
      column: event.columnNumber,
      node: target instanceof Element ? target : null,
    });
  });
  // Not every engine has it.
  if (typeof ReportingObserver !== 'function') return;
  const types = ['permissions-policy-violation'];
  const note = (reports: Report[]) => {
    for (const { body } of reports) {
      const { featureId } = (body ?? {}) as { featureId?: unknown };
      if (typeof featureId === 'string' && features.size < MOST_TOLD) features.add(featureId);
    }
  };
  new ReportingObserver(note, { types, buffered: true }).observe();
}

function followFrames({ posts }: Notebook): void {
  window.addEventListener(
    'message',
    ({ source, data }) => {
      const height = source === window ? null : parseHeight(data);
      if (height === null) return;
      const known = posts.get(source) ?? [];
      if (known.length < MOST_POSTS) known.push(height);
      posts.set(source, known);
    },
    true,
  );
}

/** A jump of the layout, as the browser scores it (Layout Instability, 2.2). */
interface Shift extends PerformanceEntry {
  value: number;
  hadRecentInput: boolean;
  sources: readonly { node: Node | null; previousRect: DOMRect; currentRect: DOMRect }[];
}

function followJumps({ jumps, tried }: Notebook): void {
  if (!PerformanceObserver.supportedEntryTypes.includes('layout-shift')) return;
  const note = (list: PerformanceObserverEntryList) => {
    for (const { startTime, value, hadRecentInput, sources } of list.getEntries() as Shift[]) {
      const isOurs = tried.some(({ from, until }) => startTime >= from && startTime <= until);
      if (isOurs || hadRecentInput || jumps.length >= MOST_JUMPS) continue;
      const moved = mapPresent(sources, ({ node, previousRect, currentRect }) => {
        // Of a text the element around it counts.
        const element = node instanceof Element ? node : node?.parentElement;
        const [from, to] = [previousRect.top + scrollY, currentRect.top + scrollY];
        return element ? { node: element, from, to } : null;
      });
      jumps.push({ at: startTime, score: value, moved });
    }
  };
  new PerformanceObserver(note).observe({ type: 'layout-shift', buffered: true });
}
