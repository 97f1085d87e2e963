import type { Source } from '../../core/evidence.js';
import type { Askers } from '../../render/collect/requests.js';
import type { CallFrame } from '../../render/page/request-log.js';
import type { Look } from '../collector.js';

/** A document that is written on its frame (HTML, 4.8.5: srcdoc). */
export const WRITTEN = 'about:srcdoc';

/** Where code stands. */
export interface CodePlace {
  from: Source | null;
  address: string | null;
  line: number | null;
}

/** Tells of calls, the innermost first, where in the snippet they come from; null where they are not the snippet's. */
export function locateCode(
  { page, of }: Pick<Look, 'page' | 'of'>,
  askers: Askers,
): (calls: readonly CallFrame[]) => CodePlace | null {
  return (calls) => {
    const [first] = calls;
    if (!first) return null;
    const owner = askers.findRunner(calls);
    const isOwn = owner?.to === 'snippet' && owner.snippet === of;
    if (!isOwn && first.url !== WRITTEN) return null;
    const inPage = first.url === page.address;
    return {
      from: isOwn ? owner.from : null,
      address: inPage ? null : first.url.slice(0, 300),
      line: inPage ? null : first.line + 1,
    };
  };
}
