import { lookup, Resolver } from 'node:dns/promises';
import { within } from '../bounds/limit.js';

/** The addresses of a name; empty where it has none, null where nobody answered in time. */
export type Lookup = (name: string) => Promise<string[] | null>;

/** How long a name is looked up, ms. */
const LIMIT = 5000;
/** Look-ups by the system cannot be called off, and its threads are few: others wait for them. */
const MOST_BY_SYSTEM = 2;
const UNANSWERED = /^(ETIMEOUT|ECANCELLED)$/;

let bySystem = 0;

/**
 * Asks the name servers, which can be given up; names that they do not have may be known to the
 * system alone (its table of hosts, the local network).
 */
export async function lookUp(name: string): Promise<string[] | null> {
  const asked = await askServers(name);
  if (asked === null || asked.length > 0) return asked;
  if (bySystem >= MOST_BY_SYSTEM) return null;
  bySystem++;
  const found = lookup(name, { all: true })
    .then((all) => all.map(({ address }) => address))
    .catch(() => [])
    .finally(() => bySystem--);
  return within(found, LIMIT);
}

async function askServers(name: string): Promise<string[] | null> {
  const resolver = new Resolver({ timeout: 2000, tries: 2 });
  let late = false;
  const empty = ({ code }: NodeJS.ErrnoException) => {
    late ||= UNANSWERED.test(code ?? '');
    return [];
  };
  const both = Promise.all([
    resolver.resolve4(name).catch(empty),
    resolver.resolve6(name).catch(empty),
  ]);
  const found = await within(both, LIMIT);
  if (found === null) resolver.cancel();
  const addresses = found?.flat() ?? [];
  return found === null || (late && addresses.length === 0) ? null : addresses;
}
