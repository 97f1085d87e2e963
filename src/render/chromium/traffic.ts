import type { Protocol } from 'devtools-protocol';
import { readFreshness } from '../../core/measure/freshness.js';
import { readContentType } from '../../core/measure/content-type.js';
import type { CallFrame, Initiator, LoggedRequest, RequestLog } from '../page/request-log.js';
import type { Session } from './connection.js';
import { toFileType } from './file-types.js';

/** Answers that are kept until what they answer is told of. */
const MOST_EARLY = 100;

/** Writes down what one session asks for; call it for every frame and worker that is attached. */
export function followTraffic(session: Session, log: RequestLog): void {
  const keyOf = (id: string) => (/^[0-9A-F]{32}$/.test(id) ? id : `${session.id} ${id}`);
  const at = (id: string) => log.get(keyOf(id));
  // Who sends a request and who receives its answer are two processes: either may be heard of first.
  const early = new Map<string, Protocol.Network.ResponseReceivedExtraInfoEvent>();
  session.on('Network.requestWillBeSent', (event) => {
    start(log, keyOf(event.requestId), event);
    const answer = early.get(event.requestId);
    if (answer) takeHeaders(at(event.requestId), answer);
    early.delete(event.requestId);
  });
  session.on('Network.webSocketCreated', ({ requestId, url, initiator }) => {
    const asked = { address: url, first: url, type: 'socket' as const };
    log.start(keyOf(requestId), { ...asked, initiator: toInitiator(initiator) });
  });
  session.on('Network.responseReceived', ({ requestId, response, type }) => {
    const request = at(requestId);
    const { status, headers } = response;
    if (!request) return;
    const sharedWith = getSharing(headers) ?? request.sharedWith;
    const contentType = getContentType(headers);
    const fresh = readFreshness(status, headers);
    const told = { type: getType(type, contentType), contentType, sharedWith, fresh };
    log.answer(request, { status, ...told, sized: readSizes(headers) });
  });
  session.on('Network.responseReceivedExtraInfo', (event) => {
    const request = at(event.requestId);
    if (request) takeHeaders(request, event);
    else if (early.size < MOST_EARLY) early.set(event.requestId, event);
  });
  session.on('Network.dataReceived', ({ requestId, dataLength }) => {
    const request = at(requestId);
    if (request) request.unpacked += dataLength;
  });
  session.on('Network.loadingFinished', ({ requestId, encodedDataLength, timestamp }) => {
    const request = at(requestId);
    if (request) request.wire += getWire(request, encodedDataLength);
    log.finish(request, timestamp);
  });
  session.on('Network.loadingFailed', (event) => {
    const request = at(event.requestId);
    if (request) request.failed = getReason(event);
    if (request) tellKept(request);
    log.finish(request);
  });
  session.on('Network.requestServedFromCache', ({ requestId }) => log.finish(at(requestId)));
}

/** Server-sent events (HTML Living Standard, 9.2) may be asked for like any data. */
function getType(
  type: Protocol.Network.ResourceType,
  contentType: string | null,
): LoggedRequest['type'] {
  return contentType === 'text/event-stream' ? 'stream' : toFileType(type);
}

function takeHeaders(
  request: LoggedRequest | undefined,
  { headers, statusCode }: Protocol.Network.ResponseReceivedExtraInfoEvent,
): void {
  if (!request) return;
  if (request.type === 'document') request.forbidsFrames = getFrameRule(headers);
  request.sharedWith ??= getSharing(headers);
  if (REDIRECTS.has(statusCode)) return;
  request.answered = statusCode;
  request.contentType ??= getContentType(headers);
  tellKept(request);
}

function start(log: RequestLog, key: string, event: Protocol.Network.RequestWillBeSentEvent): void {
  const { request, redirectResponse, type, frameId: frame = null } = event;
  if (/^(data|blob|about|chrome-error|chrome):/.test(request.url)) return;
  const before = log.get(key);
  if (before && !redirectResponse) return;
  if (before && redirectResponse) {
    before.status = redirectResponse.status;
    before.wire += redirectResponse.encodedDataLength;
    log.redirect(key, before);
  }
  log.start(key, {
    address: request.url,
    first: before ? before.first : request.url,
    startedAt: before ? before.startedAt : event.timestamp,
    type: toFileType(type),
    frame,
    initiator: before ? before.initiator : toInitiator(event.initiator),
  });
}

