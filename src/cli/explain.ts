import { CHECKS } from '../checks/index.js';
import { ToolError } from '../core/errors.js';
import { suggestFinding } from '../core/words/nearest.js';
import { formatExplanation, formatList } from '../formats/explanation.js';
import { makePaint } from './colours.js';
import { getTextWidth, write, type World } from './streams.js';

/**
 * Prints what a finding means, or the list of all, or of those that begin with what is given.
 * @throws ToolError `unknown-finding`
 */
export async function explain(id: string | undefined, world: World): Promise<number> {
  const paint = makePaint(world, true);
  const width = getTextWidth(world, 100);
  if (id === undefined) {
    await write(world.stdout, formatList(CHECKS, paint, width));
    return 0;
  }
  const check = CHECKS.find((one) => one.id === id);
  if (!check) {
    const alike = CHECKS.filter((one) => one.id.startsWith(id));
    if (alike.length > 0) {
      await write(world.stdout, formatList(alike, paint, width));
      return 0;
    }
    const known = CHECKS.map((one) => one.id);
    throw new ToolError(
      'unknown-finding',
      `"${id}" is no finding Mivket judges. ${suggestFinding(id, known)}`,
    );
  }
  await write(world.stdout, formatExplanation(check, paint, width));
  return 0;
}
