import { defineCheck, makeSeen, type Case, type Fact } from '../../core/check.js';
import { flatMap } from '../../core/lists.js';
import { atSnippet, findRequestTag } from '../../core/measure/blame.js';
import { hasHost, matchesHost, parseAddress } from '../../core/measure/site.js';
import { listWritten } from '../../core/markup/addresses.js';
import type { Span } from '../../core/snippet.js';
import { tell } from '../../core/tell.js';

interface Data {
  host: string;
  address: string;
  /** The host of the script or page that asked for it, where that is another one. */
  by: string | null;
}

type Needs = 'traffic';

export default defineCheck({
  id: 'host-not-allowed',
  subject: 'scripts',
  level: 'blocker',
  title: 'A host is asked that the house does not allow',
  decided:
    'The markup loads from, or the page, its scripts or its frames asked, a host that is not on the house’s list `hosts.allow`; only where the house has one. The page’s own host is always allowed. Links count for nothing.',
  standard: null,
  needs: ['traffic'],
  markup: 'part',
  judge: (c): Fact<Data>[] =>
    c.house.hosts === undefined ? [] : tellOnce([...listMarkup(c), ...listAsked(c)]),
  says: ({ host, by }) => ({
    message: `${host} is asked${by ? `, by what came from ${by}` : ''}; the house does not allow this host.`,
    notice: 'It learns of everybody who opens the page.',
    cure: 'Do without it; or have it put on the house’s list (`hosts`: `allow`).',
  }),
  brief: ({ host }) => `${host} is not allowed`,
  samples: [
    { host: 'count.tally.example', address: '', by: null },
    { host: 'tiles.fernmap.example', address: '', by: 'maps.fernmap.example' },
  ],
  examples: {
    faulty: [
      {
        name: 'a picture of a host that is not on the list',
        code: '<img src="https://static.rootcellar.example/beans.png" width="160" height="120" alt="Runner beans drying on a rack">',
        under: { hosts: { allow: ['*.loam.example'] } },
      },
    ],
    sound: [
      {
        name: 'hosts of a site that is on the list',
        code: '<img src="https://static.rootcellar.example/beans.png" width="160" height="120" alt="Runner beans drying on a rack">',
        under: { hosts: { allow: ['*.rootcellar.example'] } },
      },
      {
        name: 'the page’s own host, and a link',
        code: '<p><a href="https://www.tally.example/">Tally</a></p><img src="data:image/gif;base64,R0lGODlhAQABAIAAAAAAAP///ywAAAAAAQABAAACAUwAOw==" width="9" height="9" alt="Bean">',
        under: { hosts: { allow: [] } },
      },
    ],
  },
});

function isAllowed({ house }: Case<Needs>, url: URL): boolean {
  const allowed = [new URL(house.origin).hostname, ...(house.hosts?.allow ?? [])];
  return !hasHost(url) || allowed.some((pattern) => matchesHost(pattern, url.hostname));
}

function listMarkup(c: Case<Needs>): Fact<Data>[] {
  return flatMap(listWritten(c.markup), ({ text, attribute }): Fact<Data>[] => {
    const url = parseAddress(text, c.house.origin);
    if (!url || isAllowed(c, url)) return [];
    const where = { offset: attribute.offset, endOffset: attribute.endOffset };
    return [toFact(where, url, null)];
  });
}

function listAsked(c: Case<Needs>): Fact<Data>[] {
  const own = new URL(c.house.origin).hostname;
  return flatMap(c.renders, (render) =>
    flatMap(render.traffic, (request): Fact<Data>[] => {
      const url = parseAddress(request.address);
      if (!url || isAllowed(c, url)) return [];
      const asker = (request.by && parseAddress(request.by)?.hostname) || null;
      const by = asker === url.hostname || asker === own ? null : asker;
      const fact = toFact(findRequestTag(c.markup, request), url, by);
      return [{ ...fact, seen: [makeSeen(render, { asked: request.address })] }];
    }),
  );
}

function toFact(where: Span, url: URL, by: string | null): Fact<Data> {
  const { hostname: host, href: address } = url;
  return tell.markup(atSnippet(`host ${host}`, where), { host, address, by });
}

/** A host is told once: where the markup names it, if it does. */
function tellOnce(facts: readonly Fact<Data>[]): Fact<Data>[] {
  const places = new Map<string, Span>();
  for (const { data, where } of facts) if (!places.has(data.host)) places.set(data.host, where);
  return facts.map((fact) => ({ ...fact, where: places.get(fact.data.host)! }));
}
