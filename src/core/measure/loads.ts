import { isMeasured, type Evidence, type RequestFact } from '../evidence.js';
import { groupBy } from '../lists.js';
import type { LoadReport, LoadsReport } from '../loads-report.js';
import type { Markup } from '../markup/markup.js';
import { getPlace } from '../render.js';
import { findRequestTag, getSourceOffset } from './blame.js';
import { isThirdParty } from './site.js';

/** Who loads whom: in the render as it is that asked for most; null where none asked for anything. */
export function reportLoads(
  markup: Markup,
  evidence: readonly Evidence[],
  origin: string,
): LoadsReport | null {
  const asIs = evidence.filter(
    (one) => getPlace(one).variant === 'as-is' && isMeasured(one, 'traffic'),
  );
  const [most] = asIs.toSorted((a, b) => b.traffic.length - a.traffic.length);
  if (!most || most.traffic.length === 0) return null;
  const { slot, viewport } = getPlace(most);
  const askers = findAskers(most.traffic);
  const requests = most.traffic.map((request, i): LoadReport => {
    const { address, host, type, status, fresh = null, from, inFrame } = request;
    const why = request.refused?.kind ?? request.failed;
    // How much comes of what breaks off goes by the moment.
    const { wire, unpacked } = why === null ? request : NOTHING_CAME;
    const tag = getSourceOffset(from) === null ? null : findRequestTag(markup, request);
    return {
      ...{ address, host, thirdParty: isThirdParty(host, origin), type, status, wire, unpacked },
      ...{ failed: why, fresh },
      ...{ offset: tag && tag.offset, line: tag && markup.place(tag).line },
      ...{ by: askers[i]!, inFrame },
    };
  });
  return { slot, viewport, requests };
}

const NOTHING_CAME = { wire: 0, unpacked: 0 };

/** Which of them asked for each, by their numbers. What was sent elsewhere is asked for by what sent it. */
function findAskers(traffic: readonly RequestFact[]): (number | null)[] {
  const hops = groupBy(
    [...traffic.keys()].filter((i) => isSentOn(traffic[i]!.status)),
    (i) => traffic[i]!.first,
  );
  const byAddress = groupBy(traffic.keys(), (i) => traffic[i]!.address);
  const found = traffic.map(({ first, status, by }, i) => {
    const way = hops.get(first) ?? [];
    const before = isSentOn(status) ? way[way.indexOf(i) - 1] : way.at(-1);
    return before ?? (by === null ? null : (byAddress.get(by)?.[0] ?? null));
  });
  return found.map((by, i) => (by === null || leadsTo(found, by, i) ? null : by));
}

/** RFC 9110, 15.4; 304 leads nowhere. */
function isSentOn(status: number | null): boolean {
  return status !== null && status >= 300 && status < 400 && status !== 304;
}

/** Whether who asked goes back to it: two scripts may each ask for the other. */
function leadsTo(askers: readonly (number | null)[], from: number, to: number): boolean {
  const met = new Set<number>();
  for (let at: number | null = from; at !== null && !met.has(at); at = askers[at]!) {
    if (at === to) return true;
    met.add(at);
  }
  return false;
}
