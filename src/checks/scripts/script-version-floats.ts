import { atPart } from '../../core/measure/blame.js';
import { defineCheck, type Case, type Fact } from '../../core/check.js';
import { flatMap, mapPresent } from '../../core/lists.js';
import { getAttribute } from '../../core/markup/markup.js';
import { findAnswer } from '../../core/measure/failed.js';
import { findPackage, isCodeFile } from '../../core/measure/packages.js';
import { decodePart, parseAddress } from '../../core/measure/site.js';
import { tell } from '../../core/tell.js';

interface Open {
  /** The package. */
  name: string;
  /** What stands for its version; null where none does. */
  version: string | null;
}

interface Data extends Open {
  /** The whole version that came; null where the answer does not say it. */
  came: string | null;
}

export default defineCheck({
  id: 'script-version-floats',
  subject: 'scripts',
  level: 'advice',
  title: 'A script’s version is left open',
  decided:
    'A script’s address names a package (`name@version`) with a tag such as `latest`, a range or a part of a version; or with none at a host from which the snippet takes another package by its version.',
  standard: 'Semantic Versioning 2.0.0',
  needs: ['traffic'],
  markup: true,
  judge({ markup, house, renders }): Fact<Data>[] {
    const scripts = flatMap(markup.elements, (element) => {
      const source = element.name === 'script' ? getAttribute(element, 'src') : null;
      const url = source && parseAddress(source.value.trim(), house.origin);
      return source && url ? [{ element, source, url, found: findPackage(url) }] : [];
    });
    const shelves = flatMap(scripts, ({ url, found }) => (found ? [url.origin + found.shelf] : []));
    return flatMap(scripts, ({ element, source, url, found }): Fact<Data>[] => {
      const open = found ?? findUnversioned(url, shelves);
      if (!open || (open.version !== null && EXACT.test(open.version))) return [];
      const { name, version } = open;
      const came = findCome(url, name, renders);
      return [tell.markup(atPart(element, 'src', source), { name, version, came })];
    });
  },
  says: ({ name, version, came }) => ({
    message:
      version === null
        ? `No version of ${name} is asked for: what comes is whatever is newest.`
        : `The version of ${name} is left open (${version}): what comes is whatever fits that is newest.`,
    notice: 'One day the code is another, untried, without anybody having changed the page.',
    cure:
      came === null
        ? `Name the whole version that was tried: \`${name}@\` and all of its numbers.`
        : `Name the version that came: \`${name}@${came}\`.`,
  }),
  brief: ({ name }) => `the version of ${name} is left open`,
  samples: [
    { name: 'bedlist', version: 'latest', came: null },
    { name: 'bedlist', version: 'latest', came: '2.1.0' },
    { name: 'bedlist', version: null, came: null },
  ],
  examples: {
    faulty: [
      {
        name: 'whatever is newest',
        code: '<p id="beds">Beds</p><script async src="https://static.rootcellar.example/npm/bedlist@latest/bedlist.js"></script>',
      },
      {
        name: 'a host that leads on to the newest',
        code: '<p id="beds">Beds</p><script async src="https://cdn.tallyroot.example/npm/bedlist@latest/bedlist.js"></script>',
      },
      {
        name: 'a part of a version',
        code: '<p id="beds">Beds</p><script async src="https://static.rootcellar.example/npm/@seed/bedlist@2.1"></script>',
      },
    ],
    sound: [
      {
        name: 'a whole version',
        code: '<p id="beds">Beds</p><script async src="https://static.rootcellar.example/npm/bedlist@2.1.0/bedlist.js"></script>',
      },
      {
        name: 'no package',
        code: '<p id="beds">Beds</p><script async src="https://static.rootcellar.example/@seed/loader@2x.js?v=latest"></script>',
      },
    ],
  },
});

/** A whole version (Semantic Versioning, 2 and 9), with or without the usual v. */
const EXACT = /^v?\d+\.\d+\.\d+([-+][\w.+-]*)?$/;
/** What stands where packages do, without a version. */
function findUnversioned(url: URL, shelves: readonly string[]): Open | null {
  const address = url.origin + decodePart(url.pathname);
  const shelf = shelves.find((one) => address.startsWith(one));
  const name = shelf && /^(@[\w.-]+\/)?[\w.-]+(?=\/|$)/.exec(address.slice(shelf.length))?.[0];
  return name && !isCodeFile(name) ? { name, version: null } : null;
}

/** The whole version of a package that its host led on to, where all loads were led to the same. */
function findCome({ href }: URL, name: string, renders: Case<'traffic'>['renders']): string | null {
  const led = mapPresent(renders, ({ traffic }) => findAnswer(href, traffic)?.address ?? null);
  const found = led.map((address) => findPackage(new URL(address)));
  const versions = new Set(found.map((one) => (one?.name === name ? one.version : null)));
  const [version = null] = versions;
  return versions.size === 1 && version !== null && EXACT.test(version) ? version : null;
}
