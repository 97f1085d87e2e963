import { getDay } from '../words/time.js';
import * as z from 'zod';
import { isSelector } from '../markup/selectors.js';
import { INSERTS } from '../render.js';
import { parseBytes, parsePixels, parseTime } from '../measure/units.js';

const LEVELS = ['blocker', 'concern', 'advice'] as const;

/** A measure written with its unit, read into a number. */
function measure(parse: (text: string | number) => number | null, example: string) {
  return z.union([z.string(), z.number()]).transform((text, context) => {
    const value = parse(text);
    if (value !== null && value >= 0) return value;
    context.addIssue({ code: 'custom', message: `must be a measure such as ${example}` });
    return z.NEVER;
  });
}

const bytes = measure(parseBytes, '150kB');
const time = measure(parseTime, '200ms');
const pixels = measure(parsePixels, '12px');
const name = z.string().regex(/^[\w-]+$/, 'must be made of letters, digits, - and _');
const size = z.number().int().min(1).max(10_000);

const searched = z.number().int().min(100).max(10_000);

const viewport = z.strictObject({
  name,
  width: size,
  height: size.optional(),
  density: z.number().min(0.5).max(5).optional(),
  touch: z.boolean().optional(),
  scrollBars: z.enum(['classic', 'overlay']).optional(),
  scheme: z.enum(['light', 'dark']).default('light'),
  userAgent: z
    .string()
    .regex(/^[\x20-\x7e]+$/, 'must be one line of plain characters, as browsers send it')
    .optional(),
});

const slotAt = {
  width: z.union([z.literal('full'), size]).default('full'),
  inset: z.number().min(0).max(1000).default(0),
  height: size.optional(),
};

const slotRange = z.strictObject({
  ...slotAt,
  from: z.number().int().min(0).optional(),
  to: z.number().int().min(1).optional(),
  align: z.enum(['start', 'center', 'end']).optional(),
  headingLevel: z.number().int().min(1).max(6).optional(),
});

const origin = z
  .string()
  .refine(isOrigin, 'must be an origin such as https://www.seedlibrary.example');

/** Headers that the connection, or the page as it is served here, has of its own. */
const OWN_HEADERS =
  /^(connection|keep-alive|proxy-.*|te|trailer|transfer-encoding|upgrade|http2-settings|content-length|content-encoding)$/i;
const headerName = z
  .string()
  .regex(/^[\w-]+$/, 'must be the name of a header')
  .refine((given) => !OWN_HEADERS.test(given), 'must not be a header of the connection itself');
/** What a field value may hold (RFC 9110, 5.5), on one line. */
const headerValue = z
  .string()
  .regex(
    /^[\t\x20-\x7e\xa0-\xff]*$/,
    'must be one line of plain characters, as servers send them (no typographic quotes)',
  );

/** An element, or with an @ an attribute of any element; `@on*`: all that begin so. */
const removed = z
  .string()
  .regex(
    /^@?[a-z][\w:-]*\*?$/i,
    'must be an element such as script, or an attribute such as @onclick',
  );
const selector = z.string().refine(isSelector, 'must be a selector of CSS such as #accept');

const waiver = z.strictObject({
  finding: name,
  snippet: z.string().optional(),
  piece: z.string().trim().min(1).optional(),
  until: z.union([z.string(), z.date()]).transform((value, context) => {
    const day = value instanceof Date ? getDay(value) : value;
    if (isDay(day)) return day;
    context.addIssue({ code: 'custom', message: 'must be a day such as 2027-03-31' });
    return z.NEVER;
  }),
  reason: z.string().min(1),
  by: z.string().optional(),
});

const limits = z.strictObject({
  scriptBytes: bytes.default(150_000),
  scriptTime: time.default(200),
  slowdown: z.number().min(1).max(20).default(4),
  totalBytes: bytes.default(1_500_000),
  mediaBytes: bytes.default(6_000_000),
  hosts: z.number().int().min(0).default(4),
  smallestText: pixels.default(12),
  contentJump: z.number().min(0).default(0.1),
});

/** Of every key whether another value of it makes other renders: then evidence is not used again. */
const marks = z.registry<{ renders: boolean }>();

