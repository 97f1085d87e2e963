import type { Hang } from '../../core/evidence.js';
import type { BrowserPage, Hottest } from '../page/browser-page.js';
import type { ServedPage } from '../page/served-page.js';
import { getAskers, type Owner } from './requests.js';

/**
 * What is told of a page that hung, or that its code took down; null of any other.
 * @param seconds how long it may take to answer; null where its code took it down before, and was switched off
 */
export function describeHang(
  page: BrowserPage,
  served: ServedPage,
  of: number,
  stopped: { hottest: Hottest } | null,
  seconds: number | null,
): Hang | null {
  if (!stopped && seconds !== null) return null;
  const hottest = stopped?.hottest;
  if (!hottest) return { from: null, address: null, line: null, functionName: null, seconds };
  const { url, functionName, line } = hottest;
  const inPage = url === page.address;
  const offset = inPage
    ? served.getSnippetLineStart(of, line)
    : findScript(getAskers(page, served, of).findRunner([hottest]));
  return {
    from: offset === null ? null : { offset },
    address: inPage ? null : url.slice(0, 300),
    line: line + 1 - (inPage ? served.getFirstLine(of) : 0),
    functionName: functionName || null,
    seconds,
  };
}

/** The place in the snippet that brought a script in, or that brought in who did. */
function findScript(owner: Owner | null): number | null {
  return owner?.to === 'snippet' && 'offset' in owner.from ? owner.from.offset : null;
}
