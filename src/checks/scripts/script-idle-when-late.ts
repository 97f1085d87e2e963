import {
  defineCheck,
  makeSeen,
  type Case,
  type Fact,
  type RenderOf,
  type Seen,
} from '../../core/check.js';
import { flatMap } from '../../core/lists.js';
import { atSpan, getHead } from '../../core/measure/blame.js';
import { parseAddress } from '../../core/measure/site.js';
import { getTagSpan, getValue, type Markup, type MarkupElement } from '../../core/markup/markup.js';
import { isScript } from '../../core/markup/traits.js';
import type { Span } from '../../core/snippet.js';
import { tell } from '../../core/tell.js';

interface Data {
  why: 'never-run' | 'waits' | 'writes';
  /** What it waits for. */
  event: string;
}

export default defineCheck({
  id: 'script-idle-when-late',
  subject: 'scripts',
  level: 'blocker',
  title: 'Put in when the page has loaded, a script does nothing',
  decided:
    'Only where the house puts code in late. Markup that is set after load has scripts that never run, unless the house makes them again (`lateScripts`); those that are made again may wait for an event of the load, which is over, or write into the page as it is parsed, which is over too.',
  standard: 'HTML Living Standard, 4.12.1 The script element; 8.5.4 innerHTML',
  needs: ['scripts'],
  markup: 'part',
  explains: [
    {
      findings: ['nothing-rendered', 'script-error'],
      heavier: true,
      when: ({ insert }) => insert === 'late',
      fits: () => true,
    },
  ],
  judge(c): Fact<Data>[] {
    if (!c.house.insert.includes('late')) return [];
    const late = c.renders.filter(({ at }) => at.insert === 'late');
    if (!c.house.lateScripts) return listNeverRun(c.markup, late);
    return flatMap(late, (render) => [...listWaiting(c, render), ...listWriting(c, render)]);
  },
  says({ why, event }) {
    if (why === 'never-run')
      return {
        message:
          'This script never runs: the site sets the code as markup when the page has loaded.',
        notice: 'What the script is to show or to do is missing on the published page.',
        cure: 'Ask for another way to put it in (`inline`, or one that makes scripts run), or do without a script.',
      };
    if (why === 'waits')
      return {
        message: `The script waits for \`${event}\`, which is over when the site puts it in.`,
        notice: 'What it is to do on that event never happens.',
        cure: 'Let it begin at once where `document.readyState` is not "loading".',
      };
    return {
      message:
        'The script writes with document.write(), which is too late when the site puts it in.',
      notice: 'What it writes is missing, or takes the place of the whole page.',
      cure: 'Let it put what it makes into an element of its own.',
    };
  },
  brief: ({ why }) => BRIEFS[why],
  samples: [
    { why: 'never-run', event: '' },
    { why: 'waits', event: 'DOMContentLoaded' },
    { why: 'writes', event: '' },
  ],
  examples: {
    faulty: [
      {
        name: 'a script in markup that is set late',
        code: '<p id="sown">Sown</p><script>document.querySelector("#sown").append(" in May")</script>',
        under: { insert: 'late' },
      },
      {
        name: 'a script that waits for the page to be parsed',
        code: '<p id="sown">Sown</p><script>document.addEventListener("DOMContentLoaded", () => document.querySelector("#sown").append(" in May"))</script>',
        under: { insert: 'late', lateScripts: true },
      },
    ],
    sound: [
      {
        name: 'a script that is made again and begins at once',
        code: '<p id="sown">Sown</p><script>document.querySelector("#sown").append(" in May")</script>',
        under: { insert: 'late', lateScripts: true },
      },
      {
        name: 'a block of data',
        code: '<p>Sown in May</p><script type="application/json">{ "month": 5 }</script>',
        under: { insert: 'late' },
      },
    ],
  },
});

const BRIEFS: Record<Data['why'], string> = {
  'never-run': 'a script that never runs',
  waits: 'a script that waits in vain',
  writes: 'a script that writes too late',
};

type Late = RenderOf<'scripts'>;

function listNeverRun(markup: Markup, late: readonly Late[]): Fact<Data>[] {
  const seen = late.map((render) => makeSeen(render, { ran: false }));
  return markup.elements
    .filter(isScript)
    .map((element) => makeFact(getTagSpan(element), 'never-run', '', seen));
}

function listWaiting({ markup }: Case<'scripts'>, render: Late): Fact<Data>[] {
  const all = markup.elements.filter(({ name }) => name === 'script');
  return render.scripts.waits.map(({ event, script }) =>
    makeFact(getSpan(all[script] ?? all[0], markup), 'waits', event, [makeSeen(render, { event })]),
  );
}

/** By the address of the script, where it has one. */
function listWriting({ markup, house }: Case<'scripts'>, render: Late): Fact<Data>[] {
  const all = markup.elements.filter(isScript);
  return render.scripts.writers.map((script) => {
    const own = all.find((element) => getAddress(element, house.origin) === script) ?? all[0];
    return makeFact(getSpan(own, markup), 'writes', '', [makeSeen(render, { script })]);
  });
}

function getAddress(element: MarkupElement, origin: string): string {
  const src = getValue(element, 'src')?.trim();
  return (src && parseAddress(src, origin)?.href) || '';
}

function makeFact(where: Span, why: Data['why'], event: string, seen: Seen[]): Fact<Data> {
  return tell.seen(atSpan(where), { why, event }, seen, { group: why });
}

/** The tag of a script; where none is known to be meant, the beginning of the code. */
function getSpan(element: MarkupElement | undefined, markup: Markup): Span {
  return element ? getTagSpan(element) : getHead(markup);
}