function rendering<S extends z.ZodType>(schema: S): S {
  marks.add(schema, { renders: true });
  return schema;
}

function judging<S extends z.ZodType>(schema: S): S {
  marks.add(schema, { renders: false });
  return schema;
}

/** The house file, as written. Every key has a default; unknown keys are errors. */
export const houseSchema = z.strictObject({
  viewports: rendering(z.array(viewport).min(1).optional()),
  slots: rendering(
    z
      .record(name, z.union([slotRange, z.array(slotRange).min(1)]))
      .refine((slots) => Object.keys(slots).length > 0, 'must have at least one slot')
      .optional(),
  ),
  page: rendering(z.string().optional()),
  origin: rendering(origin.default('https://www.seedlibrary.example')),
  root: rendering(z.string().optional()),
  language: rendering(
    z.string().refine(isLanguage, 'must be a language tag such as en-GB or de').default('en-US'),
  ),
  insert: rendering(
    z
      .union([z.enum(INSERTS), z.array(z.enum(INSERTS)).min(1)])
      .transform((given) => [...new Set([given].flat())])
      .default(['inline']),
  ),
  lateScripts: rendering(z.boolean().default(false)),
  searchWidths: rendering(
    z
      .tuple([searched, searched])
      .refine(([from, to]) => from < to, 'must be two widths, the narrower one first')
      .default([280, 1920]),
  ),
  headers: rendering(z.record(headerName, headerValue).default({})),
  filter: rendering(
    z
      .strictObject({
        remove: z.array(removed).default([]),
        wrapLinesIn: z
          .string()
          .regex(/^[a-z][\w-]*$/i, 'must be the name of an element')
          .optional(),
        maxLength: z.number().int().min(1).optional(),
      })
      .optional(),
  ),
  steps: rendering(z.array(z.strictObject({ click: selector })).default([])),
  expands: judging(z.array(z.string().min(1)).default([])),
  limits: judging(limits.prefault({})),
  monthly: judging(
    z.strictObject({ views: z.number().min(1), transfer: bytes.optional() }).optional(),
  ),
  consent: judging(z.boolean().default(false)),
  hosts: judging(z.strictObject({ allow: z.array(z.string()).default([]) }).optional()),
  players: judging(
    z
      .record(
        z.string(),
        z.strictObject({
          mute: z.record(z.string(), z.union([z.string(), z.number(), z.boolean()])),
        }),
      )
      .default({}),
  ),
  levels: judging(z.record(z.string(), z.enum([...LEVELS, 'off'])).default({})),
  waivers: judging(z.array(waiver).default([])),
  reroute: rendering(
    z
      .record(
        z.string(),
        z.string().refine(isOrigin, 'must be an origin such as http://127.0.0.1:8137'),
      )
      .default({}),
  ),
  holdOn: judging(z.enum(LEVELS).default('blocker')),
});

/** Whether another value of a key of the house makes other renders. @throws Error for a key that does not say */
export function changesRenders(key: string): boolean {
  const schema = (houseSchema.shape as Record<string, z.ZodType | undefined>)[key];
  // Where it was read from is no key of the file.
  if (!schema) return false;
  const mark = marks.get(schema);
  if (!mark) throw new Error(`the house’s key ${key} does not say whether it changes renders`);
  return mark.renders;
}

export type HouseFile = z.output<typeof houseSchema>;

/** A day of the calendar: not the 31st of February. */
function isDay(text: string): boolean {
  if (!/^\d{4}-\d{2}-\d{2}$/.test(text)) return false;
  const time = Date.parse(`${text}T00:00:00Z`);
  return !Number.isNaN(time) && new Date(time).toISOString().startsWith(text);
}

/** A tag of BCP 47. */
function isLanguage(text: string): boolean {
  try {
    return Intl.getCanonicalLocales(text).length === 1;
  } catch {
    return false;
  }
}

function isOrigin(text: string): boolean {
  if (!URL.canParse(text)) return false;
  const url = new URL(text);
  return /^https?:$/.test(url.protocol) && url.pathname === '/' && !url.search && !url.username;
}
