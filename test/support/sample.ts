import { RECORDING } from './recorded.js';

/**
 * Whether one of a long list is seen live in each run of the tests: what is recorded of all of them is judged in the quick
 * part. `npm run drill` and `npm run record` render all.
 */
export function isSampled(at: number): boolean {
  const every = RECORDING || process.env.MIVKET_ALL ? 1 : 4;
  return at % every === 0;
}
