import { existsSync, readFileSync } from 'node:fs';
import { extname } from 'node:path';
import mime from 'mime';

/** From `dist/demo/stand-ins`. */
const FOLDER = new URL('../../../demo/files/', import.meta.url);

/** One of the demo's files as an answer, in parts where a range is asked for (RFC 9110, 14); 404 where there is none. */
export function sendFile(
  name: string,
  range: string | undefined,
  headers: Record<string, string> = {},
): Response {
  const file = new URL(name, FOLDER);
  if (!existsSync(file)) return new Response('No such file', { status: 404 });
  const body = new Uint8Array(readFileSync(file));
  const type = {
    'content-type': mime.getType(extname(name)) ?? 'application/octet-stream',
    'accept-ranges': 'bytes',
    ...headers,
  };
  const match = /^bytes=(\d+)-(\d*)$/.exec(range ?? '');
  if (!match)
    return new Response(body, { headers: { ...type, 'content-length': String(body.length) } });
  const from = Number(match[1]);
  const to = Math.min(match[2] ? Number(match[2]) : Infinity, body.length - 1);
  if (from > to)
    return new Response(null, {
      status: 416,
      headers: { 'content-range': `bytes */${body.length}` },
    });
  const part = body.subarray(from, to + 1);
  const span = {
    'content-range': `bytes ${from}-${to}/${body.length}`,
    'content-length': String(part.length),
  };
  return new Response(part, { status: 206, headers: { ...type, ...span } });
}
