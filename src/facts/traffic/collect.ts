import { toRequestFacts } from '../../render/collect/requests.js';
import type { Collector } from '../collector.js';

export const collectTraffic: Collector<'traffic'> = (look, { frames }) => {
  const { page, served, of, log, baseline, hostChanges, changes } = look;
  return toRequestFacts(page.requests.requests, {
    page: served,
    of,
    pageAddress: page.address,
    mainFrame: page.mainFrame,
    frames,
    log,
    hostRequests: new Set(baseline?.requests ?? []),
    hostChanges: hostChanges && baseline !== null,
    changes,
  });
};
