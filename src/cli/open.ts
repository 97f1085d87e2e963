import type { World } from './streams.js';

/** Opens a file with the program of the desktop; false where there is none. */
export async function openFile(path: string, env: World['env']): Promise<boolean> {
  const desktop = env.DISPLAY || env.WAYLAND_DISPLAY || env.BROWSER;
  if (process.platform === 'linux' && !desktop) return false;
  const { default: open } = await import('open');
  return open(path).then(
    () => true,
    () => false,
  );
}
