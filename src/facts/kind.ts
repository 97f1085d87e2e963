import type { z } from 'zod';

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
}

/** States a kind. */
export function defineKind<S extends z.ZodType>(kind: Kind<S>): Kind<S> {
  return Object.freeze(kind);
}
