import * as z from 'zod';
import { ToolError } from '../core/errors.js';
import { flatMap } from '../core/lists.js';
import { refusalSchema } from '../facts/traffic/fact.js';
import { getHeader, isMediaType, type Exchange, type Header } from '../core/recording/exchange.js';

const headers = z.array(z.object({ name: z.string(), value: z.string() })).default([]);
const number = z.number().catch(0);

/** An entry of an HTTP Archive 1.2: what we read of it, other programs' fields left aside. */
const entrySchema = z.object({
  pageref: z.string().optional(),
  startedDateTime: z.string().default(''),
  timings: z.object({ wait: number, receive: number }).partial().optional(),
  request: z.object({
    method: z.string(),
    url: z.string(),
    headers,
    postData: z
      .object({ text: z.string().optional(), _encoding: z.literal('base64').optional() })
      .nullish(),
  }),
  response: z.object({
    status: number,
    headers,
    bodySize: number.optional(),
    content: z
      .object({
        mimeType: z.string().nullish(),
        size: number.optional(),
        text: z.string().optional(),
        encoding: z.string().optional(),
      })
      .default({}),
  }),
  _load: z.object({ snippet: z.string(), view: z.string() }).optional().catch(undefined),
  _refused: refusalSchema.nullish().catch(undefined),
  _left: z.enum(['media', 'too-large']).nullish().catch(undefined),
  _coded: z.string().nullish().catch(undefined),
});

type Entry = z.output<typeof entrySchema>;

const harSchema = z.object({ log: z.object({ entries: z.array(z.unknown()) }) });

/**
 * Reads an HTTP Archive, our own or another program's.
 * @param file how the file is named to the user
 * @throws ToolError `bad-recording`
 */
export function parseHar(text: string, file: string): Exchange[] {
  const har = harSchema.safeParse(parseJson(text.replace(/^\uFEFF/, ''), file));
  if (!har.success) throw bad(`${file} is no HTTP Archive: it must have a list \`log.entries\`.`);
  const toBase64 = remember(encode);
  return flatMap(har.data.log.entries, (entry, i) => {
    const parsed = entrySchema.safeParse(entry);
    if (parsed.success) return toExchange(parsed.data, toBase64);
    const path = parsed.error.issues[0]!.path.join('.');
    throw bad(`${file} is no HTTP Archive: \`log.entries[${i}].${path}\` is missing or wrong.`);
  });
}

function parseJson(text: string, file: string): unknown {
  try {
    return JSON.parse(text);
  } catch (error) {
    throw bad(`${file} is not JSON: ${(error as Error).message}.`);
  }
}

/** Addresses that never go over the network (data:, blob:) are left out. */
function toExchange(entry: Entry, toBase64: (text: string) => string): Exchange[] {
  const { request, response, timings } = entry;
  if (!/^(https?|wss?):/.test(request.url) || !URL.canParse(request.url)) return [];
  const body = getBody(response, toBase64);
  const posted = request.postData?.text;
  const inBase64 = request.postData?._encoding === 'base64';
  const sent = posted !== undefined && !inBase64 ? toBase64(posted) : posted;
  const answer = response.headers.map(({ name, value }): Header => [name, value]);
  return [
    {
      load: entry._load ?? { snippet: '', view: entry.pageref ?? '' },
      method: request.method,
      url: request.url,
      requestHeaders: request.headers.map(({ name, value }): Header => [name, value]),
      requestBody: sent ?? null,
      startedAt: entry.startedDateTime,
      waited: timings?.wait ?? 0,
      received: timings?.receive ?? 0,
      status: response.status,
      headers: entry._load ? answer : sayUtf8(answer, response.content.encoding === 'base64'),
      body,
      coded: entry._coded ?? null,
      size: Math.max(response.bodySize ?? 0, 0),
      left: entry._left ?? getLeft(entry, answer, body),
      refused: entry._refused ?? null,
    },
  ];
}

function getBody(
  { content, status }: Entry['response'],
  toBase64: (text: string) => string,
): string | null {
  if (content.text === undefined) return status === 0 || (content.size ?? 0) > 0 ? null : '';
  return content.encoding === 'base64' ? content.text : toBase64(content.text);
}

/** Why there are no bytes, where the archive does not say it. */
function getLeft(entry: Entry, answer: readonly Header[], body: string | null): Exchange['left'] {
  if (entry._load || body !== null || entry.response.status === 0) return null;
  return isMediaType(getHeader(answer, 'content-type') ?? '') ? 'media' : 'too-large';
}

/** What stands in the archive as text is sent as UTF-8, whatever it was sent as. */
function sayUtf8(answer: readonly Header[], inBytes: boolean): Header[] {
  return answer.map(([name, value]): Header => {
    const named = !inBytes && name.toLowerCase() === 'content-type';
    return [name, named ? value.replace(/charset=[^;]+/i, 'charset=utf-8') : value];
  });
}

/** Most files are asked for by many loads. */
function remember(make: (text: string) => string): (text: string) => string {
  const known = new Map<string, string>();
  return (text) => {
    const made = known.get(text) ?? make(text);
    known.set(text, made);
    return made;
  };
}

/** A text’s bytes as UTF-8, in base64. */
function encode(text: string): string {
  const bytes = new TextEncoder().encode(text);
  let letters = '';
  for (let at = 0; at < bytes.length; at += 8192)
    letters += String.fromCharCode(...bytes.subarray(at, at + 8192));
  return btoa(letters);
}

function bad(message: string): ToolError {
  return new ToolError('bad-recording', message);
}
