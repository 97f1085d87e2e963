import type { World } from './streams.js';

/** placeholder until the stand-ins stand */
export async function demo(_given: Record<string, unknown>, _world: World): Promise<number> {
  return 0;
}
