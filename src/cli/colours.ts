import { Chalk, supportsColor } from 'chalk';
import type { Paint } from '../formats/paint.js';
import type { World } from './streams.js';

/** The colours of the inspection sheet, or none: NO_COLOR, --no-color and pipes are respected. */
export function makePaint(world: World, wanted: boolean): Paint {
  const off = !wanted || Boolean(world.env.NO_COLOR) || !world.stdout.isTTY;
  const level = off || !supportsColor ? 0 : supportsColor.level;
  const chalk = new Chalk({ level });
  return {
    blocker: chalk.hex('#c8553d'),
    concern: chalk.hex('#b58a1b'),
    advice: chalk.hex('#6d8fae'),
    sound: chalk.hex('#5d8a5a'),
    strong: chalk.bold,
    faint: chalk.dim,
  };
}
