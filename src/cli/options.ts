import * as z from 'zod';
import { ToolError } from '../core/errors.js';
import { level } from '../core/finding.js';
import { INSERTS } from '../core/render.js';
import { parseTime } from '../core/measure/units.js';
import { joinWords } from '../core/words/list.js';
import type { FindingBudget } from '../core/budget.js';
import { ENDINGS, getFormatOf, PRINTED } from '../formats/table.js';
import type { AuditRequest, Called } from '../run/request.js';

const texts = z.array(z.string()).optional();

const names = PRINTED.map(({ name }) => name) as [string, ...string[]];
const saved = z
  .string()
  .refine(
    (file) => getFormatOf(file) !== null || isRecording(file),
    `must end on ${joinWords([...ENDINGS, '.har'], 'or')}`,
  );

/** A recording is made while pages load, not of what was found. */
function isRecording(file: string): boolean {
  return /\.har$/i.test(file);
}

/** With its unit: a bare number could be either. */
function isTime(text: string): boolean {
  const ms = /s$/i.test(text) ? parseTime(text) : null;
  return ms !== null && ms >= 1000 && ms <= 3_600_000;
}

/** The options of `audit`, parsed once at the door. */
const schema = z.strictObject({
  inputs: z.array(z.string()).default([]),
  code: z.array(z.string()).default([]),
  house: z.string().optional(),
  slot: texts,
  insert: z.array(z.enum(INSERTS)).optional(),
  viewport: texts,
  width: texts,
  format: z.enum(names).default(names[0]),
  save: z.array(saved).default([]),
  open: z.boolean().default(false),
  pictures: z.string().min(1).optional(),
  keep: z.string().min(1).optional(),
  record: z
    .string()
    .regex(/\.har$/i, 'must end on .har')
    .optional(),
  replay: z.string().min(1).optional(),
  extract: z.boolean().default(false),
  markupOnly: z.boolean().default(false),
  offline: z.boolean().default(false),
  outage: z.boolean().default(false),
  ranges: z.boolean().default(true),
  only: texts,
  skip: texts,
  newSince: z.string().min(1).optional(),
  writeWaivers: z
    .string()
    .regex(/\.ya?ml$/i, 'must end on .yaml or .yml')
    .optional(),
  clearTo: z
    .string()
    .regex(/\.jsonl$/i, 'must end on .jsonl')
    .optional(),
  by: z.string().trim().min(1).optional(),
  budget: z.array(z.string()).transform(readBudget).optional(),
  holdOn: level.optional(),
  jobs: z.coerce.number().int().min(1).max(32).optional(),
  timeLimit: z
    .string()
    .refine(isTime, 'must be a time from 1s to 3600s, such as 90s')
    .transform((text) => parseTime(text)!)
    .optional(),
  browser: z.string().min(1).optional(),
  quiet: z.boolean().default(false),
  color: z.boolean().default(true),
});

export type AuditFlags = z.output<typeof schema>;

/** What a command that tells of something else than a run can print. */
export const TEXT_OR_JSON = ['text', 'json'];

/**
 * @param formats that the command can print; left out: all of a run
 * @throws ToolError `bad-option`: which option, what was found, what is allowed.
 */
export function parseOptions(
  given: Record<string, unknown>,
  formats: readonly string[] = names,
): AuditFlags {
  const parsed = schema.extend({ format: z.enum(formats).default('text') }).safeParse(given);
  if (parsed.success) return Object.freeze(checkTogether(takeRecording(parsed.data)));
  const issue = parsed.error.issues[0]!;
  const name = String(issue.path[0]).replace(/[A-Z]/g, (letter) => `-${letter.toLowerCase()}`);
  const value = issue.path.reduce<unknown>(
    (at, key) => (at as Record<PropertyKey, unknown>)?.[key],
    given,
  );
  throw new ToolError(
    'bad-option',
    `\`--${name}\` ${say(issue, name)}, found ${JSON.stringify(value)}.`,
  );
}

