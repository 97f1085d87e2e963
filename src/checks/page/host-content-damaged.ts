import { defineCheck, makeSeen, type Case, type Fact, type RenderOf } from '../../core/check.js';
import type { HostPartFact } from '../../core/evidence.js';
import { flatMap } from '../../core/lists.js';
import { HARMS, listHarmed, type Harm } from '../../core/measure/host-damage.js';
import { listNames, nameHostPart, sortNames } from '../../core/measure/host-names.js';
import { atSnippet, blameElement } from '../../core/measure/blame.js';
import { locateMaker } from '../../core/measure/makers.js';
import type { Markup } from '../../core/markup/markup.js';
import { listReaching } from '../../core/markup/reaching.js';
import type { Span } from '../../core/snippet.js';
import { tell } from '../../core/tell.js';
import { countWords, joinWords } from '../../core/words/list.js';

interface Data {
  /** What happened to which parts, as a person would name them. */
  harms: { harm: Harm; parts: string[] }[];
}

/** How many parts, for each harm. */
type Measured = Record<string, number>;

type Needs = 'host' | 'page' | 'paint' | 'elements';

export default defineCheck({
  id: 'host-content-damaged',
  subject: 'page',
  level: 'blocker',
  title: 'Parts of the host page are damaged',
  decided:
    'Parts of the host page outside the slot are missing, hidden, no longer to be clicked, moved sideways, or down though they stand over the slot, of another width, look, wording or address, or painted over, with the snippet than without it. Not a shift down, a new scroll bar, nor what differs from load to load.',
  standard: null,
  needs: ['host', 'page', 'paint', 'elements'],
  markup: false,
  explains: [
    {
      // What lies over the page lies over the snippet too.
      findings: ['text-invisible', 'nothing-rendered'],
      anywhere: true,
      fits: (_other, { harms }: Data) => harms.some(({ harm }) => harm === 'repainted'),
    },
  ],
  judge: (c) => {
    return flatMap(c.renders, (render): Fact<Data, Measured>[] => {
      const damaged = listDamaged(c, render);
      if (damaged.length === 0) return [];
      const harms = gather(damaged);
      const measured: Measured = Object.fromEntries(
        harms.map(({ harm, parts }) => [harm, parts.length]),
      );
      return [
        tell.seen(
          atSnippet('host', locate(c.markup, render, damaged)),
          { harms },
          makeSeen(render, measured),
          { group: 'host' },
        ),
      ];
    });
  },
  says: ({ harms }) => ({
    message: `With the snippet ${joinWords(harms.map(describeHarm))}.`,
    notice: 'What belongs to the page cannot be used, or not found, as before.',
    cure: 'See what of the snippet reaches beyond its slot: a tag that is not closed, a style, a script.',
  }),
  measures: (measured) =>
    Object.entries(measured)
      .map(([harm, count]) => `${countWords(count, 'part')} ${harm}`)
      .join(', '),
  brief: ({ harms }) => `${harms.map(describeHarm)[0] ?? 'parts of the page are damaged'}`,
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
      {
        name: 'a layer over everything that lets clicks through',
        code: '<p>Sow in May.</p><div style="position: fixed; inset: 0; background: #fff; pointer-events: none"></div>',
      },
    ],
    sound: [
      {
        name: 'a ribbon in the corner of the window',
        code: '<p>Sow in May.</p><div style="position: fixed; right: 0; top: 0; width: 120px; height: 40px; background: #1b4332; pointer-events: none"></div>',
      },
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

/** What lies over the page where that is all, and an element that does is known; else what can do anything. */
function locate(markup: Markup, { elements }: RenderOf<Needs>, damaged: readonly Damaged[]): Span {
  const [over] = elements
    .filter(({ shown, style }) => shown && /fixed|absolute/.test(style.position))
    .sort((a, b) => b.box.width * b.box.height - a.box.width * a.box.height);
  const isOver = damaged.every(({ harm }) => harm === 'repainted');
  return over && isOver ? blameElement(markup, over).where : locateMaker(markup);
}

interface Damaged {
  harm: Harm;
  name: string;
}

function listDamaged(c: Case<Needs>, render: RenderOf<Needs>): Damaged[] {
  // Of a page that was not seen to its end nothing is known to be gone.
  if (render.partial) return [];
  const reaching = listReaching(c.markup).map(({ subject }) => subject);
  const isExplained = ({ tag, fits }: HostPartFact) =>
    fits.length > 0 || reaching.some((one) => /^(\*|html|body)$/.test(one) || one === tag);
  const damaged = listHarmed(render)
    .filter(({ part, harm }) => !BY_STYLE.has(harm) || !isExplained(part))
    .map(({ part, harm }) => ({ harm, name: nameHostPart(part) }));
  return [...damaged, ...listRepainted(render)];
}

/** What is painted otherwise though nothing else of the page is otherwise: that would be why. */
function listRepainted({ host, paint }: RenderOf<Needs>): Damaged[] {
  const isOther = ({ with: now, without }: HostPartFact) =>
    now === null || without === null || now.style !== without.style || now.shown !== without.shown;
  return host.some(isOther)
    ? []
    : paint.parts.map((part) => ({ harm: 'repainted', name: nameHostPart(part) }));
}

/** What a rule can do: told of with the rule, where the part fits one. */
const BY_STYLE: ReadonlySet<Harm> = new Set([
  'hidden',
  'unclickable',
  'displaced',
  'moved',
  'resized',
  'restyled',
]);

/** The parts that people know first, each name once. */
function gather(damaged: readonly Damaged[]): Data['harms'] {
  return flatMap(HARMS, (harm) => {
    const names = damaged.filter((one) => one.harm === harm).map(({ name }) => name);
    const parts = sortNames(names);
    return parts.length > 0 ? [{ harm, parts }] : [];
  });
}

const DONE: Record<Harm, [string, string]> = {
  gone: ['is gone', 'are gone'],
  hidden: ['is hidden', 'are hidden'],
  unclickable: ['cannot be clicked', 'cannot be clicked'],
  displaced: ['stands elsewhere', 'stand elsewhere'],
  reworded: ['says something else', 'say something else'],
  redirected: ['has another address', 'have other addresses'],
  moved: ['moves sideways', 'move sideways'],
  resized: ['has another width', 'have another width'],
  restyled: ['looks otherwise', 'look otherwise'],
  repainted: ['is painted over or blurred', 'are painted over or blurred'],
};

function describeHarm({ harm, parts }: Data['harms'][number]): string {
  return `${listNames(parts)} ${DONE[harm][parts.length > 1 ? 1 : 0]}`;
}
