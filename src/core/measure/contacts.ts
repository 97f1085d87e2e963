import type { Evidence, RequestFact } from '../evidence.js';
import { flatMap } from '../lists.js';
import type { SnippetReport } from '../run.js';
import { sumBytes } from './bytes.js';
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
    for (const host of new Set(others.map((one) => one.host))) {
      const told = tellHost(
        host,
        others.filter((one) => one.host === host),
      );
      const known = contacts.get(host);
      contacts.set(host, known ? takeLarger(known, told) : told);
    }
  }
  const stored = flatMap(evidence, (one) => one.stored);
  const things = [...new Map(stored.map((one) => [JSON.stringify(one), one])).values()];
  return [...contacts.values()]
    .map((one) => ({ ...one, stored: things.filter(({ host }) => host === one.host).length }))
    .sort((a, b) => b.wire - a.wire || a.host.localeCompare(b.host));
}

function tellHost(host: string, requests: readonly RequestFact[]): Contact {
  // What was refused, or broke off, weighs nothing of its own.
  const came = requests.filter(({ failed, refused }) => failed === null && refused === null);
  return {
    host,
    site: getSite(host),
    requests: requests.length,
    wire: sumBytes(came, 'wire'),
    unpacked: sumBytes(came, 'unpacked'),
    scripts: requests.filter(({ type }) => type === 'script').length,
    stored: 0,
  };
}

function takeLarger(a: Contact, b: Contact): Contact {
  const most = (key: 'requests' | 'wire' | 'unpacked' | 'scripts') => Math.max(a[key], b[key]);
  return {
    ...a,
    ...{ requests: most('requests'), wire: most('wire') },
    ...{ unpacked: most('unpacked'), scripts: most('scripts') },
  };
}
