import { validateHeaderName, validateHeaderValue } from 'node:http';
import type { Refusal } from '../../core/evidence.js';
import { getHeader, type Exchange, type Load } from '../../core/recording/exchange.js';
import { getQuestionKey, type Recording } from '../../core/recording/recording.js';
import { encode } from './coding.js';
import { keepHeaders, refuse, type Answer, type Ask } from './exchange.js';

/** More than a page sends in earnest, bytes. */
const LARGEST_QUESTION = 1_000_000;
const UNKNOWN: Refusal = { kind: 'not-recorded', words: 'the recording has no answer for it' };
const LEFT_OUT = {
  media: { kind: 'not-recorded', words: 'the recording keeps no film and no sound' },
  'too-large': { kind: 'not-recorded', words: 'the recording keeps nothing so large' },
} satisfies Record<string, Refusal>;
/** Statuses without a body (RFC 9110, 6.4.1). */
const BODILESS = new Set([204, 205, 304]);

/** Answers from a recording, for one gate. */
export class Replay {
  #recording: Recording;
  #load: Load = { snippet: '', view: '' };
  #asked = new Map<string, number>();

  constructor(recording: Recording) {
    this.#recording = recording;
  }

  /** From now on the questions are those of this load. */
  begin(load: Load): void {
    this.#load = load;
    this.#asked.clear();
  }

  /** Why nothing of a host can be had; null where something can. */
  getRefusal(host: string): Refusal | null {
    if (!this.#recording.has(host))
      return { kind: 'not-recorded', words: 'the recording has nothing of this host' };
    return this.#recording.getRefusal(host) ?? null;
  }

  /** @param onRefusal told where there is no answer */
  async answer(
    ask: Ask,
    answer: Answer,
    url: URL,
    onRefusal: (refusal: Refusal) => void,
    count: (piece: Buffer) => void,
  ): Promise<void> {
    const exchange = await this.#find(ask, url);
    const refusal = exchange ? getRefusal(exchange) : UNKNOWN;
    if (exchange && !refusal) return send(exchange, answer, ask.method === 'HEAD', count);
    onRefusal(refusal ?? UNKNOWN);
    refuse(answer, 502);
  }

  async #find(ask: Ask, url: URL): Promise<Exchange | null> {
    const question = {
      method: ask.method ?? 'GET',
      url: url.href,
      body: await readQuestion(ask),
    };
    const key = getQuestionKey({ ...question, requestBody: question.body });
    const nth = this.#asked.get(key) ?? 0;
    this.#asked.set(key, nth + 1);
    return this.#recording.find(this.#load, nth, question);
  }
}

function getRefusal({ refused, left, status }: Exchange): Refusal | null {
  if (refused) return refused;
  if (left !== null) return LEFT_OUT[left];
  return Number.isInteger(status) && status >= 200 && status <= 599 ? null : UNKNOWN;
}

async function send(
  exchange: Exchange,
  answer: Answer,
  headOnly: boolean,
  count: (piece: Buffer) => void,
): Promise<void> {
  const body = await getBytes(exchange);
  if (answer.destroyed) return;
  const headers = Object.fromEntries(
    Object.entries(keepHeaders(gather(exchange.headers))).filter(
      ([name]) => name !== 'content-length' && (name !== 'content-encoding' || body.coded),
    ),
  );
  answer.writeHead(exchange.status, headers as Record<string, string>);
  if (headOnly || BODILESS.has(exchange.status)) answer.end();
  else {
    count(body.bytes);
    answer.end(body.bytes);
  }
}

/** The bytes as they came; where only the plain ones are kept, the coding is put on again. */
async function getBytes(exchange: Exchange): Promise<{ bytes: Buffer; coded: boolean }> {
  const coding = getHeader(exchange.headers, 'content-encoding');
  if (exchange.coded !== null) return { bytes: Buffer.from(exchange.coded, 'base64'), coded: true };
  const plain = Buffer.from(exchange.body ?? '', 'base64');
  const bytes = coding === null ? null : await encode(plain, coding);
  return { bytes: bytes ?? plain, coded: bytes !== null };
}

function gather(headers: Exchange['headers']): Record<string, string[]> {
  const gathered: Record<string, string[]> = {};
  for (const [name, value] of headers)
    if (isSendable(name, value)) (gathered[name.toLowerCase()] ??= []).push(value);
  return gathered;
}

/** Other programs write down names and values that no server can send. */
function isSendable(name: string, value: string): boolean {
  try {
    validateHeaderName(name);
    validateHeaderValue(name, value);
    return true;
  } catch {
    return false;
  }
}

async function readQuestion(ask: Ask): Promise<string | null> {
  const chunks: Buffer[] = [];
  let size = 0;
  for await (const chunk of ask as AsyncIterable<Buffer>) {
    size += chunk.length;
    if (size <= LARGEST_QUESTION) chunks.push(chunk);
  }
  return size === 0 ? null : Buffer.concat(chunks).toString('base64');
}
