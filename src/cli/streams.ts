import type { Readable } from 'node:stream';
import { ToolError } from '../core/errors.js';
import { describeFault } from '../core/words/fault.js';
import { cleanLine } from '../formats/clean.js';

/** What a stream that is written to may tell of itself. */
export interface Output {
  write(text: string, done?: (error?: Error | null) => void): unknown;
  isTTY?: boolean;
  columns?: number;
}

/** All that a command touches of the world outside: injected, so that a test can stand in. */
export interface World {
  stdin: Readable & { isTTY?: boolean };
  stdout: Output;
  stderr: Output;
  env: Record<string, string | undefined>;
  cwd: string;
}

/** The columns that text is wrapped at: those of the terminal, within reason. */
export function getTextWidth({ stdout }: World, most: number): number {
  return Math.min(Math.max(stdout.columns ?? 100, 40), most);
}

/** Who reads us may stop early (`| head`): that is no fault. */
const LEFT = /^(EPIPE|ERR_STREAM_DESTROYED|ECONNRESET)$/;

/**
 * Writes and waits until it is out, so that a pipe is not cut off when the process ends.
 * @throws ToolError `cannot-write`
 */
export function write(output: Output, text: string): Promise<void> {
  return new Promise((resolve, reject) => {
    output.write(text, (error) => {
      const { code = '' } = (error ?? {}) as NodeJS.ErrnoException;
      if (!error || LEFT.test(code)) resolve();
      else
        reject(
          new ToolError(
            'cannot-write',
            `The output could not be written: ${describeFault(error)}.`,
          ),
        );
    });
  });
}

/** What is wrong, and what to do. */
export async function complainOf(world: World, { sentences, remedy }: ToolError): Promise<void> {
  for (const words of sentences) await complain(world, remedy ? `${words} ${remedy}` : words);
}

/** A sentence on standard error. It never fails: nobody could be told. */
export async function complain(world: World, words: string): Promise<void> {
  await write(world.stderr, `mivket: ${cleanLine(words)}\n`).catch(() => undefined);
}
