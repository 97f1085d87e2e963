import type { Duplex } from 'node:stream';

/** A host that takes in what it is asked, and does not answer. */
export class Silence {
  #host: string | undefined;
  /** On which somebody waits for it. */
  #held: Duplex[] = [];

  /** Another one, or none, from now on: whoever waited hears that there is nobody. */
  begin(host: string | undefined): void {
    this.#host = host;
    for (const socket of this.#held.splice(0)) socket.destroy();
  }

  /** Whether it is this host that is asked for: then it keeps the connection. */
  takes(host: string, socket: Duplex): boolean {
    if (host !== this.#host) return false;
    this.#held.push(socket);
    return true;
  }
}
