import type { Protocol } from 'devtools-protocol';
import type { FrameFact, RequestFact, Source } from '../core/evidence.js';
import type { GateRefusal } from './gate/gate.js';
import type { ServedPage } from './sources.js';
import type { LoggedRequest } from './traffic.js';

/** What requests are explained by. */
export interface Around {
  page: ServedPage;
  pageAddress: string;
  mainFrame: string;
  frames: readonly FrameFact[];
  refusals: readonly GateRefusal[];
  /** Addresses that the page without the snippet asks for too. */
  hostRequests: ReadonlySet<string>;
}

/** The snippet's requests: those of the page without it are left out. */
export function toRequestFacts(logged: readonly LoggedRequest[], around: Around): RequestFact[] {
  const own = logged.filter(
    (r) => r.address !== around.pageAddress && !around.hostRequests.has(r.address),
  );
  const sources = new SourceFinder(logged, around);
  const facts = own.map((request): RequestFact => {
    const { hostname } = new URL(request.address);
    const refusal = around.refusals.find(
      (one) =>
        one.host === hostname &&
        (one.path === null || one.path === new URL(request.address).pathname),
    );
    return {
      address: request.address.slice(0, 2000),
      first: request.first.slice(0, 2000),
      host: hostname,
      type: request.type,
      status: request.status,
      wire: request.wire,
      unpacked: request.unpacked,
      failed: request.failed,
      refused: refusal ? { kind: refusal.kind, words: refusal.words } : null,
      from: sources.find(request),
      by: getAsker(request.initiator),
      forbidsFrames: request.forbidsFrames,
      waited: getWait(request),
      inFrame: request.frame !== null && request.frame !== around.mainFrame,
    };
  });
  return [...facts, ...listUnseen(around.refusals, facts)];
}

/** What the gate refused although the protocol told of no request: it came some other way. */
function listUnseen(
  refusals: readonly GateRefusal[],
  facts: readonly RequestFact[],
): RequestFact[] {
  const seen = new Set(facts.map(({ host }) => host));
  const hosts = new Map(
    refusals
      .filter(({ host, path }) => path === null && !seen.has(host))
      .map((one) => [one.host, one]),
  );
  return [...hosts.values()].map(({ host, kind, words }) => ({
    address: `https://${host}/`,
    first: `https://${host}/`,
    host,
    type: 'Other',
    status: null,
    wire: 0,
    unpacked: 0,
    failed: 'refused',
    refused: { kind, words },
    from: null,
    by: null,
    forbidsFrames: null,
    waited: null,
    inFrame: false,
  }));
}

/** Protocol times are seconds. */
function getWait({ startedAt, endedAt }: LoggedRequest): number | null {
  return endedAt === null ? null : Math.round((endedAt - startedAt) * 1e4) / 10;
}

/** Follows who asked for whom, back to a place in the snippet. */
class SourceFinder {
  #byAddress = new Map<string, LoggedRequest>();
  #frameOf = new Map<string, LoggedRequest>();
  #around: Around;

  constructor(logged: readonly LoggedRequest[], around: Around) {
    this.#around = around;
    for (const request of logged) {
      if (!this.#byAddress.has(request.address)) this.#byAddress.set(request.address, request);
      const opensFrame =
        request.type === 'Document' && request.frame && request.frame !== around.mainFrame;
      if (opensFrame && !this.#frameOf.has(request.frame!))
        this.#frameOf.set(request.frame!, request);
    }
  }

  find(request: LoggedRequest, depth = 0): Source | null {
    if (depth > 12) return null;
    const frame =
      request.type === 'Document' &&
      this.#around.frames.find(({ address }) => address === request.first);
    if (frame) return frame.from;
    const own = this.#findInPage(request.initiator);
    if (own) return own;
    const asker = getAsker(request.initiator);
    const parent = asker ? this.#byAddress.get(asker) : undefined;
    if (parent && parent !== request && parent.type !== 'Document')
      return this.find(parent, depth + 1);
    const opener = request.frame ? this.#frameOf.get(request.frame) : undefined;
    return opener && opener !== request ? this.find(opener, depth + 1) : null;
  }

  /** The place in the snippet's text that asked, where the page itself did. */
  #findInPage(initiator: Protocol.Network.Initiator): Source | null {
    const { page, pageAddress } = this.#around;
    const frames = getFrames(initiator.stack);
    const frame = frames.find(({ url }) => url === pageAddress);
    const line = frame ? frame.lineNumber : initiator.lineNumber;
    const column = (frame ? frame.columnNumber : initiator.columnNumber) ?? 0;
    if (line === undefined || (!frame && initiator.url !== pageAddress)) return null;
    const offset = page.getSnippetOffset(line, Math.max(column, 0));
    return offset === null ? null : { offset };
  }
}

function getFrames(stack: Protocol.Runtime.StackTrace | undefined): Protocol.Runtime.CallFrame[] {
  const frames: Protocol.Runtime.CallFrame[] = [];
  for (let at = stack; at; at = at.parent) frames.push(...at.callFrames);
  return frames;
}

/** The script, sheet or page that asked. */
function getAsker(initiator: Protocol.Network.Initiator): string | null {
  return getFrames(initiator.stack).find(({ url }) => url)?.url ?? initiator.url ?? null;
}
