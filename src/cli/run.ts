import { CommanderError } from 'commander';
import { ToolError } from '../core/errors.js';
import { makeProgram } from './program.js';
import { complain, complainOf, write, type World } from './streams.js';

const BROKEN = 4;

/** Runs one command line; resolves to the exit code. It never throws and never ends the process. */
export async function run(args: string[], world: World): Promise<number> {
  ignoreBrokenPipe(world);
  const outcome = { code: 0 };
  try {
    await makeProgram(world, outcome).parseAsync(args, { from: 'user' });
    return outcome.code;
  } catch (error) {
    return explain(error, world);
  }
}

async function explain(error: unknown, world: World): Promise<number> {
  // Help and version were asked for; what is wrong with an option has been said already.
  if (error instanceof CommanderError) return error.exitCode === 0 ? 0 : 2;
  if (error instanceof ToolError) {
    await complainOf(world, error);
    return error.exitCode;
  }
  const text = error instanceof Error ? error.message : String(error);
  await complain(world, `something went wrong inside Mivket: ${text}`);
  if (world.env.MIVKET_DEBUG && error instanceof Error)
    await write(world.stderr, `${error.stack}\n`).catch(() => undefined);
  return BROKEN;
}

/** Who reads us may stop early (`| head`): that is no fault. */
function ignoreBrokenPipe({ stdout, stderr }: World): void {
  for (const output of [stdout, stderr]) {
    const stream = output as {
      on?: (event: 'error', listener: (error: NodeJS.ErrnoException) => void) => void;
    };
    stream.on?.('error', () => undefined);
  }
}
