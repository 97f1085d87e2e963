import { RECORDING } from './recorded.js';

/**
 * Whether one of a long list is seen live in each run of the tests: what is recorded of all of them is judged in the quick
 * part. @param every of so many one. `npm run drill` and `npm run record` render all.
 */
export function isSampled(at: number, every: number): boolean {
  return RECORDING || process.env.MIVKET_ALL !== undefined || at % every === 0;
}
