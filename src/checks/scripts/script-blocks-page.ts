import { defineCheck, makeSeen, type Case, type Fact } from '../../core/check.js';
import { flatMap, mapPresent } from '../../core/lists.js';
import { atTag, blameElement } from '../../core/measure/blame.js';
import { addAttribute } from '../../core/mend/attribute.js';
import { getAttribute, getValue, type MarkupElement } from '../../core/markup/markup.js';
import { isScript, runsBeside } from '../../core/markup/traits.js';
import { parseAddress } from '../../core/measure/site.js';
import { tell } from '../../core/tell.js';

interface Data {
  address: string;
  /** What forbids to put it off: it writes where it stands, or code behind it may need it. */
  bound: 'writes' | 'needed' | 'made' | null;
}

type Needs = 'traffic' | 'scripts';

export default defineCheck({
  id: 'script-blocks-page',
  subject: 'scripts',
  level: 'concern',
  title: 'A script holds up the page',
  decided:
    'A classic script with src has neither async nor defer; the browser asked for it while parsing. Also one that the snippet’s code writes into the page (document.write). The time it was waited for is told.',
  standard: 'HTML Living Standard, 4.12.1 The script element',
  needs: ['traffic', 'scripts'],
  markup: true,
  judge(c): Fact<Data>[] {
    const written = flatMap(c.markup.elements.filter(isBlocking), (element): Fact<Data>[] => {
      const address = parseAddress(getValue(element, 'src')!.trim(), c.house.origin)?.href;
      if (!address) return [];
      const loads = flatMap(c.renders, (render) => {
        const load = render.traffic.find((request) => request.first === address);
        return load ? [{ render, load }] : [];
      });
      // Asked for by nothing, it was taken out or blocked before it could hold anything up.
      if (c.renders.length > 0 && loads.length === 0) return [];
      return [
        tell.seen(
          atTag(element),
          { address, bound: getBound(c, element, address) },
          loads.map(({ render, load }) => makeSeen(render, { waitedMs: load.waited })),
        ),
      ];
    });
    return [...written, ...judgeMade(c)];
  },
  says({ address, bound }) {
    return {
      // For how long stands in what was measured: it is another time in every run.
      message: `The page waits for ${address} while it loads.`,
      notice:
        'All of the page behind it appears only when that host has answered; when it does not, visitors wait.',
      cure: CURES[bound ?? 'free'],
    };
  },
  mend: ({ bound }, { culprit }) => (bound === null ? addAttribute(culprit, 'defer') : null),
  samples: ([null, 'writes', 'needed', 'made'] as const).map((bound) => ({ address: '', bound })),
  examples: {
    faulty: [
      { name: 'a plain script', code: '<script src="https://tally.example/small.js"></script>' },
    ],
    sound: [
      { name: 'async', code: '<script async src="https://tally.example/small.js"></script>' },
      {
        name: 'a module waits by itself',
        code: '<script type="module" src="https://tally.example/small.js"></script>',
      },
    ],
  },
});

/** Those that the snippet’s code writes into the page while it is read. */
function judgeMade({ markup, house, renders }: Case<Needs>): Fact<Data>[] {
  const known = new Set(
    mapPresent(markup.elements.filter(isScript), (one) => {
      const src = getValue(one, 'src')?.trim();
      return src ? parseAddress(src, house.origin)?.href : null;
    }),
  );
  return flatMap(renders, (render) => {
    const { writers, held = [] } = render.scripts;
    if (writers.length === 0) return [];
    const made = held.filter((address) => !known.has(address));
    return mapPresent(new Set(made), (address): Fact<Data> | null => {
      const load = render.traffic.find((one) => one.first === address && one.from !== null);
      if (!load?.from) return null;
      const blame = blameElement(markup, { from: load.from, selector: address });
      const seen = makeSeen(render, { waitedMs: load.waited });
      return tell.seen(blame, { address, bound: 'made' }, seen, { group: address });
    });
  });
}

const CURES = {
  free: 'Add `defer`, or `async` where its order does not matter.',
  writes:
    'It writes into the page while that is read (document.write), so neither `defer` nor `async` will do: ask its maker for a code that does not.',
  made: 'Put its tag into the snippet, with `async`, in the place of the code that writes it.',
  needed:
    'The script behind it may need it: add `defer` only where that one waits for it, or ask its maker for a code that loads with `async`.',
};

function getBound({ markup, renders }: Case<Needs>, element: MarkupElement, address: string) {
  const { elements } = markup;
  if (renders.some(({ scripts }) => scripts.writers.includes(address))) return 'writes';
  const inline = elements
    .slice(element.index + 1)
    .some((one) => isScript(one) && getAttribute(one, 'src') === null);
  return inline ? 'needed' : null;
}

/** Classic, with src, neither async nor defer, and run by browsers that know modules. */
function isBlocking(element: MarkupElement): boolean {
  const isNew = getAttribute(element, 'nomodule') === null && !runsBeside(element);
  return isScript(element) && Boolean(getValue(element, 'src')?.trim()) && isNew;
}
