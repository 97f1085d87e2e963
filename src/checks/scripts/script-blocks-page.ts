import { defineCheck, makeSeen, type Fact } from '../../core/check.js';
import { addAttribute } from '../../core/mend/attribute.js';
import {
  getAttribute,
  getTagSpan,
  getValue,
  type MarkupElement,
} from '../../core/markup/markup.js';
import { isScript } from '../../core/markup/traits.js';
import { parseAddress } from '../../core/measure/site.js';

interface Data {
  address: string;
}

export default defineCheck({
  id: 'script-blocks-page',
  subject: 'scripts',
  level: 'concern',
  title: 'A script holds up the page',
  decided:
    'A classic script with src has neither async nor defer; the browser asked for it while parsing. The time it was waited for is told.',
  standard: 'HTML Living Standard, 4.12.1 The script element',
  needs: ['traffic'],
  markup: true,
  judge(c): Fact<Data>[] {
    return c.markup.elements.filter(isBlocking).flatMap((element): Fact<Data>[] => {
      const address = parseAddress(getValue(element, 'src')!.trim(), c.house.origin)?.href;
      if (!address) return [];
      const loads = c.renders.flatMap((render) => {
        const load = render.traffic.find((request) => request.first === address);
        return load ? [{ render, load }] : [];
      });
      // Asked for by nothing, it was taken out or blocked before it could hold anything up.
      if (c.renders.length > 0 && loads.length === 0) return [];
      return [
        {
          where: getTagSpan(element),
          culprit: { at: 'element', offset: element.offset },
          confirmed: loads.length > 0,
          data: { address },
          seen: loads.map(({ render, load }) => makeSeen(render, { waitedMs: load.waited })),
        },
      ];
    });
  },
  says({ address }) {
    return {
      // For how long stands in what was measured: it is another time in every run.
      message: `The parser waits for ${address}.`,
      notice:
        'All of the page behind it appears only when that host has answered; when it does not, visitors wait.',
      cure: 'Add defer, or async where its order does not matter.',
    };
  },
  mend: (_data, { culprit }) => addAttribute(culprit, 'defer'),
  sample: { address: '' },
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

/** Classic, with src, neither async nor defer, and run by browsers that know modules. */
function isBlocking(element: MarkupElement): boolean {
  const type = getValue(element, 'type')?.trim().toLowerCase();
  const has = (name: string) => getAttribute(element, name) !== null;
  return (
    isScript(element) &&
    type !== 'module' &&
    Boolean(getValue(element, 'src')?.trim()) &&
    !has('async') &&
    !has('defer') &&
    !has('nomodule')
  );
}
