import { createHash } from 'node:crypto';
import { createWriteStream, type WriteStream } from 'node:fs';
import { finished } from 'node:stream/promises';
import type { Refusal } from '../../core/evidence.js';
import { flatMap } from '../../core/lists.js';
import {
  getHeader,
  isMediaType,
  LARGEST_BODY,
  type Exchange,
  type Header,
  type Load,
} from '../../core/recording/exchange.js';
import { getQuestionKey } from '../../core/recording/recording.js';
import { decode } from './coding.js';

/** Headers by name, as Node gives them. */
export type NodeHeaders = Record<string, string | string[] | number | undefined>;

/**
 * Writes down what passes the gates, a line of JSON an exchange. The first load of a snippet is
 * written whole; of its other loads what differs from it.
 */
export class Recorder {
  #lines: WriteStream;
  #open: Promise<unknown>[] = [];
  #loads = new Map<string, Promise<Exchange[]>>();
  /** Of every snippet the answers of the first load that asked, by question. */
  #first = new Map<string, Map<string, string>>();

  constructor(file: string) {
    this.#lines = createWriteStream(file, { flags: 'a' });
    this.#lines.on('error', () => undefined);
  }

  /** Begins to follow one request. */
  begin(load: Load, method: string, url: string, headers: NodeHeaders): Take {
    const take = new Take(load, method, url, listHeaders(headers));
    const name = `${load.snippet}\0${load.view}`;
    const before = this.#loads.get(name) ?? Promise.resolve([]);
    const kept = Promise.all([before, take.whole]).then(([list, exchange]) => [...list, exchange]);
    this.#loads.set(name, kept);
    return take;
  }

  /** Writes what a load asked for, when all of it has ended. */
  endLoad(load: Load): void {
    const name = `${load.snippet}\0${load.view}`;
    const list = this.#loads.get(name);
    this.#loads.delete(name);
    if (list) this.#open.push(list.then((exchanges) => this.#write(load.snippet, exchanges)));
  }

  /** Resolves when everything is in the file. Call it after all gates are closed. */
  async finish(): Promise<void> {
    for (const name of [...this.#loads.keys()]) {
      const [snippet = '', view = ''] = name.split('\0');
      this.endLoad({ snippet, view });
    }
    await Promise.all(this.#open);
    this.#lines.end();
    await finished(this.#lines);
  }

  #write(snippet: string, exchanges: readonly Exchange[]): void {
    const first = this.#first.get(snippet) ?? new Map<string, string>();
    this.#first.set(snippet, first);
    const series = new Map<string, Exchange[]>();
    for (const one of exchanges)
      series.set(getQuestionKey(one), [...(series.get(getQuestionKey(one)) ?? []), one]);
    const fresh = new Set<string>();
    for (const [key, list] of series) {
      const answers = hash(list.map(getAnswer));
      if (!first.has(key)) first.set(key, answers);
      else if (first.get(key) === answers) continue;
      fresh.add(key);
    }
    for (const one of exchanges)
      if (fresh.has(getQuestionKey(one))) this.#lines.write(`${JSON.stringify(one)}\n`);
  }
}

/** One request while it is under way. */
export class Take {
  readonly whole: Promise<Exchange>;
  #end: (exchange: Exchange) => void = () => undefined;
  #exchange: Exchange;
  #sent: Buffer[] = [];
  #got: Buffer[] = [];
  #began = performance.now();
  #answered = this.#began;
  #over = false;

  constructor(load: Load, method: string, url: string, requestHeaders: Header[]) {
    this.#exchange = {
      load,
      method,
      url,
      requestHeaders,
      requestBody: null,
      startedAt: new Date().toISOString(),
      waited: 0,
      received: 0,
      status: 0,
      headers: [],
      body: null,
      coded: null,
      size: 0,
      left: null,
      refused: null,
    };
    this.whole = new Promise((resolve) => (this.#end = resolve));
  }

  sent(chunk: Buffer): void {
    this.#sent.push(chunk);
  }

  answered(status: number, headers: NodeHeaders): void {
    this.#answered = performance.now();
    Object.assign(this.#exchange, { status, headers: listHeaders(headers) });
    if (isMediaType(getHeader(this.#exchange.headers, 'content-type') ?? ''))
      this.#exchange.left = 'media';
  }

  got(chunk: Buffer): void {
    this.#exchange.size += chunk.length;
    if (this.#exchange.size > LARGEST_BODY) this.#exchange.left ??= 'too-large';
    if (this.#exchange.left === null) this.#got.push(chunk);
    else this.#got = [];
  }

  /** The answer has ended, or will not come; the first word counts. */
  end(refused: Refusal | null = null): void {
    if (this.#over) return;
    this.#over = true;
    void this.#finish(refused).then(this.#end);
  }

  async #finish(refused: Refusal | null): Promise<Exchange> {
    const exchange = this.#exchange;
    exchange.refused = refused;
    exchange.waited = round(this.#answered - this.#began);
    exchange.received = round(performance.now() - this.#answered);
    if (this.#sent.length > 0) exchange.requestBody = Buffer.concat(this.#sent).toString('base64');
    if (exchange.left !== null || exchange.status === 0) return exchange;
    const bytes = Buffer.concat(this.#got);
    const coding = getHeader(exchange.headers, 'content-encoding');
    const plain = coding === null ? bytes : await decode(bytes, coding);
    exchange.body = (plain ?? bytes).toString('base64');
    if (coding !== null) exchange.coded = bytes.toString('base64');
    return exchange;
  }
}

function listHeaders(headers: NodeHeaders): Header[] {
  return flatMap(Object.entries(headers), ([name, value]): Header[] => {
    if (value === undefined || name.startsWith(':')) return [];
    return [value].flat().map((one) => [name, String(one)]);
  });
}

/** What an answer is told from another by: not its times, nor its date. */
function getAnswer({ status, headers, body, left, refused }: Exchange): unknown {
  return [status, headers.filter(([name]) => name !== 'date'), body, left, refused];
}

function hash(value: unknown): string {
  return createHash('sha256').update(JSON.stringify(value)).digest('base64');
}

function round(ms: number): number {
  return Math.round(ms * 100) / 100;
}