function toInitiator(initiator: Protocol.Network.Initiator | undefined): Initiator {
  return {
    url: initiator?.url ?? null,
    line: initiator?.lineNumber ?? null,
    column: initiator?.columnNumber ?? 0,
    calls: listCalls(initiator?.stack),
  };
}

/** A stack with those that led to it. */
export function listCalls(stack: Protocol.Runtime.StackTrace | undefined): CallFrame[] {
  const calls: CallFrame[] = [];
  for (let at = stack; at; at = at.parent) calls.push(...at.callFrames.map(toCall));
  return calls;
}

export function toCall(frame: Protocol.Runtime.CallFrame): CallFrame {
  const { url, lineNumber: line, columnNumber: column, functionName } = frame;
  return { url, line, column, functionName };
}

/** An answer came, and was kept from the page. */
const KEPT = new Set(['not-shared', 'other-kind']);
/** What leads elsewhere is not what came in the end. RFC 9110, 15.4; 304 leads nowhere. */
const REDIRECTS = new Set([301, 302, 303, 307, 308]);

/** Of what is kept from the page the browser tells its status alone, before it says that it failed or after. */
function tellKept(request: LoggedRequest): void {
  if (KEPT.has(request.failed ?? '')) request.status ??= request.answered;
}

/** The browser's reason, where it has one, in words that fit any: what it keeps from a page did not fail on its way. */
function getReason(event: Protocol.Network.LoadingFailedEvent): string {
  const { blockedReason, corsErrorStatus, canceled, errorText } = event;
  if (blockedReason) return blockedReason;
  if (corsErrorStatus) return 'not-shared';
  // Opaque Response Blocking: a web page where a picture, a film or a script was asked for.
  if (errorText.endsWith('_BLOCKED_BY_ORB')) return 'other-kind';
  if (canceled) return 'cancelled';
  return errorText.endsWith('_TOO_MANY_REDIRECTS') ? 'endless-redirects' : 'no-answer';
}

function getContentType(headers: Record<string, string>): string | null {
  return readContentType(getHeader(headers, 'content-type'));
}

function getHeader(headers: Record<string, string>, name: string): string | undefined {
  return Object.entries(headers).find(([key]) => key.toLowerCase() === name)?.[1];
}

/** What an answer's headers say of its sizes, bytes. */
function readSizes(headers: Record<string, string>): LoggedRequest['sized'] {
  const length = getHeader(headers, 'content-length');
  const entries = Object.entries(headers);
  return {
    head: entries.reduce((sum, [name, value]) => sum + name.length + value.length + 4, 0),
    body: length !== undefined && /^\d+$/.test(length) ? Number(length) : null,
    packed: getHeader(headers, 'content-encoding') !== undefined,
  };
}

/**
 * The bytes of an answer. How well its headers were compressed depends on what came over the same connection before:
 * where the size of its body is known, headers count as they are written.
 * @param came as the browser counted it
 */
function getWire({ sized, unpacked }: LoggedRequest, came: number): number {
  const body = sized?.body ?? (sized && !sized.packed ? unpacked : null);
  return sized && body !== null && came >= body ? sized.head + body : came;
}

/** Who may read an answer. */
function getSharing(headers: Record<string, string>): string | null {
  return getHeader(headers, 'access-control-allow-origin')?.trim() ?? null;
}

/** How an answer's headers forbid framing, in words. A policy that names ancestors outdoes X-Frame-Options. */
function getFrameRule(headers: Record<string, string>): string | null {
  const policy = getHeader(headers, 'content-security-policy');
  const ancestors = /frame-ancestors\s+([^;,\n]*)/i.exec(policy ?? '')?.[1];
  if (ancestors !== undefined)
    return `Content-Security-Policy: frame-ancestors ${ancestors.trim()}`;
  const option = getHeader(headers, 'x-frame-options');
  return option === undefined ? null : `X-Frame-Options: ${option}`;
}
