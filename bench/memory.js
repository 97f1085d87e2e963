// How much memory a process and all below it take.
import { execFileSync } from 'node:child_process';

/** Resident kB of a process and all below it. */
export function sumTree(root) {
  const lines = execFileSync('ps', ['-eo', 'pid=,ppid=,rss='], { encoding: 'utf8' })
    .trim()
    .split('\n');
  const all = lines.map((line) => line.trim().split(/\s+/).map(Number));
  const tree = new Set([root]);
  for (let grown = true; grown;) {
    grown = false;
    for (const [pid, parent] of all) {
      if (tree.has(pid) || !tree.has(parent)) continue;
      tree.add(pid);
      grown = true;
    }
  }
  return all.filter(([pid]) => tree.has(pid)).reduce((sum, [, , rss]) => sum + rss, 0);
}
