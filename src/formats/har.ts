import type { Entry, Page, Request, Response } from 'har-format';
import { getHeader, type Exchange, type Header, type Load } from '../core/recording/exchange.js';

/** Status texts are left out: HTTP/2 has none. */
const NO_COOKIES: never[] = [];

/** What stands before the first entry of an HTTP Archive 1.2. */
export function formatHarHead(version: string): string {
  const creator = JSON.stringify({ name: 'Mivket', version });
  return `{"log":{"version":"1.2","creator":${creator},"entries":[`;
}

/** What we add to an entry: names that begin with an underscore are our own, as the format allows. */
interface OwnEntry extends Entry {
  _load: Load;
  _refused: Exchange['refused'];
  _left: Exchange['left'];
  _coded: string | null;
}

/** One entry. */
export function formatHarEntry(exchange: Exchange): string {
  const { startedAt, waited, received, load } = exchange;
  const entry: OwnEntry = {
    pageref: getPageId(load),
    startedDateTime: startedAt,
    time: waited + received,
    request: formatRequest(exchange),
    response: formatResponse(exchange),
    cache: {},
    timings: {
      blocked: -1,
      dns: -1,
      connect: -1,
      ssl: -1,
      send: 0,
      wait: waited,
      receive: received,
    },
    ...(exchange.refused && { comment: exchange.refused.words }),
    _load: load,
    _refused: exchange.refused,
    _left: exchange.left,
    _coded: exchange.coded,
  };
  return JSON.stringify(entry);
}

/** What stands after the last entry: the loads, as pages. */
export function formatHarEnd(
  loads: ReadonlyMap<string, { load: Load; startedAt: string }>,
): string {
  const pages = [...loads].map(([id, { load, startedAt }]): Page => ({
    startedDateTime: startedAt,
    id,
    title: load.snippet ? `${load.snippet}, ${load.view}` : `the page alone, ${load.view}`,
    pageTimings: {},
  }));
  return `],"pages":${JSON.stringify(pages)}}}\n`;
}

/** Names a load within the archive. */
export function getPageId({ snippet, view }: Load): string {
  return `${snippet}, ${view}`;
}

function formatRequest({ method, url, requestHeaders, requestBody }: Exchange): Request {
  const type = getHeader(requestHeaders, 'content-type') ?? '';
  const sent = requestBody === null ? null : readBase64(requestBody);
  return {
    method,
    url,
    httpVersion: 'HTTP/2',
    cookies: NO_COOKIES,
    headers: formatHeaders(requestHeaders),
    queryString: [...new URL(url).searchParams].map(([name, value]) => ({ name, value })),
    headersSize: -1,
    bodySize: sent?.length ?? 0,
    ...(sent && {
      postData: {
        mimeType: type,
        text: readText(sent) ?? requestBody ?? '',
        ...(readText(sent) === null && { _encoding: 'base64' }),
      },
    }),
  };
}

function formatResponse({ status, headers, body, size, coded }: Exchange): Response {
  const bytes = body === null ? null : readBase64(body);
  const text = bytes && readText(bytes);
  const unpacked = bytes?.length ?? size;
  return {
    status,
    statusText: '',
    httpVersion: 'HTTP/2',
    cookies: NO_COOKIES,
    headers: formatHeaders(headers),
    content: {
      size: unpacked,
      mimeType: getHeader(headers, 'content-type') ?? '',
      ...(coded !== null && { compression: unpacked - size }),
      ...(body !== null && (text === null ? { text: body, encoding: 'base64' } : { text })),
    },
    redirectURL: getHeader(headers, 'location') ?? '',
    headersSize: -1,
    bodySize: status === 0 ? -1 : size,
  };
}

function formatHeaders(headers: readonly Header[]) {
  return headers.map(([name, value]) => ({ name, value }));
}

/** UTF-8 text, byte for byte; null where it is none. */
function readText(bytes: Uint8Array): string | null {
  try {
    const text = new TextDecoder('utf-8', { fatal: true, ignoreBOM: true }).decode(bytes);
    return text.includes('\0') ? null : text;
  } catch {
    return null;
  }
}

function readBase64(text: string): Uint8Array {
  return Uint8Array.from(atob(text), (letter) => letter.charCodeAt(0));
}