/** `--save FILE.har` is `--record FILE.har`. */
function takeRecording(options: AuditFlags): AuditFlags {
  const { save, record } = options;
  const [first, second] = [
    ...new Set([...(record === undefined ? [] : [record]), ...save.filter(isRecording)]),
  ];
  if (second !== undefined)
    throw new ToolError(
      'bad-option',
      `There is one recording of a run: found ${first} and ${second}.`,
    );
  return first === undefined ? options : { ...options, record: first };
}

/** Options that are each sound and cannot go together. */
function checkTogether(options: AuditFlags): AuditFlags {
  const { record, replay, markupOnly, keep, pictures } = options;
  checkClearing(options);
  if (record !== undefined && replay !== undefined)
    throw clash('--record', '--replay', 'a replay asks nobody, so there is nothing to record');
  const shown = options.save.find((file) => getFormatOf(file)?.drawn);
  const renders = {
    '--record': record,
    '--replay': replay,
    '--keep': keep,
    '--pictures': pictures,
    [`--save ${shown}`]: shown,
  };
  for (const [option, value] of Object.entries(renders))
    if (markupOnly && value !== undefined)
      throw clash(option, '--markup-only', 'without a render there is nothing of that kind');
  return options;
}

/** What is left out would be cleared unseen. */
function checkClearing(options: AuditFlags): void {
  const { clearTo, by, markupOnly, only, skip, newSince, budget } = options;
  if (by !== undefined && clearTo === undefined)
    throw new ToolError('bad-option', '`--by` says who clears: it goes with `--clear-to`.');
  if (clearTo === undefined) return;
  const left = { '--only': only, '--skip': skip, '--new-since': newSince, '--budget': budget };
  const [partly] = Object.entries(left).find(([, value]) => value !== undefined) ?? [];
  const found = partly ?? (markupOnly ? '--markup-only' : null);
  if (found !== null) throw clash('--clear-to', found, 'what is cleared was looked at as a whole');
}

/** Whether anything shows what renders look like. */
export function wantsShots({ save, pictures, open, markupOnly }: AuditFlags): boolean {
  const shown = save.some((file) => getFormatOf(file)?.shots);
  return !markupOnly && (shown || open || pictures !== undefined);
}

/** How the parts of a request are called on the command line. */
const CALLED: { [part in keyof AuditRequest]?: string } = {
  slots: '--slot',
  inserts: '--insert',
  viewports: '--viewport',
  widths: '--width',
  only: '--only',
  skip: '--skip',
};
export const called: Called = (part) => CALLED[part] ?? part;

/** What of the options an audit is asked for. */
export function toRequest(options: AuditFlags): Omit<AuditRequest, 'snippets'> {
  const { slot, insert, viewport, width, only, skip, holdOn, browser, jobs, keep, record, replay } =
    options;
  const given = {
    slots: slot,
    inserts: insert,
    viewports: viewport,
    widths: width,
    only,
    skip,
    holdOn,
    newSince: options.newSince,
    browser,
    jobs,
    timeLimit: options.timeLimit,
    keep,
    record,
    replay,
    markupOnly: options.markupOnly,
    offline: options.offline,
    outage: options.outage,
    ranges: options.ranges,
  };
  return Object.fromEntries(Object.entries(given).filter(([, value]) => value !== undefined));
}

export function clash(option: string, other: string, why: string): ToolError {
  return new ToolError('bad-option', `\`${option}\` does not go with \`${other}\`: ${why}.`);
}

/** `concern:5` and such, a level each. */
function readBudget(given: readonly string[], context: z.RefinementCtx): FindingBudget {
  const budget: FindingBudget = {};
  for (const one of given) {
    const [, name, count] = /^([a-z]+):(\d+)$/.exec(one) ?? [];
    const known = level.safeParse(name);
    if (known.success) budget[known.data] = Number(count);
    else
      context.addIssue({
        code: 'custom',
        message: 'must be levels with a number each, such as blocker:0,concern:5',
      });
  }
  return budget;
}

function say(issue: z.core.$ZodIssue, name: string): string {
  if (issue.code === 'invalid_value') return `must be one of ${issue.values.join(', ')}`;
  if (name === 'jobs') return 'must be a whole number from 1 to 32';
  return issue.message;
}
