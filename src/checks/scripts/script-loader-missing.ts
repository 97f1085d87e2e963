import { defineCheck, makeSeen, type Case, type Fact, type MarkupFact } from '../../core/check.js';
import { flatMap, mapPresent } from '../../core/lists.js';
import { isHidden } from '../../core/markup/hidden.js';
import {
  getElementAt,
  getValue,
  type Markup,
  type MarkupElement,
} from '../../core/markup/markup.js';
import { isScript } from '../../core/markup/traits.js';
import { atTag, blameElement, getSourceOffset } from '../../core/measure/blame.js';
import { getFailure } from '../../core/measure/failed.js';
import { tell } from '../../core/tell.js';
import { findSlip } from '../../core/words/slip.js';

interface Data {
  kind: 'element' | 'object';
  name: string;
}

type Measured = { asked: string; happened: string };

/** A name that code uses and that is nowhere made. */
const UNKNOWN = /ReferenceError: ([\w$]+) is not defined/;
/** What every page has, for slips of it. */
const COMMON =
  'window document console localStorage sessionStorage navigator location history fetch Promise setTimeout setInterval undefined function return'.split(
    ' ',
  );

export default defineCheck({
  id: 'script-loader-missing',
  subject: 'scripts',
  level: 'blocker',
  title: 'Half of a two-part code is missing',
  decided:
    'An element of a name of its own is defined by nothing and has nothing in it, by the end of the first minute, nor do the snippet’s styles draw it; or the snippet’s code calls an object that nothing defines, with a capital letter or to have it begin (`init`, `render`), and the snippet has no script with an address that could. Not a slip of a name that is there, nor where a script did not come.',
  standard: 'HTML Living Standard, 4.13 Custom elements',
  needs: ['scripts', 'traffic'],
  markup: 'part',
  lasts: true,
  explains: [
    { findings: ['script-error'], anywhere: true, fits: isOfName },
    { findings: ['nothing-rendered'], anywhere: true, fits: () => true },
  ],
  judge: (c): Fact<Data, Measured>[] =>
    flatMap(c.renders, (render) => {
      const lost = render.traffic.some((one) => one.type === 'script' && getFailure(one) !== null);
      if (lost) return [];
      const unmade = render.scripts.unmade.filter(({ tag }) => !isStyled(tag, c.markup));
      const elements = unmade.map((one) => {
        const seen = makeSeen(render, { asked: one.tag, happened: 'defined by nothing' });
        const data = { kind: 'element', name: one.tag } as const;
        return tell.seen(blameElement(c.markup, one), data, seen, { group: one.tag });
      });
      return [...elements, ...tellObjects(c, render)];
    }),
  unrendered: ({ markup }) =>
    markup.elements.some(isScript)
      ? []
      : markup.elements
          .filter((one) => isOwnElement(one) && isEmpty(one) && !isHidden(markup, one))
          .filter((one) => !isStyled(one.name, markup))
          .map((one): MarkupFact<Data> =>
            tell.markup(atTag(one), { kind: 'element', name: one.name }, { group: one.name }),
          ),
  says: ({ kind, name }) => ({
    message:
      kind === 'element'
        ? `Nothing defines <${name}>: the script that belongs to it is not in the snippet, nor on the page.`
        : `The code calls ${name}, which nothing defines: the script that it belongs to is not in the snippet, nor on the page.`,
    notice: 'Visitors see nothing in its place, or something that does not work.',
    cure: 'Ask the vendor for the whole code: the part for the head of the page, or the script’s tag, belongs to it.',
  }),
  brief: ({ kind, name }) => (kind === 'element' ? `nothing defines <${name}>` : `no ${name}`),
  samples: [
    { kind: 'element', name: 'fern-map' },
    { kind: 'object', name: 'Trellis' },
  ],
  examples: {
    faulty: [
      {
        name: 'an element that nothing defines',
        code: '<p>Find us:</p><fern-map bed="12" style="display: block; min-height: 40px"></fern-map>',
      },
      {
        name: 'an object that nothing defines',
        code: '<p>Book a bench:</p><div id="desk"></div><script>Trellis.show("#desk", { desk: "workshops" })</script>',
      },
    ],
    sound: [
      {
        name: 'an element that its script defines',
        code: '<p>Find us:</p><fern-map></fern-map><script>customElements.define("fern-map", class extends HTMLElement { connectedCallback() { this.textContent = "Bed 12" } })</script>',
      },
      {
        name: 'an element that has something in it',
        code: '<p>Find us:</p><fern-map><a href="/map">The map of beds</a></fern-map>',
      },
      {
        name: 'an object that is looked for first',
        code: '<p>Book a bench:</p><div id="desk"></div><script>if (window.Trellis) Trellis.show("#desk")</script>',
      },
    ],
  },
});

/** The snippet’s own styles draw it: it needs no script. */
function isStyled(name: string, { elements }: Markup): boolean {
  return elements.some((one) => one.name === 'style' && one.text.includes(name));
}

/** An error of a name that is told of here. */
function isOfName({ data }: Fact<unknown>, { kind, name }: Data): boolean {
  const { text } = data as { text?: string };
  return kind === 'object' && text !== undefined && UNKNOWN.exec(text)?.[1] === name;
}

type Render = Case<'scripts' | 'traffic'>['renders'][number];

function tellObjects({ markup }: Case<'scripts'>, render: Render): Fact<Data, Measured>[] {
  const scripts = markup.elements.filter(isScript);
  if (scripts.some((one) => getValue(one, 'src')?.trim())) return [];
  return mapPresent(render.scripts.errors, ({ how, text, from, address }) => {
    const name = how === 'error' && address === null ? UNKNOWN.exec(text)?.[1] : undefined;
    if (name === undefined || !isForeign(name, markup)) return null;
    const offset = getSourceOffset(from);
    const element = offset === null ? null : getElementAt(markup, offset);
    const at = element ?? scripts[0];
    if (!at) return null;
    const seen = makeSeen(render, { asked: name, happened: 'defined by nothing' });
    return tell.seen(atTag(at), { kind: 'object', name }, seen, { group: name });
  });
}

/** It is called like what comes with a script, and is no slip of a name that is there. */
function isForeign(name: string, { text }: Markup): boolean {
  const used = text.match(/[\w$]+/g) ?? [];
  const others = [...new Set([...used, ...COMMON])].filter((one) => one !== name);
  return isCalled(name, text) && findSlip(name, others) === null;
}

/** What is asked first of what comes with a script. */
const BEGIN =
  'init|initialize|render|create|mount|embed|load|setup|config|configure|ready|start|boot|execute|attach|widget';

/**
 * Whether it is used as what comes with a script is: an object with a capital letter, or one that is asked to begin.
 * Whatever else has no name is a mistake in the writer's own code.
 */
function isCalled(name: string, text: string): boolean {
  const escaped = name.replaceAll('$', '\\$');
  const begins = `(?<![\\w$.])${escaped}`;
  if (name === '$') return new RegExp(`${begins}\\s*[.(]`).test(text);
  if (/^[A-Z]/.test(name))
    return new RegExp(`${begins}\\s*[.[]|new\\s+${escaped}(?![\\w$])`).test(text);
  return new RegExp(`${begins}\\s*\\.\\s*(${BEGIN})\\b`).test(text);
}

function isOwnElement({ name }: MarkupElement): boolean {
  return (
    /^[a-z][\w.]*-[\w.-]*$/.test(name) &&
    !/^(font-face|annotation-xml|missing-glyph|color-profile)/.test(name)
  );
}

function isEmpty({ text, children }: MarkupElement): boolean {
  return text.trim() === '' && children.length === 0;
}
