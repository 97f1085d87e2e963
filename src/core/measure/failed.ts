import type { RequestFact } from '../evidence.js';

/** Why a file did not come, in words that follow “it does not come:”. */
export interface Failure {
  why: string;
  kind: 'status' | 'silence';
}

const SILENT: Failure = { kind: 'silence', why: 'its host does not answer' };

/** What an automated visitor may be kept from, and others not. */
const KEPT_BACK = new Set([401, 403, 407, 429]);

/** Whether the run itself kept something back: what could not be reached it did not. */
export function isWithheld({ refused }: Pick<RequestFact, 'refused'>): boolean {
  return refused !== null && !/^(unreachable|unknown-name)$/.test(refused.kind);
}

/**
 * Why what was asked for at an address did not come; null where it did, and where the run itself or a vendor
 * kept it back from a visitor such as us.
 */
export function tellFailure(address: string, traffic: readonly RequestFact[]): Failure | null {
  const asked = traffic.filter((one) => one.first === address);
  // Of several tries and of a chain of redirects the end counts.
  const last = asked.findLast(({ status }) => status === null || status < 300 || status >= 400);
  if (!last) return null;
  const { refused, status, failed } = last;
  // Where nobody answers it is the gate that does.
  if (refused) return isWithheld(last) ? null : SILENT;
  if (status !== null && status >= 400)
    return KEPT_BACK.has(status)
      ? null
      : { kind: 'status', why: `its address is answered with ${status}` };
  // What the browser itself refused, by a policy of the page's, is no fault of the file.
  if (status !== null || !failed?.startsWith('net::')) return null;
  return failed.endsWith('TOO_MANY_REDIRECTS')
    ? { kind: 'silence', why: 'its address leads from one to the next without end' }
    : SILENT;
}
