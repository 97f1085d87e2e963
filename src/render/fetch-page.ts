import { request, type IncomingMessage } from 'node:http';
import { badInput } from '../core/errors.js';
import { flatMap } from '../core/lists.js';
import { LARGEST } from '../core/intake/decode.js';
import { makeKey } from './gate/key.js';
import { decode } from './gate/coding.js';
import { Gates, type GateHandle } from './gate/gates.js';
import { USER } from './gate/doorman.js';
import type { GateRules } from './gate/route.js';
import type { Memory } from './life/booths.js';

/** A page as its site answers with it, decoded. */
export interface FetchedPage {
  /** Where it is, after redirects. */
  address: string;
  status: number;
  /** Those that say how it is to be treated. */
  headers: Record<string, string>;
  body: Buffer;
}

const MOST_REDIRECTS = 10;
/** How long a site may be silent, ms. */
const LIMIT = 15_000;
/** Headers of one connection and one transfer, which are made anew when the page is served again. */
const OF_TRANSFER =
  /^(connection|keep-alive|transfer-encoding|content-encoding|content-length|content-type|set-cookie|date|age|etag|alt-svc|trailer|upgrade)$/;

/** Asks sites for their pages through a gate, as the browser will for all else. */
export class PageFetcher {
  #gates: Gates;
  #gate: GateHandle;

  static async open(rules: GateRules, memory: Memory): Promise<PageFetcher> {
    const gates = new Gates({ key: makeKey(), distrusted: null, ...memory });
    return new PageFetcher(gates, await gates.open(rules));
  }

  private constructor(gates: Gates, gate: GateHandle) {
    this.#gates = gates;
    this.#gate = gate;
  }

  close(): Promise<void> {
    return this.#gates.close();
  }

  /** @throws ToolError `bad-input` where it is not answered; what aborted it where that was */
  async fetch(asked: string, signal: AbortSignal): Promise<FetchedPage> {
    await this.#gate.setPage(NO_PAGE, { snippet: asked, view: 'the page' });
    let address = asked;
    for (let times = 0; times <= MOST_REDIRECTS; times++) {
      const answer = await this.#ask(address, asked, signal);
      const { statusCode: status = 0, headers } = answer;
      const next = status >= 300 && status < 400 ? headers.location : undefined;
      if (next === undefined || !URL.canParse(next, address))
        return { address, status, headers: pick(headers), body: await read(answer, asked) };
      answer.resume();
      const { href, protocol } = new URL(next, address);
      if (!/^https?:$/.test(protocol))
        throw badInput(`${asked} leads to ${href}, which is no page.`);
      address = href;
    }
    throw badInput(`${asked} leads from one address to the next without end.`);
  }

  async #ask(address: string, asked: string, signal: AbortSignal): Promise<IncomingMessage> {
    const { port, password } = this.#gate;
    const { host, href } = new URL(address);
    const token = Buffer.from(`${USER}:${password}`).toString('base64');
    const answer = await new Promise<IncomingMessage>((resolve, reject) => {
      const headers = {
        host,
        accept: 'text/html,application/xhtml+xml,*/*;q=0.8',
        'accept-encoding': 'gzip, deflate, br',
        'proxy-authorization': `Basic ${token}`,
      };
      const from = { host: '127.0.0.1', port, path: href, agent: false };
      const options = { ...from, headers, timeout: LIMIT, signal };
      const asking = request(options, resolve);
      asking.on('timeout', () => asking.destroy(new Error('it did not answer in time')));
      asking.on('error', reject);
      asking.end();
    }).catch((error: Error) => {
      signal.throwIfAborted();
      throw badInput(`${asked} could not be had: ${error.message}.`);
    });
    const { refusals } = await this.#gate.takeLog();
    const [refusal] = refusals;
    if (refusal) throw badInput(`${asked} could not be had: ${refusal.host}: ${refusal.words}.`);
    return answer;
  }
}

const NO_PAGE = { html: '', headers: {}, root: null };

async function read(answer: IncomingMessage, asked: string): Promise<Buffer> {
  const chunks: Buffer[] = [];
  let size = 0;
  for await (const chunk of answer) {
    chunks.push(chunk as Buffer);
    size += (chunk as Buffer).length;
    if (size > LARGEST) throw badInput(`${asked} is larger than a page may be here, 2 MB.`);
  }
  const whole = Buffer.concat(chunks);
  const coding = answer.headers['content-encoding'];
  const plain = coding ? await decode(whole, coding) : whole;
  if (plain === null) throw badInput(`${asked} comes in a coding that cannot be read: ${coding}.`);
  if (plain.length > LARGEST) throw badInput(`${asked} is larger than a page may be here, 2 MB.`);
  return plain;
}

function pick(headers: IncomingMessage['headers']): FetchedPage['headers'] {
  const kept = flatMap(Object.entries(headers), ([name, value]) => {
    const known = name === 'content-type' || !OF_TRANSFER.test(name);
    return known && value !== undefined ? [[name, [value].flat().join(', ')]] : [];
  });
  return Object.fromEntries(kept) as Record<string, string>;
}
