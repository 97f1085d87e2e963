import type * as z from 'zod';
import { flatMap } from '../lists.js';
import { FINDING_IDS } from '../words/finding-ids.js';
import { suggestFinding } from '../words/nearest.js';
import { complainAt, readYaml, type Complaint, type FileKind, type HandWritten } from '../yaml.js';
import { completeHouse, type House } from './house.js';
import { houseSchema } from './schema.js';

const HOUSE_FILE: FileKind<typeof houseSchema> = {
  schema: houseSchema,
  name: 'the house file',
  code: 'bad-house',
  check: (house, source) => [...checkNames(house, source), ...checkViewports(house, source)],
};

/** The house of somebody who has no house file. */
export function getDefaultHouse(): House {
  return completeHouse(houseSchema.parse({}), null);
}

/**
 * Reads a house file's text.
 * @throws ToolError `bad-house`: of each mistake file, line, key, what was found and what is allowed.
 */
export function readHouse(text: string, file: string): House {
  return completeHouse(readYaml(text, file, HOUSE_FILE), file);
}

/** What is told of a viewport is told by its name. */
function checkViewports(
  { viewports = [] }: z.output<typeof houseSchema>,
  source: HandWritten,
): Complaint[] {
  return flatMap(viewports, ({ name }, i) => {
    if (viewports.findIndex((one) => one.name === name) === i) return [];
    const words = `must be another name than those before, found "${name}"`;
    return [complainAt(source, ['viewports', i, 'name'], words)];
  });
}

/** Finding names are checked by hand: the schema cannot say which is near. */
function checkNames(house: z.output<typeof houseSchema>, source: HandWritten): Complaint[] {
  const named = [
    ...Object.keys(house.levels).map((id) => ({ id, path: ['levels', id] })),
    ...house.waivers.map(({ finding }, i) => ({ id: finding, path: ['waivers', i, 'finding'] })),
  ];
  return named
    .filter(({ id }) => !FINDING_IDS.includes(id))
    .map(({ id, path }) => {
      const words = `names the unknown finding "${id}". ${suggestFinding(id, FINDING_IDS)}`;
      return complainAt(source, path, words);
    });
}
