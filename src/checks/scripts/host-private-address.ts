import {
  defineCheck,
  getCulpritKey,
  makeSeen,
  type Case,
  type Fact,
  type MarkupFact,
} from '../../core/check.js';
import type { RequestFact } from '../../core/evidence.js';
import { flatMap } from '../../core/lists.js';
import { atSnippet, findRequestTag } from '../../core/measure/blame.js';
import { getPrivateHostKind } from '../../core/measure/private-address.js';
import { hasHost, matchesHost, parseAddress } from '../../core/measure/site.js';
import { listWritten } from '../../core/markup/addresses.js';
import { tell } from '../../core/tell.js';

interface Data {
  host: string;
  kind: string;
  address: string;
}

export default defineCheck({
  id: 'host-private-address',
  subject: 'scripts',
  level: 'blocker',
  title: 'A private address is asked for',
  decided:
    'The markup loads from, or the page asked for, a loopback, link-local or private address (by number, by name, or by redirect); the tool refused it. Not where the house reroutes the host.',
  standard: 'RFC 6890 Special-Purpose IP Address Registries',
  needs: ['traffic'],
  markup: 'part',
  judge(c): Fact<Data>[] {
    const written = tellWritten(c);
    const asked = flatMap(c.renders, (render) =>
      flatMap(render.traffic, (request): Fact<Data>[] => {
        const kind = getKind(request, c);
        if (!kind) return [];
        const known = written.find(
          ({ data }) => data.host === request.host && sameFile(data.address, request.address),
        );
        const data = { host: request.host, kind, address: request.address };
        const where = known?.where ?? findRequestTag(c.markup, request);
        const seen = makeSeen(render, { asked: request.address, happened: 'refused' });
        return [tell.seen(atSnippet(`host ${request.host}`, where), data, seen)];
      }),
    );
    return mergeByPlace([...written, ...asked]);
  },
  says({ host, kind, address }) {
    return {
      message: `${address} is asked for, and ${host} is ${kind}: Mivket did not let it through.`,
      notice:
        'Visitors get nothing from there, or their own device or network is asked: it works only where the code was made.',
      cure: 'Put the address of the public server in its place, or take it out.',
    };
  },
  brief: ({ host, kind }) => `${host} is ${kind}`,
  samples: [{ host: '192.168.4.20', kind: 'a private address', address: '' }],
  examples: {
    faulty: [
      {
        name: 'a picture on the office network',
        code: '<img src="https://192.168.4.20/beans.png" width="160" height="120" alt="Runner beans drying on a rack">',
      },
      {
        name: 'a script on a machine of the office',
        code: '<script async src="https://192.168.4.21:3000/widget.js"></script>',
      },
    ],
    sound: [
      {
        name: 'a public host',
        code: '<img src="https://static.rootcellar.example/beans.png" width="160" height="120" alt="Runner beans drying on a rack">',
      },
      { name: 'an address in a text', code: '<p>The desk’s printer is at 192.168.4.20.</p>' },
    ],
  },
});

type Needs = 'traffic';

const NAMES_HOST = /^[a-z][a-z\d+.-]*:|^[\\/][\t\n\r]*[\\/]/i;

function tellWritten(c: Case<Needs>): MarkupFact<Data>[] {
  const { origin } = c.house;
  // What names no host is asked of the page's own.
  const isOwn = getPrivateHostKind(new URL(origin).hostname) === null;
  return flatMap(listWritten(c.markup), ({ text, attribute }) => {
    const url = isOwn && !NAMES_HOST.test(text) ? null : parseAddress(text, origin);
    if (!url) return [];
    const kind = hasHost(url) ? getPrivateHostKind(url.hostname) : null;
    if (!kind || isRerouted(c, url.hostname)) return [];
    return [
      tell.markup(atSnippet(`host ${url.hostname}`, attribute), {
        host: url.hostname,
        kind,
        address: url.href,
      }),
    ];
  });
}

function getKind(request: RequestFact, c: Case<Needs>): string | null {
  if (request.refused?.kind === 'private-address') return request.refused.words;
  return isRerouted(c, request.host) ? null : getPrivateHostKind(request.host);
}

function isRerouted(c: Case<Needs>, host: string): boolean {
  return Object.keys(c.house.reroute).some((pattern) => matchesHost(pattern, host));
}

/** A browser may have gone to https for what was written as http. */
function sameFile(a: string, b: string): boolean {
  return a.replace(/^\w+:/, '') === b.replace(/^\w+:/, '');
}

/** What the markup says and what was then seen is one finding; what was seen confirms it. */
function mergeByPlace(facts: readonly Fact<Data>[]): Fact<Data>[] {
  const merged = new Map<string, Fact<Data>>();
  for (const fact of facts) {
    const key = `${fact.where.offset} ${getCulpritKey(fact.culprit)}`;
    const known = merged.get(key);
    if (!known) merged.set(key, { ...fact, seen: [...fact.seen] });
    else known.seen.push(...fact.seen);
  }
  return [...merged.values()];
}
