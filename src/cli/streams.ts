import type { Readable } from 'node:stream';

/** What a stream that is written to may tell of itself. */
export interface Output {
  write(text: string, done?: () => void): unknown;
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

/** Writes and waits until it is out, so that a pipe is not cut off when the process ends. */
export function write(output: Output, text: string): Promise<void> {
  return new Promise((resolve) => {
    output.write(text, () => resolve());
  });
}
