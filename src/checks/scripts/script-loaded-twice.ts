import { defineCheck, makeSeen, type Case, type Fact } from '../../core/check.js';
import { flatMap, mapPresent } from '../../core/lists.js';
import { getAttribute, type MarkupElement } from '../../core/markup/markup.js';
import { isModule, isScript } from '../../core/markup/traits.js';
import { atPart, atSpan, findRequestTag } from '../../core/measure/blame.js';
import { findLibrary } from '../../core/measure/packages.js';
import { parseAddress } from '../../core/measure/site.js';
import { tell } from '../../core/tell.js';

interface Data {
  address: string;
  /** The address that it was loaded from before; the same, where it is the same file. */
  before: string;
  /** The library, where it is one in two versions. */
  library: string | null;
}

interface Loaded {
  element: MarkupElement;
  source: NonNullable<ReturnType<typeof getAttribute>>;
  url: URL;
}

export default defineCheck({
  id: 'script-loaded-twice',
  subject: 'scripts',
  level: 'concern',
  title: 'A script is loaded twice',
  decided:
    'Two scripts of the snippet, those that its scripts load too, have the same address (what follows # aside), or name the same library in two versions: `name@version`, a version in the name of the file, or in its path. Not modules of one address, which run once.',
  standard: null,
  needs: ['traffic'],
  markup: true,
  judge: (c): Fact<Data>[] => {
    const written = listWritten(c);
    return [...tellWritten(written), ...tellPulled(c, written)];
  },
  says: ({ address, before, library }) => ({
    message: library
      ? `${library} is loaded in two versions: ${before} and ${address}.`
      : `The script ${address} is loaded for the second time.`,
    notice: library
      ? 'The second takes the place of the first, and what was made for that may break.'
      : 'What it does it does twice: it counts twice, shows twice, or answers each click twice.',
    cure: library
      ? 'Keep one of the two, the one that all of the code works with.'
      : 'Take one of the two out.',
  }),
  brief: ({ library }) => (library ? `${library} in two versions` : 'the same script twice'),
  samples: [
    {
      address: 'https://cdn.tallyroot.example/bedlist.js',
      before: 'https://cdn.tallyroot.example/bedlist.js',
      library: null,
    },
    {
      address: 'https://cdn.tallyroot.example/npm/bedlist@2.0.0/bedlist.js',
      before: 'https://cdn.tallyroot.example/npm/bedlist@1.4.0/bedlist.js',
      library: 'bedlist',
    },
  ],
  examples: {
    faulty: [
      {
        name: 'the same loader under each block',
        code: '<p>Beds</p><script async src="https://tally.example/small.js"></script>\n<p>Paths</p><script async src="https://tally.example/small.js"></script>',
      },
      {
        name: 'a library in two versions',
        code: '<p>Beds</p><script async src="https://static.rootcellar.example/npm/bedlist@1.4.0/bedlist.js"></script><script async src="https://static.rootcellar.example/npm/bedlist@2.1.0/bedlist.js"></script>',
      },
      {
        name: 'another version that a script loads',
        code: '<p>Beds</p><script async src="https://static.rootcellar.example/npm/bedlist@1.4.0/bedlist.js"></script><script>const more = document.createElement("script"); more.src = "https://static.rootcellar.example/npm/bedlist@2.1.0/bedlist.js"; document.head.append(more)</script>',
      },
    ],
    sound: [
      {
        name: 'two scripts of one host',
        code: '<p>Beds</p><script async src="https://static.rootcellar.example/npm/bedlist@2.1.0/bedlist.js"></script><script async src="https://static.rootcellar.example/npm/pathlist@1.0.0/pathlist.js"></script>',
      },
      {
        name: 'two files of one version',
        code: '<p>Beds</p><script async src="https://static.rootcellar.example/npm/bedlist@2.1.0/bedlist.js"></script><script async src="https://static.rootcellar.example/npm/bedlist@2.1.0/plots.js"></script>',
      },
    ],
  },
});

function listWritten({ markup, house }: Case<'traffic'>): Loaded[] {
  return mapPresent(markup.elements.filter(isScript), (element) => {
    const source = getAttribute(element, 'src');
    const url = source && parseAddress(source.value.trim(), house.origin);
    return source && url ? { element, source, url } : null;
  });
}

/** Which of those before it is the same again. */
function findBefore(url: URL, before: readonly URL[]): Omit<Data, 'address'> | null {
  const [same, mine] = [withoutHash(url), findLibrary(url)];
  for (const one of before) {
    const other = findLibrary(one);
    if (withoutHash(one) === same) return { before: one.href, library: null };
    if (mine && other?.name === mine.name && other.version !== mine.version)
      return { before: one.href, library: mine.name };
  }
  return null;
}

function withoutHash({ href }: URL): string {
  return href.replace(/#.*$/, '');
}

function tellWritten(written: readonly Loaded[]): Fact<Data>[] {
  return flatMap(written, ({ element, source, url }) => {
    const earlier = written.filter((one) => one.element.index < element.index);
    const found = findBefore(
      url,
      earlier.map((one) => one.url),
    );
    if (!found || (isModule(element) && found.library === null)) return [];
    return [tell.markup(atPart(element, 'src', source), { address: url.href, ...found })];
  });
}

/** What scripts load besides what is written. */
function tellPulled(c: Case<'traffic'>, written: readonly Loaded[]): Fact<Data>[] {
  const known = written.map(({ url }) => url);
  const names = new Set(known.map(withoutHash));
  return flatMap(c.renders, (render) => {
    const pulled = render.traffic.filter(
      ({ type, inFrame, first }) => type === 'script' && !inFrame && !names.has(first),
    );
    return flatMap(pulled, (request, i) => {
      const url = parseAddress(request.first);
      const earlier = mapPresent(pulled.slice(0, i), ({ first }) => parseAddress(first));
      const found = url && findBefore(url, [...known, ...earlier]);
      // The same address once more is a reload of what did not come.
      if (!found?.library) return [];
      const data = { address: request.first, ...found };
      const seen = makeSeen(render, { asked: data.address });
      return [
        tell.seen(atSpan(findRequestTag(c.markup, request)), data, seen, { group: found.library }),
      ];
    });
  });
}
