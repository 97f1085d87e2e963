import { CALLS, type PageCalls } from './calls.js';
import { watchLoad } from '../in-page/early.js';
import { observe } from '../in-page/observe.js';

declare global {
  var mivketCalls: PageCalls;
}

// Evaluated in an isolated world of every document, before any of its scripts: the page cannot see it.
observe();
watchLoad();
globalThis.mivketCalls = CALLS;
