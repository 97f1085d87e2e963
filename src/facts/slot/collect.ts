import type { Collector } from '../collector.js';
import { slot } from './fact.js';

export const collectSlot: Collector<'slot'> = ({ reading, of, pageFamily }) => ({
  ...(reading?.raw.slots[of] ?? slot.empty),
  pageFamily,
});
