import { beginThread } from '../render/gate/thread.js';

/** Begins, while the rest of the program is read, what a run of renders needs and takes long to get ready. */
export function getReady(): void {
  beginThread();
}
