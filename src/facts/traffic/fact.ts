import * as z from 'zod';
import { sourceSchema } from '../common.js';
import { FILE_TYPES } from '../file-type.js';
import { defineKind } from '../kind.js';

export const refusalSchema = z.object({
  kind: z.enum([
    'private-address',
    'offline',
    'unknown-name',
    'bad-scheme',
    'unreachable',
    'proxy',
    'not-recorded',
    'not-here',
    'no-lookup',
    'too-much',
    'odd-status',
  ]),
  /** For a private address: what it is, in words. */
  words: z.string(),
});
export type Refusal = z.output<typeof refusalSchema>;
export type RefusalKind = Refusal['kind'];

const request = z.object({
  address: z.string(),
  /** The address that was asked for before redirects; the same as `address` where there were none. */
  first: z.string(),
  host: z.string(),
  /** What it was asked for as. */
  type: z.enum(FILE_TYPES),
  status: z.int().nullable(),
  /** Bytes over the wire, headers included, and unpacked. */
  wire: z.number(),
  unpacked: z.number(),
  /**
   * Why it did not come: `no-answer`, `endless-redirects`, `cancelled`, `not-shared` with pages of other sites, of an
   * `other-kind`, `refused` by the run, or what policy of the page's the browser kept it back for.
   */
  failed: z.string().nullable(),
  /** The type that its answer says it has, without parameters, in lower case; null where none was given. */
  contentType: z.string().nullable(),
  /** The type of film or sound that it is by its first bytes; null for anything else, and where that is not known. */
  container: z.string().nullable().default(null),
  /** It says of itself that it is a film with pictures. */
  pictured: z.boolean().default(false),
  /** It says of itself that it is a picture of several frames. */
  moving: z.boolean().default(false),
  /** Why the gate refused it. */
  refused: refusalSchema.nullable(),
  from: sourceSchema.nullable(),
  /** The address of the script or page that asked for it. */
  by: z.string().nullable(),
  /** How its answer forbids to be framed; null where it does not. */
  forbidsFrames: z.string().nullable(),
  /** The origins that may read its answer, as its header says: `*` for all (Fetch, 3.3.3); null where it says none. */
  sharedWith: z.string().nullable().default(null),
  /** For how long its answer may be used again without asking, s; 0: not at all; null where it does not say. */
  fresh: z.number().nullable().default(null),
  /** From asking to the end of the answer, ms; null where it did not end. */
  waited: z.number().nullable(),
  /** Made after the visitor had done something. */
  acted: z.boolean().default(false),
  /** Made by a frame of another document. */
  inFrame: z.boolean(),
});
export type RequestFact = z.output<typeof request>;

export const traffic = defineKind({
  inPage: false,
  files: ['document'],
  schema: z.array(request),
  empty: [],
});
