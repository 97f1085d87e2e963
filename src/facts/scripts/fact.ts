import * as z from 'zod';
import { codeShape, sourceSchema, whoShape } from '../common.js';
import { defineKind } from '../kind.js';

const hang = z.object({
  from: sourceSchema.nullable(),
  /** The address of the script; null where it stands in the page itself, or is not known. */
  address: z.string().nullable(),
  line: z.int().nullable(),
  functionName: z.string().nullable(),
  /** How long it had not answered by then; null where it did not hang, but took the page down with it. */
  seconds: z.number().nullable(),
});
export type Hang = z.output<typeof hang>;

const error = z.object({
  how: z.enum(['error', 'promise', 'console']),
  text: z.string(),
  ...codeShape,
});

/** What a visitor is asked for before a page gets it. */
const DEVICES = [
  'location',
  'notifications',
  'camera',
  'microphone',
  'midi',
  'clipboard',
  'screens',
] as const;
export type Device = (typeof DEVICES)[number];

const replaced = z.object({
  how: z.enum(['added', 'replaced', 'gone']),
  of: z.enum(['page', 'browser']),
  name: z.string(),
});
/** A global of the page's, or something of the browser's own that all code shares (`Array.prototype.map`). */
export type Replaced = z.output<typeof replaced>;

export const scripts = defineKind({
  inPage: false,
  unstyled: true,
  files: ['document'],
  schema: z.object({
    /** The page's own code kept the browser busy beyond the limit, or took the page down. */
    hung: hang.nullable(),
    dialogs: z.array(z.object({ kind: z.string(), text: z.string() })),
    /** Addresses for which a window was to be opened. */
    windows: z.array(z.string()),
    /** Attempts of the page to reload, or to go elsewhere. */
    navigations: z.array(z.object({ kind: z.enum(['reload', 'leave']), address: z.string() })),
    /** Modal dialogs and popovers of the snippet's own that stand open. */
    opened: z.array(z.object(whoShape)).default([]),
    /** Elements of a name of their own that nothing has defined, with nothing in them. */
    unmade: z.array(z.object(whoShape)).default([]),
    /** Files that were to be saved. */
    downloads: z.array(z.object({ address: z.string(), name: z.string() })).default([]),
    console: z.array(z.string()),
    /**
     * Errors of the snippet's code that nobody caught, promises that were rejected, and what it told the console of as
     * errors.
     */
    errors: z.array(error).default([]),
    /** Those that documents in its frames raise: where the frame is. */
    framed: z.array(error).default([]),
    /** Errors of the page's own code; those that it raises without the snippet too are left out. */
    hostErrors: z.array(error).default([]),
    /** What is another than just before the snippet came, but for what is so without it too. */
    replaced: z.array(replaced).default([]),
    /** What its code asks the visitor for, that has not been touched yet. */
    devices: z.array(z.object({ what: z.enum(DEVICES), ...codeShape })).default([]),
    /** Addresses of sounds outside of the document that a script called play() on. */
    sounds: z.array(z.string()),
    /** Addresses of scripts that write into the page while it is parsed; '' for those without one. */
    writers: z.array(z.string()),
    /** Addresses of scripts on the page for which the parser waits; left out: not known. */
    held: z.array(z.string()).optional(),
    /**
     * Events of the page's load that scripts began to wait for when they were over; which script, by its place
     * among the snippet's, -1 where it is not known.
     */
    waits: z.array(z.object({ event: z.string(), script: z.int() })).default([]),
  }),
  empty: {
    hung: null,
    dialogs: [],
    windows: [],
    navigations: [],
    opened: [],
    unmade: [],
    downloads: [],
    console: [],
    errors: [],
    framed: [],
    hostErrors: [],
    replaced: [],
    devices: [],
    sounds: [],
    writers: [],
    waits: [],
  },
});
export type ScriptFact = z.output<typeof scripts.schema>;
