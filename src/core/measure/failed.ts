import type { RequestFact } from '../evidence.js';

/** Why a file did not come, in words that follow “it does not come:”. */
export interface Failure {
  why: string;
  kind: 'status' | 'silence' | 'not-shared' | 'other-kind';
}

const SILENT: Failure = { kind: 'silence', why: 'its host does not answer' };

const NOT_SHARED: Failure = {
  kind: 'not-shared',
  why: 'its host does not let pages of other sites read it',
};

/** What an automated visitor may be kept from, and others not. */
const KEPT_BACK = new Set([401, 403, 407, 429]);

/** Whether the run itself kept something back: what could not be reached it did not. */
export function isWithheld({ refused }: Pick<RequestFact, 'refused'>): boolean {
  return refused !== null && !/^(unreachable|unknown-name)$/.test(refused.kind);
}

/** What was asked for at an address in the end: of several tries the last, and of a chain of redirects its end. */
export function findAnswer(
  address: string,
  traffic: readonly RequestFact[],
): RequestFact | undefined {
  return traffic.findLast(
    ({ first, status }) => first === address && (status === null || status < 300 || status >= 400),
  );
}

/** The types of web pages (WHATWG MIME Sniffing, 4.6). */
const PAGE = /^(text\/html|application\/xhtml\+xml)$/;

/** Whether an answer is a web page, and no error. */
export function isWebPage({ status, contentType }: RequestFact): boolean {
  return status !== null && status < 300 && PAGE.test(contentType ?? '');
}

/** Whether what was asked for came, and is no web page in its place. */
export function isThere(answer: RequestFact): boolean {
  return answer.status !== null && !getFailure(answer) && !isWebPage(answer);
}

/**
 * Why what was asked for at an address did not come; null where it did, and where the run itself or a vendor
 * kept it back from a visitor such as us.
 */
export function tellFailure(address: string, traffic: readonly RequestFact[]): Failure | null {
  const answer = findAnswer(address, traffic);
  return answer ? getFailure(answer) : null;
}

/** The same of what was asked for in the end. */
export function getFailure(answer: RequestFact): Failure | null {
  const { refused, status, failed, contentType } = answer;
  // Where nobody answers it is the gate that does.
  if (refused) return isWithheld(answer) ? null : SILENT;
  if (status !== null && status >= 400)
    return KEPT_BACK.has(status)
      ? null
      : { kind: 'status', why: `its address is answered with ${status}` };
  if (failed === 'not-shared') return NOT_SHARED;
  if (failed === 'other-kind')
    return {
      kind: failed,
      why: `what comes is of another kind (${contentType ?? 'not said which'})`,
    };
  // What the browser itself refused, by a policy of the page's, is no fault of the file.
  if (status !== null) return null;
  if (failed === 'endless-redirects')
    return { kind: 'silence', why: 'its address leads from one to the next without end' };
  return failed === 'no-answer' ? SILENT : null;
}
