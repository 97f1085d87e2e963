/** Whether a process of this machine is running, whoever's it is. */
export function isAlive(pid: number): boolean {
  try {
    return process.kill(pid, 0);
  } catch (error) {
    return (error as NodeJS.ErrnoException).code === 'EPERM';
  }
}
