import type { Protocol } from 'devtools-protocol';
import type { CallFrame, Initiator, RequestLog } from '../page/request-log.js';
import type { Session } from './connection.js';

/** Writes down what one session asks for; call it for every frame and worker that is attached. */
export function followTraffic(session: Session, log: RequestLog): void {
  const keyOf = (id: string) => (/^[0-9A-F]{32}$/.test(id) ? id : `${session.id} ${id}`);
  const at = (id: string) => log.get(keyOf(id));
  session.on('Network.requestWillBeSent', (event) => start(log, keyOf(event.requestId), event));
  session.on('Network.webSocketCreated', ({ requestId, url, initiator }) => {
    const asked = { address: url, first: url, type: 'WebSocket' };
    log.start(keyOf(requestId), { ...asked, initiator: toInitiator(initiator) });
  });
  session.on('Network.responseReceived', ({ requestId, response, type }) => {
    const request = at(requestId);
    if (request) Object.assign(request, { status: response.status, type });
  });
  session.on('Network.responseReceivedExtraInfo', ({ requestId, headers }) => {
    const request = at(requestId);
    if (request?.type === 'Document') request.forbidsFrames = getFrameRule(headers);
  });
  session.on('Network.dataReceived', ({ requestId, dataLength }) => {
    const request = at(requestId);
    if (request) request.unpacked += dataLength;
  });
  session.on('Network.loadingFinished', ({ requestId, encodedDataLength, timestamp }) => {
    const request = at(requestId);
    if (request) request.wire += encodedDataLength;
    log.finish(request, timestamp);
  });
  session.on('Network.loadingFailed', ({ requestId, errorText, blockedReason, canceled }) => {
    const request = at(requestId);
    if (request) request.failed = blockedReason ?? (canceled ? 'cancelled' : errorText);
    log.finish(request);
  });
  session.on('Network.requestServedFromCache', ({ requestId }) => log.finish(at(requestId)));
}

function start(log: RequestLog, key: string, event: Protocol.Network.RequestWillBeSentEvent): void {
  const { request, redirectResponse, type = 'Other', frameId: frame = null } = event;
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
    type,
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

/** How an answer's headers forbid framing, in words. A policy that names ancestors outdoes X-Frame-Options. */
function getFrameRule(headers: Record<string, string>): string | null {
  const of = (name: string) =>
    Object.entries(headers).find(([key]) => key.toLowerCase() === name)?.[1];
  const ancestors = /frame-ancestors\s+([^;,\n]*)/i.exec(of('content-security-policy') ?? '')?.[1];
  if (ancestors !== undefined)
    return `Content-Security-Policy: frame-ancestors ${ancestors.trim()}`;
  const option = of('x-frame-options');
  return option === undefined ? null : `X-Frame-Options: ${option}`;
}
