import * as z from 'zod';
import { defineKind } from '../kind.js';

/** Ways to get on in a page: the wheel, a swipe, two kinds of keys that scroll it, and the one that goes from control to control. */
export const WAYS = ['wheel', 'swipe', 'arrows', 'space', 'tab'] as const;
export type Way = (typeof WAYS)[number];

/** What a visitor does with the words, fields and links of a page, and how it is left. */
export const ACTS = [
  'select',
  'copy',
  'paste',
  'menu',
  'find',
  'leave',
  'follow',
  'click',
] as const;
/** Those that events show alone. */
export type Asked = Exclude<Act, 'follow' | 'click'>;
export type Act = (typeof ACTS)[number];

/** What a visitor can do with the page around: tried in one render of each slot, where the snippet could prevent it. */
export const visit = defineKind({
  inPage: true,
  schema: z.object({
    /** What was tried: not where there is nowhere to go. */
    tried: z.array(z.enum(WAYS)),
    /** Of these, what did nothing, and does or was not tried without the snippet. */
    stuck: z.array(z.enum(WAYS)),
    /** What is prevented, and not so without the snippet. */
    hindered: z.array(z.enum(ACTS)),
  }),
  empty: { tried: [], stuck: [], hindered: [] },
});
export type VisitFact = z.output<typeof visit.schema>;
