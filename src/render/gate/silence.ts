import type { Duplex } from 'node:stream';

/** Somebody who waits for a host that does not answer. */
interface Waiting {
  socket: Duplex;
  /** Told whether it never will. */
  tell(never: boolean): void;
}

/** A host that takes in what it is asked, and does not answer. */
export class Silence {
  #host: string | undefined;
  #waiting: Waiting[] = [];

  /** Another one, or none, from now on: who waited hears that there is nobody. */
  begin(host: string | undefined): void {
    this.#host = host;
    for (const { socket, tell } of this.#waiting.splice(0)) {
      socket.destroy();
      tell(true);
    }
  }

  /** From now on it answers, those too who wait already. */
  end(): void {
    this.#host = undefined;
    for (const { tell } of this.#waiting.splice(0)) tell(false);
  }

  /** Whether nobody answers for a host: while it is silent, whoever asks waits to know. */
  async holds(host: string, socket: Duplex): Promise<boolean> {
    if (host !== this.#host) return false;
    return new Promise((tell) => this.#waiting.push({ socket, tell }));
  }
}
