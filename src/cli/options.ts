import { z } from 'zod';
import { CHECKS } from '../checks/index.js';
import type { Check } from '../core/check.js';
import { ToolError } from '../core/errors.js';
import {
  getSlotRange,
  makeViewport,
  type House,
  type Slot,
  type Viewport,
} from '../core/house/house.js';
import { joinWords } from '../core/words/list.js';
import { suggest } from '../core/words/nearest.js';

const texts = z.array(z.string()).optional();

/** What `--save` writes, by the ending. */
const SAVED = /\.(json|html|png)$/i;

/** The options of `audit`, parsed once at the door. */
const schema = z.strictObject({
  inputs: z.array(z.string()).default([]),
  code: z.string().optional(),
  house: z.string().optional(),
  slot: texts,
  viewport: texts,
  width: texts,
  format: z.enum(['text', 'json']).default('text'),
  save: z.array(z.string().regex(SAVED, 'must end on .json, .html or .png')).default([]),
  open: z.boolean().default(false),
  pictures: z.string().min(1).optional(),
  keep: z.string().min(1).optional(),
  record: z
    .string()
    .regex(/\.har$/i, 'must end on .har')
    .optional(),
  replay: z.string().min(1).optional(),
  markupOnly: z.boolean().default(false),
  offline: z.boolean().default(false),
  only: texts,
  skip: texts,
  holdOn: z.enum(['blocker', 'concern', 'advice']).optional(),
  jobs: z.coerce.number().int().min(1).max(32).optional(),
  browser: z.string().min(1).optional(),
  quiet: z.boolean().default(false),
  color: z.boolean().default(true),
});

export type AuditOptions = z.output<typeof schema>;

/** @throws ToolError `bad-option`: which option, what was found, what is allowed. */
export function parseOptions(given: Record<string, unknown>): AuditOptions {
  const parsed = schema.safeParse(given);
  if (parsed.success) return Object.freeze(checkTogether(parsed.data));
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

/** Options that are each sound and cannot go together. */
function checkTogether(options: AuditOptions): AuditOptions {
  const { record, replay, markupOnly, keep, pictures } = options;
  if (record !== undefined && replay !== undefined)
    throw clash('--record', '--replay', 'a replay asks nobody, so there is nothing to record');
  const png = options.save.find((file) => /\.png$/i.test(file));
  const renders = {
    '--record': record,
    '--replay': replay,
    '--keep': keep,
    '--pictures': pictures,
    [`--save ${png}`]: png,
  };
  for (const [option, value] of Object.entries(renders))
    if (markupOnly && value !== undefined)
      throw clash(option, '--markup-only', 'without a render there is nothing of that kind');
  return options;
}

/** Whether pictures of the renders are wanted by anything. */
export function wantsPictures({ save, pictures, open, markupOnly }: AuditOptions): boolean {
  const shown = save.some((file) => /\.(html|png)$/i.test(file));
  return !markupOnly && (shown || open || pictures !== undefined);
}

/** Whether the checks chosen only read the markup, and nothing else asks for a render. */
export function needsNoRender(options: AuditOptions, checks: readonly Check[]): boolean {
  const { keep, record, replay } = options;
  const asked = wantsPictures(options) || [keep, record, replay].some((path) => path !== undefined);
  return !asked && checks.every(({ needs }) => needs.length === 0);
}

/**
 * Looks whether there is anything to render.
 * @throws ToolError `bad-option`: where a slot that was asked for, or every slot, is at none of the widths
 */
export function checkPlan(plan: {
  options: AuditOptions;
  slots: readonly Slot[];
  viewports: readonly Viewport[];
}): void {
  const { options, slots, viewports } = plan;
  if (options.markupOnly) return;
  const isThere = (slot: Slot) => viewports.some(({ width }) => getSlotRange(slot, width) !== null);
  const missing = slots.filter((slot) => !isThere(slot));
  if (missing.length === 0 || (options.slot === undefined && missing.length < slots.length)) return;
  const names = joinWords(missing.map(({ name }) => `"${name}"`));
  const widths = joinWords([...new Set(viewports.map(({ width }) => String(width)))]);
  const slot = missing.length === 1 ? 'The slot' : 'The slots';
  throw new ToolError(
    'bad-option',
    `${slot} ${names} ${missing.length === 1 ? 'does' : 'do'} not exist at ${widths} px: there is nothing to render.`,
  );
}

export function clash(option: string, other: string, why: string): ToolError {
  return new ToolError('bad-option', `\`${option}\` does not go with \`${other}\`: ${why}.`);
}

function say(issue: z.core.$ZodIssue, name: string): string {
  if (issue.code === 'invalid_value') return `must be one of ${issue.values.join(', ')}`;
  if (name === 'jobs') return 'must be a whole number from 1 to 32';
  return issue.message;
}

/** The slots asked for, or all. */
export function chooseSlots(house: House, names: readonly string[] | undefined): Slot[] {
  if (!names) return house.slots;
  return names.map((name) => {
    const slot = house.slots.find((one) => one.name === name);
    if (slot) return slot;
    const known = house.slots.map((one) => one.name);
    throw new ToolError(
      'unknown-slot',
      `\`--slot\` names "${name}", which the house does not have. ${suggest(name, known)}`,
    );
  });
}

/** The viewports asked for by name or width, or all of the house. */
export function chooseViewports(
  house: House,
  options: Pick<AuditOptions, 'viewport' | 'width'>,
): Viewport[] {
  const named = (options.viewport ?? []).map((name) => {
    const viewport = house.viewports.find((one) => one.name === name);
    if (viewport) return viewport;
    const known = house.viewports.map((one) => one.name);
    throw new ToolError(
      'bad-option',
      `\`--viewport\` names "${name}", which the house does not have. ${suggest(name, known)}`,
    );
  });
  const widths = (options.width ?? []).map((text) => readWidth(house, text));
  const chosen = [...named, ...widths];
  return chosen.length > 0
    ? [...new Map(chosen.map((one) => [one.name, one])).values()]
    : house.viewports;
}

function readWidth(house: House, text: string): Viewport {
  const match = /^(\d+)(?:@(\d+(?:\.\d+)?))?$/.exec(text);
  const [width, density] = [
    Number(match?.[1]),
    match?.[2] === undefined ? undefined : Number(match[2]),
  ];
  const sound =
    match &&
    width >= 100 &&
    width <= 10_000 &&
    (density === undefined || (density >= 0.5 && density <= 5));
  if (!sound) {
    throw new ToolError(
      'bad-option',
      `\`--width\` must be px from 100 to 10000, with a density from 0.5 to 5 if wanted (320,768@2), found "${text}".`,
    );
  }
  const known = house.viewports.find((one) => one.width === width);
  if (known && density === undefined) return known;
  // A viewport of the house may have a number for its name.
  const name = house.viewports.some((one) => one.name === text) ? `${text}px` : text;
  return makeViewport({ ...known, name, width, ...(density !== undefined && { density }) });
}

/** The checks to run. */
export function chooseChecks({ only, skip }: Pick<AuditOptions, 'only' | 'skip'>): Check[] {
  for (const [option, ids] of [
    ['only', only],
    ['skip', skip],
  ] as const) {
    for (const id of ids ?? []) {
      if (CHECKS.some((check) => check.id === id)) continue;
      const known = CHECKS.map((check) => check.id);
      throw new ToolError(
        'unknown-finding',
        `\`--${option}\` names "${id}", which is no finding Mivket judges. ${suggest(id, known)}`,
      );
    }
  }
  return CHECKS.filter(
    ({ id }) => (only === undefined || only.includes(id)) && !skip?.includes(id),
  );
}
