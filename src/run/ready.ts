import { beginThread, endThread } from '../render/gate/thread.js';

/**
 * Does work that is a run of renders. What it needs, and takes long to get ready, is begun at once, while the rest
 * of the program is read.
 */
export async function withAllReady<T>(work: () => Promise<T>): Promise<T> {
  beginThread();
  try {
    return await work();
  } finally {
    await endThread();
  }
}
