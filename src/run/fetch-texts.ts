import { promisify } from 'node:util';
import { gunzip } from 'node:zlib';
import type { House } from '../core/house/house.js';
import { badInput } from '../core/errors.js';
import { decodeText, LARGEST_DOCUMENT } from '../core/intake/decode.js';
import type { PageFetcher } from '../render/fetch-page.js';
import { describeFault } from '../core/words/fault.js';

/** The text at an address. @throws ToolError `bad-input` where there is none */
export type FetchText = (address: string) => Promise<string>;

/** Does something with texts that sites answer with; what it asks for goes through a gate, as all does. */
export async function withFetchedTexts<T>(
  { reroute }: Pick<House, 'reroute'>,
  signal: AbortSignal,
  work: (fetch: FetchText) => Promise<T>,
): Promise<T> {
  let opening: Promise<PageFetcher> | null = null;
  try {
    return await work(async (address) => {
      opening ??= open(reroute);
      const { status, body } = await (await opening).fetch(address, signal);
      if (status >= 400) throw badInput(`${address} is answered with ${status}.`);
      const text = decodeText(await unpack(body, address));
      if (text === null) throw badInput(`${address} is in an encoding that cannot be read.`);
      return text;
    });
  } finally {
    await (await (opening as Promise<PageFetcher> | null))?.close();
  }
}

async function open(reroute: House['reroute']): Promise<PageFetcher> {
  const { PageFetcher } = await import('../render/fetch-page.js');
  const rules = { origin: null, reroute, offline: false };
  return PageFetcher.open(rules, { recordTo: null, recording: null });
}

/** What is kept packed as a file (RFC 1952). */
async function unpack(body: Buffer, address: string): Promise<Buffer> {
  if (body[0] !== 0x1f || body[1] !== 0x8b) return body;
  return promisify(gunzip)(body, { maxOutputLength: LARGEST_DOCUMENT }).catch((error: unknown) => {
    throw badInput(`${address} cannot be unpacked: ${describeFault(error)}.`);
  });
}
