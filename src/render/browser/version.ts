import { execFile } from 'node:child_process';
import { promisify } from 'node:util';
import { getMajor } from '../../core/doctor/releases.js';
import type { Program } from '../page/engine.js';

const run = promisify(execFile);
const LIMIT = 10_000;

/**
 * What a browser says of itself, such as `Chromium 147.0.7727.0`.
 * @throws the system's error, with `stderr`, where it does not run
 */
export async function askVersion({ path, env }: Program): Promise<string> {
  const options = { env: { ...process.env, ...env }, timeout: LIMIT };
  const { stdout } = await run(path, ['--version'], options);
  return stdout.trim().split('\n').at(-1)!;
}

const majors = new Map<string, Promise<number | null>>();

/** A browser's major version before it is started; null where it does not tell. Asked once each. */
export function getMajorVersion(program: Program): Promise<number | null> {
  const known = majors.get(program.path) ?? findMajor(program);
  majors.set(program.path, known);
  return known;
}

async function findMajor(program: Program): Promise<number | null> {
  if (program.major !== undefined) return program.major;
  // On Windows a browser answers the question by opening a window.
  if (process.platform === 'win32') return null;
  return getMajor(await askVersion(program).catch(() => ''));
}
