// Processes that are timed, or whose memory is looked at.
import { spawn } from 'node:child_process';
import { writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { fileURLToPath } from 'node:url';
import { HOSTS } from '../dist/demo/stand-ins/index.js';
import { sumTree } from './memory.js';

const ROOT = fileURLToPath(new URL('..', import.meta.url));
const MIVKET = join(ROOT, 'bin/mivket.js');

export function getReroute(origin) {
  return Object.fromEntries(HOSTS.map((host) => [host, origin]));
}

function start(args) {
  return spawn(process.execPath, [MIVKET, ...args], { stdio: ['ignore', 'ignore', 'inherit'] });
}

export async function runAudit(args) {
  const begin = performance.now();
  const child = start([...args, '--quiet']);
  await new Promise((resolve) => child.on('close', resolve));
  return performance.now() - begin;
}

export async function getPeak(args) {
  const child = start([...args, '--quiet']);
  let peak = 0;
  const timer = setInterval(() => (peak = Math.max(peak, sumTree(child.pid))), 500);
  await new Promise((resolve) => child.on('close', resolve));
  clearInterval(timer);
  return peak;
}

export function median(numbers) {
  return [...numbers].sort((a, b) => a - b)[Math.floor(numbers.length / 2)];
}

/** The bare loop in a process of its own. */
export async function runAlone(work, texts, widths, reroute) {
  const begin = performance.now();
  const file = join(work, 'alone.json');
  writeFileSync(file, JSON.stringify({ texts, widths, reroute }));
  const child = spawn(process.execPath, [join(ROOT, 'bench/bare-loop.js'), file]);
  await new Promise((resolve) => child.on('close', resolve));
  return performance.now() - begin;
}
