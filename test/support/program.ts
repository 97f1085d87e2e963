import { spawn, type ChildProcess } from 'node:child_process';
import { mkdirSync, mkdtempSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { dirname, join } from 'node:path';
import { fileURLToPath } from 'node:url';
import type { RunDocument } from '../../dist/src/core/run.js';

/** The built program. */
export const PROGRAM = fileURLToPath(new URL('../../bin/mivket.js', import.meta.url));

/** What a finished program left. */
export interface Outcome {
  code: number | null;
  out: string;
  err: string;
}

/** A folder of its own for a test, with what the program leaves in the temporary folder in it too. */
export class Workshop {
  readonly folder = mkdtempSync(join(tmpdir(), 'mivket-test-'));
  readonly temporary = join(this.folder, 'tmp');

  constructor() {
    mkdirSync(this.temporary);
  }

  write(name: string, content: string | Uint8Array): string {
    const path = join(this.folder, name);
    mkdirSync(dirname(path), { recursive: true });
    writeFileSync(path, content);
    return path;
  }

  read(name: string): string {
    return readFileSync(join(this.folder, name), 'utf8');
  }

  start(
    args: string[],
    env: Record<string, string> = {},
  ): { child: ChildProcess; done: Promise<Outcome> } {
    return this.launch(process.execPath, [PROGRAM, ...args], env);
  }

  /** Starts any program in the folder. */
  launch(
    program: string,
    args: string[],
    env: Record<string, string> = {},
    cwd = this.folder,
  ): { child: ChildProcess; done: Promise<Outcome> } {
    const child = spawn(program, args, {
      cwd,
      env: { ...process.env, TMPDIR: this.temporary, NO_COLOR: '1', ...env },
    });
    const outcome: Outcome = { code: null, out: '', err: '' };
    child.stdout.on('data', (chunk: Buffer) => (outcome.out += chunk.toString()));
    child.stderr.on('data', (chunk: Buffer) => (outcome.err += chunk.toString()));
    const done = new Promise<Outcome>((resolve) =>
      child.on('close', (code) => resolve({ ...outcome, code })),
    );
    return { child, done };
  }

  run(
    args: string[],
    { input = '', env = {} }: { input?: string; env?: Record<string, string> } = {},
  ): Promise<Outcome> {
    const { child, done } = this.start(args, env);
    child.stdin!.on('error', () => undefined);
    child.stdin!.end(input);
    return done;
  }

  /** Audits and reads the run document. */
  async audit(
    args: string[],
    input = '',
  ): Promise<{ code: number | null; err: string; document: RunDocument }> {
    const { code, out, err } = await this.run(['audit', '--format', 'json', ...args], { input });
    return { code, err, document: JSON.parse(out) as RunDocument };
  }

  close(): void {
    rmSync(this.folder, { recursive: true, force: true });
  }
}

/** The names of a document's findings, by snippet. */
export function getIds(document: RunDocument): Record<string, string[]> {
  return Object.fromEntries(
    document.snippets.map(({ name, findings }) => [name, findings.map(({ id }) => id)]),
  );
}
