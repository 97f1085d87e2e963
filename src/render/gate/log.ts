import { tellContainer, tellsPictures } from '../../core/measure/container.js';
import { tellsMotion } from '../../core/measure/moving.js';
import { readContentType } from '../../core/measure/content-type.js';
import type { Answer } from './exchange.js';
import type { Refusal } from '../../core/evidence.js';

const FILM = /^(video|audio)\//;
/** More requests of one load are not written down. */
const MOST = 5000;

/** Something the gate did not let through, or could not get. */
export interface GateRefusal extends Refusal {
  host: string;
  /** The path, where it is one address and not the whole host. */
  path: string | null;
}

/** A request that the gate passed on, or answered from a recording, and what came of it. */
export interface GateEntry {
  address: string;
  /** null where the page gave up before there was an answer. */
  status: number | null;
  contentType: string | null;
  /** The type of film or sound that it is by its first bytes; null for anything else. */
  container: string | null;
  /** It says that it is a film with pictures. */
  pictured: boolean;
  /** It says that it is a picture of several frames. */
  moving: boolean;
  /** Of the body, as it came over the wire, bytes. */
  wire: number;
}

/** What a gate saw of a load from outside of the browser. What goes through a tunnel is nobody's to read. */
export interface GateLog {
  refusals: GateRefusal[];
  entries: GateEntry[];
}

/** Writes down what is asked of one gate. */
export class RequestBook {
  #refusals: GateRefusal[] = [];
  #entries: GateEntry[] = [];

  /** @param path null where it is the whole host */
  refuse(refusal: Refusal, host: string, path: string | null): void {
    this.#refusals.push({ ...refusal, host, path });
  }

  /** @returns what counts the bytes of the answer as they come */
  follow({ href: address }: URL, answer: Answer): (piece: Buffer) => void {
    let counted = 0;
    let container: string | null = null;
    let pictured = false;
    let moving = false;
    let film = false;
    answer.once('close', () => {
      if (this.#entries.length >= MOST) return;
      const { statusCode, headersSent } = answer;
      const type = answer.getHeader('content-type');
      const length = Number(answer.getHeader('content-length') ?? 0);
      this.#entries.push({
        address,
        status: headersSent ? statusCode : null,
        contentType: readContentType(type === undefined ? type : String(type)),
        container,
        pictured,
        moving,
        wire: counted || length || 0,
      });
    });
    return (piece) => {
      if (counted === 0) {
        [container, moving] = [tellContainer(piece), tellsMotion(piece)];
        film = container !== null || FILM.test(String(answer.getHeader('content-type')));
      }
      pictured ||= film && tellsPictures(piece);
      counted += piece.length;
    };
  }

  /** What was written down since the last call. */
  take(): GateLog {
    return { refusals: this.#refusals.splice(0), entries: this.#entries.splice(0) };
  }
}
