import { defineCheck, makeSeen, type Case, type Fact } from '../../core/check.js';
import type { Replaced } from '../../core/evidence.js';
import { flatMap } from '../../core/lists.js';
import { getAttribute } from '../../core/markup/markup.js';
import { isScript } from '../../core/markup/traits.js';
import { atSpan, atTag, getHead, type Blame } from '../../core/measure/blame.js';
import { tell } from '../../core/tell.js';
import { shorten } from '../../core/words/list.js';

type Data =
  | { what: 'changed'; how: Replaced['how']; of: Replaced['of']; name: string }
  | { what: 'error'; text: string; address: string; line: number | null };
type Measured = { asked: string } | { error: string };

export default defineCheck({
  id: 'script-breaks-host',
  subject: 'scripts',
  level: 'blocker',
  title: 'The snippet’s code gets in the way of the page’s own',
  decided:
    'A function, object or text that the page’s own code made global, or a handler of its window, is another after the snippet than just before it; or a function that the browser gives all code is (on a prototype, on `window`, `document`, `history` and the like, or one put on a prototype so that it shows where things are gone through); or the page’s own code raises an error. Not what is so without the snippet too, nor numbers, which change by use.',
  standard:
    'ECMAScript, 17 (built-in objects); HTML Living Standard, 8.1.4.6 Runtime script errors',
  needs: ['scripts'],
  markup: false,
  judge: (c): Fact<Data, Measured>[] =>
    flatMap(c.renders, (render) => {
      const { replaced, hostErrors } = render.scripts;
      return [
        ...replaced.map(({ how, of, name }) =>
          tell.seen(
            blame(c, name),
            { what: 'changed' as const, how, of, name },
            makeSeen(render, { asked: `${name}: ${how}` }),
            { group: name },
          ),
        ),
        ...hostErrors.map(({ text, address, line }) =>
          tell.seen(
            blame(c, null),
            { what: 'error' as const, text, address: address ?? '', line },
            makeSeen(render, { error: text }),
            { group: text },
          ),
        ),
      ];
    }),
  says(data) {
    if (data.what === 'error')
      return {
        message: `With the snippet the page’s own code raises an error (${data.address}, line ${data.line}): “${data.text}”`,
        notice: 'What the page’s own code was to do from there on does not happen.',
        cure: 'Look what that code finds otherwise with the snippet: a name, an element or a call that is another.',
      };
    const { how, of, name } = data;
    return {
      message:
        how === 'added'
          ? `The snippet puts \`${name}\` on what all code of the page shares.`
          : `The snippet ${how === 'gone' ? 'takes away' : 'replaces'} ${of === 'page' ? `\`${name}\`, which the page’s own code has made` : `\`${name}\`, which the browser gives all code of the page`}.`,
      notice:
        how === 'added'
          ? 'The page’s own code meets it wherever it goes through such a thing.'
          : 'The page’s own code calls it and gets another: what works without the snippet may break.',
      cure: 'Keep names in a function or a module of the snippet’s own, and leave what is not its own as it is.',
    };
  },
  brief: (data) => (data.what === 'error' ? shorten(data.text, 60) : `${data.name} ${data.how}`),
  samples: [
    { what: 'changed', how: 'replaced', of: 'page', name: 'openMenu' },
    { what: 'changed', how: 'added', of: 'browser', name: 'Array.prototype.last' },
    {
      what: 'error',
      text: 'TypeError: openMenu is not a function',
      address: 'https://www.seedlibrary.example/menu.js',
      line: 4,
    },
  ],
  examples: {
    faulty: [
      {
        name: 'a function of the page’s, by the same name',
        under: { page: makePage('function openMenu() { return 1 }') },
        code: '<p>Sow in May.</p><script>function openMenu() { return 2 }</script>',
      },
      {
        name: 'what is to happen once the page has loaded',
        under: { page: makePage('window.onload = () => document.body.classList.add("ready")') },
        code: '<p>Sow in May.</p><script>window.onload = function () {}</script>',
      },
      {
        name: 'something on all lists',
        code: '<p>Sow in May.</p><script>Array.prototype.last = function () { return this[this.length - 1] }</script>',
      },
      {
        name: 'a part that the page’s own code goes by',
        under: {
          page: makePage(
            'addEventListener("load", () => { for (const one of document.querySelectorAll(".bed")) one.dataset.kind.trim() })',
          ),
        },
        code: '<p class="bed">Sow in May.</p><script>document.querySelector(".bed").hidden = false</script>',
      },
    ],
    sound: [
      {
        name: 'a name of its own',
        under: { page: makePage('function openMenu() { return 1 }') },
        code: '<p>Sow in May.</p><script>function openBeds() { return 2 }</script>',
      },
      {
        name: 'beside what is to happen already',
        under: { page: makePage('window.onload = () => document.body.classList.add("ready")') },
        code: '<p>Sow in May.</p><script>addEventListener("load", () => {})</script>',
      },
      {
        name: 'one more in a list of the page’s',
        under: { page: makePage('var queue = []') },
        code: '<p>Sow in May.</p><script>queue.push("beds")</script>',
      },
    ],
  },
});

/** A page with code of its own before the snippet. */
function makePage(code: string): string {
  return `<!doctype html><html lang="en"><title>Beds</title><meta name="viewport" content="width=device-width"><script>${code}</script><div data-mivket-slot="column"></div>`;
}

/** The script that speaks of it; else the first that is loaded, or any. */
function blame({ markup }: Case<never>, name: string | null): Blame {
  const scripts = markup.elements.filter(isScript);
  const word = name?.split('.').at(-1);
  const speaks = word && scripts.find(({ text }) => text.includes(word));
  if (word && speaks) {
    const offset = markup.text.indexOf(word, speaks.offset);
    if (offset >= 0) return atSpan({ offset, endOffset: offset + word.length });
  }
  const loads = scripts.find((one) => getAttribute(one, 'src'));
  const any = loads ?? scripts[0];
  return any ? atTag(any) : atSpan(getHead(markup));
}
