import { timingSafeEqual } from 'node:crypto';
import type { IncomingMessage } from 'node:http';
import type { Duplex } from 'node:stream';

/** The name that goes with the password. */
export const USER = 'mivket';
/** How credentials are asked for (RFC 9110, 11.7.1). */
export const REALM = 'Basic realm="mivket"';
export const CHALLENGE = { 'proxy-authenticate': REALM, 'content-length': '0' };

/** Lets in whoever has the password: a port of the loopback is open to all users of a machine. */
export class Doorman {
  #expected: Buffer | null;
  #trusted = new WeakSet<Duplex>();

  constructor(password: string | null) {
    const said = `Basic ${Buffer.from(`${USER}:${password}`).toString('base64')}`;
    this.#expected = password === null ? null : Buffer.from(said);
  }

  /** Whoever comes on this connection has been let in. */
  trust(socket: Duplex): void {
    this.#trusted.add(socket);
  }

  /** What was shown is taken off: it is for nobody else. */
  admits(ask: IncomingMessage): boolean {
    const shown = Buffer.from(ask.headers['proxy-authorization'] ?? '');
    delete ask.headers['proxy-authorization'];
    if (this.#expected === null || this.#trusted.has(ask.socket)) return true;
    return shown.length === this.#expected.length && timingSafeEqual(shown, this.#expected);
  }
}

/** One exchange that fails costs itself only. */
export function guard(work: Promise<void>, onFault: () => void): void {
  work.catch(() => {
    try {
      onFault();
    } catch {
      // The connection is gone.
    }
  });
}
