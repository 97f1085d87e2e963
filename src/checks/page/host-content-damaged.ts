import { defineCheck, makeSeen, type Case, type Fact, type RenderOf } from '../../core/check.js';
import type { HostPart, HostPartFact } from '../../core/evidence.js';
import { getHead } from '../../core/measure/blame.js';
import { getTagSpan, type Markup } from '../../core/markup/markup.js';
import { listReaching } from '../../core/markup/reaching.js';
import { isScript } from '../../core/markup/traits.js';
import type { Span } from '../../core/snippet.js';
import { countWords, joinWords } from '../../core/words/list.js';

type Harm = 'gone' | 'hidden' | 'moved' | 'resized' | 'restyled';

interface Data {
  /** What happened to which parts, as a person would name them. */
  harms: { harm: Harm; parts: string[] }[];
}

type Needs = 'host' | 'page';

export default defineCheck({
  id: 'host-content-damaged',
  subject: 'page',
  level: 'blocker',
  title: 'Parts of the host page are damaged',
  decided:
    'Parts of the host page outside the slot are missing, hidden, moved sideways, of another width or of another look with the snippet than without it. Not a shift down, a new scroll bar, nor what differs from load to load.',
  standard: null,
  needs: ['host', 'page'],
  markup: false,
  judge: (c) => {
    const where = blame(c.markup);
    return c.renders.flatMap((render): Fact<Data>[] => {
      const damaged = listDamaged(c, render);
      if (damaged.length === 0) return [];
      const harms = gather(damaged);
      const measured = Object.fromEntries(harms.map(({ harm, parts }) => [harm, parts.length]));
      return [
        {
          where,
          culprit: { at: 'snippet', what: 'host' },
          group: 'host',
          confirmed: true,
          data: { harms },
          seen: [makeSeen(render, measured)],
        },
      ];
    });
  },
  says: ({ harms }) => ({
    message: `With the snippet ${joinWords(harms.map(describe))}.`,
    notice: 'What belongs to the page cannot be used, or not found, as before.',
    cure: 'See what of the snippet reaches beyond its slot: a tag that is not closed, a style, a script.',
  }),
  measures: (measured) =>
    Object.entries(measured)
      .map(([harm, count]) => `${countWords(Number(count), 'part')} ${harm}`)
      .join(', '),
  brief: ({ harms }) => `${harms.map(describe)[0] ?? 'parts of the page are damaged'}`,
  samples: [{ harms: [{ harm: 'gone', parts: ['the footer'] }] }],
  examples: {
    faulty: [
      {
        name: 'a script that empties the page',
        code: '<p>Sow in May.</p><script>addEventListener("load", () => document.querySelector("footer").remove());</script>',
      },
      {
        name: 'a script that pushes the heading aside',
        code: '<p>Sow in May.</p><script>document.querySelector("h1").style.transform = "translateX(-40px)";</script>',
      },
    ],
    sound: [
      {
        name: 'what is below moves down',
        code: '<div style="height: 900px">Sow in May.</div>',
      },
      {
        name: 'a script that stays in its slot',
        code: '<p id="may">Sow in May.</p><script>document.getElementById("may").textContent = "Sow in June.";</script>',
      },
    ],
  },
});

/** Code can do anything, so it is named first; a sheet comes next. */
function blame(markup: Markup): Span {
  const { elements } = markup;
  const maker = elements.find(isScript) ?? elements.find(({ name }) => name === 'style');
  return maker ? getTagSpan(maker) : getHead(markup);
}

interface Damaged {
  harm: Harm;
  name: string;
}

function listDamaged(c: Case<Needs>, render: RenderOf<Needs>): Damaged[] {
  // Of a page that was not seen to its end nothing is known to be gone.
  if (render.partial) return [];
  const bar = getNewBar(render);
  const reaching = listReaching(c.markup).map(({ subject }) => subject);
  const isExplained = ({ tag }: HostPartFact) =>
    reaching.some((one) => /^(\*|html|body)$/.test(one) || one === tag);
  return render.host.flatMap((part): Damaged[] => {
    const { without, with: now, tag } = part;
    if (!without?.shown || isExplained(part) || /^(html|body|head)$/.test(tag)) return [];
    const harm = getHarm(without, now, bar);
    return harm ? [{ harm, name: nameOf(tag) }] : [];
  });
}

function getHarm(without: HostPart, now: HostPart | null, bar: number): Harm | null {
  if (now === null) return 'gone';
  if (!now.shown) return 'hidden';
  if (without.style !== now.style) return 'restyled';
  if (Math.abs(now.box.width - without.box.width) > bar + 1) return 'resized';
  return Math.abs(now.box.x - without.box.x) > bar + 1 ? 'moved' : null;
}

/** How wide a scroll bar is that the page has only with the snippet, px. */
function getNewBar({ page, viewport, baseline }: RenderOf<Needs>): number {
  const bar = viewport.width - page.atLoad.clientWidth;
  const isNew = baseline !== null && baseline.scrollWidth > page.atLoad.clientWidth;
  return isNew ? bar : 0;
}

const NAMES: Record<string, string> = {
  nav: 'the menu',
  footer: 'the footer',
  header: 'the page’s head',
  aside: 'the side column',
  main: 'the main part',
  form: 'a form',
  a: 'a link',
  button: 'a button',
  img: 'a picture',
  table: 'a table',
};

function nameOf(tag: string): string {
  if (/^h[1-6]$/.test(tag)) return 'a heading';
  return NAMES[tag] ?? `a <${tag}>`;
}

/** The parts that people know first, each name once. */
function gather(damaged: readonly Damaged[]): Data['harms'] {
  const order = ['gone', 'hidden', 'moved', 'resized', 'restyled'] as const;
  const known = Object.values(NAMES);
  const rank = (name: string) => (known.includes(name) ? known.indexOf(name) : known.length);
  return order.flatMap((harm) => {
    const names = damaged.filter((one) => one.harm === harm).map(({ name }) => name);
    const parts = [...new Set(names)].sort((a, b) => rank(a) - rank(b));
    return parts.length > 0 ? [{ harm, parts }] : [];
  });
}

const DONE: Record<Harm, [string, string]> = {
  gone: ['is gone', 'are gone'],
  hidden: ['is hidden', 'are hidden'],
  moved: ['moves sideways', 'move sideways'],
  resized: ['has another width', 'have another width'],
  restyled: ['looks otherwise', 'look otherwise'],
};

const MOST_NAMED = 3;

function describe({ harm, parts }: Data['harms'][number]): string {
  const more = parts.length - MOST_NAMED;
  const named = parts.slice(0, MOST_NAMED);
  const all = more > 0 ? [...named, `${countWords(more, 'more part')}`] : named;
  return `${joinWords(all)} ${DONE[harm][parts.length > 1 ? 1 : 0]}`;
}
