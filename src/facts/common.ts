import * as z from 'zod';

/** A box in CSS px, from the top left of the page. */
export const boxSchema = z.object({
  x: z.number(),
  y: z.number(),
  width: z.number(),
  height: z.number(),
});
export type Box = z.output<typeof boxSchema>;

/** Across and down, px. */
export const sizeSchema = z.object({ width: z.number(), height: z.number() });
export type Size = z.output<typeof sizeSchema>;

/**
 * Where something on the page comes from: a place in the snippet's text that the parser made it
 * from, or a script (the offset of its tag in the snippet, where known, and the line in its file).
 */
export const sourceSchema = z.union([
  z.object({ offset: z.int() }),
  z.object({ script: z.int().nullable(), line: z.int().nullable() }),
]);
export type Source = z.output<typeof sourceSchema>;

/** Where code is: in the snippet, or by which of its scripts; `address` and `line` (from 1) of the code itself. */
export const codeShape = {
  from: sourceSchema.nullable(),
  address: z.string().nullable(),
  line: z.int().nullable(),
};

/** Computed (not used) values, as the cascade left them: `auto`, `640px`, `100%`; '' where the engine does not tell. */
export const elementStyleSchema = z.object({
  display: z.string(),
  position: z.string(),
  float: z.string(),
  width: z.string(),
  minWidth: z.string(),
  maxWidth: z.string(),
  overflowX: z.string(),
});
export type ElementStyle = z.output<typeof elementStyleSchema>;

/** An element by its tag and where it comes from, with a selector for what a script made. */
export const whoShape = {
  tag: z.string(),
  from: sourceSchema,
  selector: z.string().nullable(),
};

/** What makes an element known: its number in its document, and the frame it stands in. */
export const nodeShape = {
  id: z.int(),
  /** The number of the frame element in whose document it stands; left out: the page itself. */
  frame: z.int().optional(),
};

/** What facts of certain elements have of the element itself. */
export const objectShape = {
  ...nodeShape,
  from: sourceSchema,
  /** For what a script made: a selector to find it by. */
  selector: z.string().nullable(),
  box: boxSchema,
  /** A visitor can see it, when it is scrolled to. */
  shown: z.boolean(),
  /** Assistive technology meets it. */
  exposed: z.boolean(),
  style: elementStyleSchema,
};

/** What of an object stands with its element, and is not read again. */
export type OfElement = 'from' | 'selector' | 'box' | 'shown' | 'exposed' | 'style';
