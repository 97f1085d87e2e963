import { execFileSync } from 'node:child_process';
import { existsSync, readdirSync, readFileSync } from 'node:fs';

/** A running process, with the group it belongs to. */
export interface Running {
  pid: number;
  group: number;
  args: string;
}

/** The processes whose command line has `text` in it. A small Linux has no `ps`, others have no /proc. */
export function findProcesses(text: string): Running[] {
  const all = existsSync('/proc/self/stat') ? readProcesses() : askProcesses();
  return all.filter(({ args }) => args.includes(text));
}

function readProcesses(): Running[] {
  const pids = readdirSync('/proc').filter((name) => /^\d+$/.test(name));
  return pids.flatMap((name) => {
    try {
      const args = readFileSync(`/proc/${name}/cmdline`, 'utf8').replaceAll('\0', ' ');
      // After the name, which may hold anything: state, parent, group (proc_pid_stat(5)).
      const rest = readFileSync(`/proc/${name}/stat`, 'utf8').split(') ').at(-1)!.split(' ');
      return [{ pid: Number(name), group: Number(rest[2]), args }];
    } catch {
      return []; // It has ended meanwhile.
    }
  });
}

function askProcesses(): Running[] {
  const lines = execFileSync('ps', ['-eo', 'pid=,pgid=,args='], { encoding: 'utf8' }).split('\n');
  return lines.filter(Boolean).map((line) => {
    const [pid, group, ...args] = line.trim().split(/\s+/);
    return { pid: Number(pid), group: Number(group), args: args.join(' ') };
  });
}
