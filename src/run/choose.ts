import { CHECKS } from '../checks/index.js';
import type { Check } from '../core/check.js';
import { isDrill } from '../core/plan.js';
import { ToolError, type ErrorCode } from '../core/errors.js';
import { makeViewport, type House, type Slot } from '../core/house/house.js';
import type { Viewport } from '../core/render.js';
import { suggest, suggestFinding } from '../core/words/nearest.js';
import type { AuditRequest, Called } from './request.js';

/** The slots asked for, or all. @throws ToolError `unknown-slot` */
export function chooseSlots(
  house: House,
  names: readonly string[] | undefined,
  called: Called,
): Slot[] {
  return (
    names?.map((name) => pick(house.slots, name, 'unknown-slot', called('slots'))) ?? house.slots
  );
}

/** The viewports asked for by name or width, or all of the house. @throws ToolError `bad-option` */
export function chooseViewports(
  house: House,
  { viewports, widths }: Pick<AuditRequest, 'viewports' | 'widths'>,
  called: Called,
): Viewport[] {
  const named = (viewports ?? []).map((name) =>
    pick(house.viewports, name, 'bad-option', called('viewports')),
  );
  const given = (widths ?? []).map((width) => readWidth(house, String(width), called('widths')));
  const chosen = [...named, ...given];
  return chosen.length > 0
    ? [...new Map(chosen.map((one) => [one.name, one])).values()]
    : house.viewports;
}

/** @param option how what names it is called */
function pick<T extends { name: string }>(
  all: readonly T[],
  name: string,
  code: ErrorCode,
  option: string,
): T {
  const found = all.find((one) => one.name === name);
  if (found) return found;
  const known = all.map((one) => one.name);
  throw new ToolError(
    code,
    `\`${option}\` names "${name}", which the house does not have. ${suggest(name, known)}`,
  );
}

function readWidth(house: House, text: string, option: string): Viewport {
  const match = /^(\d+)(?:@(\d+(?:\.\d+)?))?$/.exec(text);
  const width = Number(match?.[1]);
  const density = match?.[2] === undefined ? undefined : Number(match[2]);
  const wide = width >= 100 && width <= 10_000;
  const dense = density === undefined || (density >= 0.5 && density <= 5);
  if (!match || !wide || !dense) {
    throw new ToolError(
      'bad-option',
      `\`${option}\` must be px from 100 to 10000, with a density from 0.5 to 5 if wanted (320,768@2), found "${text}".`,
    );
  }
  const known = house.viewports.find((one) => one.width === width);
  if (known && density === undefined) return known;
  // A viewport of the house may have a number for its name.
  const name = house.viewports.some((one) => one.name === text) ? `${text}px` : text;
  return makeViewport({ ...known, name, width, ...(density !== undefined && { density }) });
}

/** The checks to run. @throws ToolError `unknown-finding` */
export function chooseChecks(
  { only, skip, outage = false }: Pick<AuditRequest, 'only' | 'skip' | 'outage'>,
  called: Called,
): Check[] {
  for (const [option, ids] of [
    ['only', only],
    ['skip', skip],
  ] as const) {
    for (const id of ids ?? []) {
      if (CHECKS.some((check) => check.id === id)) continue;
      const known = CHECKS.map((check) => check.id);
      throw new ToolError(
        'unknown-finding',
        `\`${called(option)}\` names "${id}", which is no finding Mivket judges. ${suggestFinding(id, known)}`,
      );
    }
  }
  return CHECKS.filter((check) => {
    const { id } = check;
    // What takes a drill is looked for only where one was asked for, or it itself.
    const isAsked = only === undefined ? outage || !isDrill(check) : only.includes(id);
    return isAsked && !skip?.includes(id);
  });
}
