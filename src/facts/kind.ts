import type { z } from 'zod';
import type { FileType } from './file-type.js';

/** A kind of fact: what a fact of it looks like, and what stands where nothing was measured. */
export interface Kind<S extends z.ZodType = z.ZodType> {
  schema: S;
  empty: z.output<S>;
  /** Read in the page, so that it is lost with the page; else from what the browser tells by itself. */
  inPage: boolean;
  /** It only adds to what is said of a finding, so that without it nothing is unseen: it is no gap. */
  extra?: boolean;
  /** It is told by the source and the browser alone: what comes late, or not at all, cannot change it. */
  still?: boolean;
  /** It is told of elements one by one, so that of a page with too many of them some of it is not known. */
  ofElements?: boolean;
  /** It is told of the page around, whose elements are capped with those of the snippet. */
  ofPage?: boolean;
  /** It goes by where things stand: pictures, fonts, films and what moves could change it. */
  layout?: boolean;
  /** What files are about besides: without one of these something of it is not known. */
  files?: readonly FileType[];
  /** No style sheet could change it. */
  unstyled?: boolean;
}

/** States a kind. */
export function defineKind<S extends z.ZodType>(kind: Kind<S>): Kind<S> {
  return Object.freeze(kind);
}
