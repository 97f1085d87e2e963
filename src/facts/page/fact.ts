import * as z from 'zod';
import { defineKind } from '../kind.js';

/** Something that is set for the whole page, which is not as it is without the snippet; '' for what is not set. */
const setting = z.object({
  /** `title`, `base`, `canonical`, the name of a meta, or an attribute, as `html lang`. */
  what: z.string(),
  without: z.string(),
  with: z.string(),
});
export type PageSetting = z.output<typeof setting>;

const width = z.object({
  scrollWidth: z.number(),
  clientWidth: z.number(),
  /** A visitor can scroll there: not with `overflow-x: hidden` or `clip` on the page. */
  scrollable: z.boolean(),
});
export type PageWidth = z.output<typeof width>;

export const page = defineKind({
  inPage: true,
  layout: true,
  schema: z.object({
    /** Scrollable width and the width there is, CSS px, at load and after a scroll to the end and back. */
    atLoad: width,
    afterScroll: width.nullable(),
    /** What `elements` were read at: the wider of the two. */
    readAt: z.enum(['load', 'after-scroll']),
    direction: z.enum(['ltr', 'rtl']),
    /** The element that has the focus, by its number; null where none of the page's has. */
    focused: z.int().nullable(),
    /** How far down it is scrolled when it has loaded, px. */
    scrolled: z.number().default(0),
    /** What is set otherwise than on the page without the snippet, where that is steady. */
    settings: z.array(setting).default([]),
    /** What had not come to rest when the time was over. */
    stillMoving: z.array(z.string()),
    /** The document was written over after load. */
    replaced: z.boolean(),
  }),
  empty: {
    atLoad: { scrollWidth: 0, clientWidth: 0, scrollable: false },
    afterScroll: null,
    readAt: 'load',
    direction: 'ltr',
    focused: null,
    scrolled: 0,
    settings: [],
    stillMoving: [],
    replaced: false,
  },
});
export type PageFact = z.output<typeof page.schema>;
