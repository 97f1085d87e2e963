import * as z from 'zod';
import { cause, finding, level, waiver } from './finding.js';
import { loadsReport } from './loads-report.js';
import { renderReport } from './render-report.js';
import { viewportSchema } from './render.js';

export const verdict = z.enum(['clear', 'hold', 'unsure']);
const notJudged = z.object({ id: z.string(), why: z.string(), snippet: z.string() });

const gap = z.object({
  kind: z.string(),
  why: z.string(),
  seen: z.number().nullable(),
  kept: z.number().nullable(),
  slot: z.string(),
  viewport: z.string(),
  variant: z.string(),
});

const frameFit = z.object({
  line: z.int().nullable().describe('Its line in the snippet; null where a script made it.'),
  name: z.string(),
  by: z
    .enum(['content', 'proportion', 'nothing'])
    .describe('By what its height goes: its document, its proportion, or whatever it is given.'),
  rows: z.array(
    z.object({
      slot: z.string(),
      window: z.number(),
      width: z.number(),
      height: z.number(),
      needed: z
        .number()
        .nullable()
        .describe('The height that fits, px; null where it fits as it is, or has none of its own.'),
    }),
  ),
  css: z.string().nullable().describe('What makes it fit everywhere, to paste.'),
  fits: z.boolean(),
});

const snippet = z.object({
  name: z.string(),
  path: z.string().nullable(),
  published: z
    .string()
    .nullable()
    .default(null)
    .describe(
      'Where the page is, after redirects, that was looked at as it is published; null for a paste.',
    ),
  hash: z.string().describe('hex SHA-256 of the text, as UTF-8.'),
  line: z
    .int()
    .nullable()
    .default(null)
    .describe('The line of its file that it begins in; null where it is the whole file.'),
  text: z.string(),
  verdict,
  fitsFrom: z
    .number()
    .nullable()
    .describe('The narrowest slot width, px, from which nothing sticks out; null when unknown.'),
  searched: z
    .object({
      windows: z.array(z.object({ from: z.int(), to: z.int() })),
      tried: z.int(),
      why: z.string().nullable().describe('Why not all was searched.'),
    })
    .describe('Windows that were tried besides those that were rendered, by their widths.'),
  frameFit: z
    .array(frameFit)
    .default([])
    .describe('Frames whose documents were measured, and players: what they have and need.'),
  renders: z.array(renderReport),
  findings: z.array(finding),
  known: z
    .int()
    .default(0)
    .describe('Findings that are left out, since the earlier run had them too.'),
  causes: z.array(cause),
  mended: z
    .string()
    .nullable()
    .describe('The whole snippet with all cures; null where there is none.'),
  contacts: z
    .array(
      z.object({
        host: z.string(),
        site: z.string().describe('Its registrable domain.'),
        requests: z.int(),
        wire: z.number().describe('Bytes over the wire.'),
        unpacked: z.number(),
        scripts: z.int(),
        stored: z.int().describe('Things stored under it on the device, unasked.'),
      }),
    )
    .default([])
    .describe('Hosts besides the page’s own site, each as in the render that asked it most.'),
  loads: loadsReport
    .nullable()
    .default(null)
    .describe('What was asked for in the render with most of it; null where nothing was.'),
  openLines: z
    .array(z.string())
    .default([])
    .describe('Hosts that a line stayed open to: what comes over it later was not seen.'),
  gaps: z.array(gap),
});

const slot = z.object({
  name: z.string(),
  align: z.string(),
  ranges: z.array(
    z.object({
      from: z.number(),
      to: z.number().nullable().describe('null: however wide the window is.'),
      width: z.union([z.number(), z.literal('full')]),
      inset: z.number(),
      height: z.number().nullable(),
    }),
  ),
});

const house = z.object({
  file: z.string().nullable(),
  ownPage: z.boolean().describe('False: the neutral page.'),
  slots: z.array(slot),
  viewports: z.array(viewportSchema),
  holdOn: level,
});

const check = z.object({
  id: z.string(),
  title: z.string(),
  subject: z.string(),
  level: z.enum([...level.options, 'off']).describe('As the house has it.'),
  decided: z.string().describe('How it is decided.'),
  standard: z.string().nullable(),
  ran: z.boolean().describe('False where it was not asked for, or is off.'),
});

const idleWaiver = waiver.omit({ expired: true }).extend({ finding: z.string() });

const counts = z.object({ blocker: z.int(), concern: z.int(), advice: z.int() });

/** The run document: the single source of its types and of the JSON Schema that ships. */
export const runSchema = z.object({
  schema: z.literal('mivket-run-1'),
  tool: z.object({ name: z.string(), version: z.string() }),
  startedAt: z.string(),
  renderedAt: z
    .string()
    .nullable()
    .default(null)
    .describe(
      'When what it is judged by began to be rendered: before `startedAt` where a kept run is judged again; null: not known.',
    ),
  durationMs: z.number(),
  house,
  engines: z.array(z.object({ name: z.string(), version: z.string() })),
  verdict,
  counts,
  checks: z
    .array(check)
    .describe('All findings that there are, and which of them were looked for.'),
  notJudged: z.array(notJudged),
  since: z
    .object({ run: z.string(), startedAt: z.string().nullable().describe('When it was rendered.') })
    .nullable()
    .default(null)
    .describe('The earlier run whose findings are left out; null: none are.'),
  idleWaivers: z
    .array(idleWaiver)
    .default([])
    .describe(
      'Waivers that name a snippet of the run and accept nothing in it, though all was looked at.',
    ),
  snippets: z.array(snippet),
});

export type RunDocument = z.infer<typeof runSchema>;
export type SnippetReport = z.infer<typeof snippet>;
export type { Cause, Finding } from './finding.js';
export type { RenderReport } from './render-report.js';
export type NotJudged = z.infer<typeof notJudged>;
export type Verdict = z.infer<typeof verdict>;
export type CheckReport = z.infer<typeof check>;
export type HouseReport = z.infer<typeof house>;
export type IdleWaiver = z.infer<typeof idleWaiver>;
export type Counts = z.infer<typeof counts>;
