import type { Evidence } from '../evidence.js';
import { flatMap } from '../lists.js';
import type { SnippetReport } from '../run.js';
import { compareWeight, sumByHost } from './hosts.js';
import { getSite, leavesSite } from './site.js';

type Contact = SnippetReport['contacts'][number];

/** Whom the snippet contacts besides the page's own site, by host: as in the render that asked it most. The heaviest first. */
export function listContacts(
  evidence: readonly Pick<Evidence, 'traffic' | 'stored'>[],
  origin: string,
): Contact[] {
  const contacts = new Map<string, Contact>();
  for (const { traffic } of evidence) {
    const others = traffic.filter((request) => leavesSite(request, origin));
    for (const { host, requests, wire, unpacked } of sumByHost(others)) {
      const scripts = others.filter((one) => one.host === host && one.type === 'script').length;
      const told = { host, site: getSite(host), requests, wire, unpacked, scripts, stored: 0 };
      const known = contacts.get(host);
      contacts.set(host, known ? takeLarger(known, told) : told);
    }
  }
  const stored = flatMap(evidence, (one) => one.stored);
  const things = [...new Map(stored.map((one) => [JSON.stringify(one), one])).values()];
  return [...contacts.values()]
    .map((one) => ({ ...one, stored: things.filter(({ host }) => host === one.host).length }))
    .sort(compareWeight);
}

function takeLarger(a: Contact, b: Contact): Contact {
  const most = (key: 'requests' | 'wire' | 'unpacked' | 'scripts') => Math.max(a[key], b[key]);
  return {
    ...a,
    ...{ requests: most('requests'), wire: most('wire') },
    ...{ unpacked: most('unpacked'), scripts: most('scripts') },
  };
}
