import { defineCheck, makeSeen, type Fact, type RenderOf } from '../../core/check.js';
import type { RequestFact } from '../../core/evidence.js';
import { flatMap } from '../../core/lists.js';
import { getElementAt, type Markup, type MarkupElement } from '../../core/markup/markup.js';
import { atSnippet, atTag, getSourceOffset, type Blame } from '../../core/measure/blame.js';
import { listHarmed, type Harmed } from '../../core/measure/host-damage.js';
import { listNames, nameHostPart, sortNames } from '../../core/measure/host-names.js';
import { locateMaker } from '../../core/measure/makers.js';
import { getSilent } from '../../core/render.js';
import { tell } from '../../core/tell.js';
import { countWords } from '../../core/words/list.js';

interface Data {
  host: string;
  /** What of the page is not there, as a person would name it. */
  parts: string[];
  /** What it waits for: a script, a style sheet, or something else. */
  waits: 'script' | 'style' | null;
}

type Needs = 'host' | 'page' | 'traffic';

export default defineCheck({
  id: 'outage-harms-page',
  subject: 'scripts',
  level: 'concern',
  title: 'Parts of the page wait for a vendor that does not answer',
  decided:
    'With `--outage` the page is loaded once more for each outside host that the snippet asks for, and that host takes in what it is asked and does not answer. When nothing is under way but what it is asked, and the page has come to rest, parts of the page outside the slot are missing or hidden that are there when it answers.',
  standard: null,
  needs: { kinds: ['host', 'page', 'traffic'], variants: ['as-is', 'outage'] },
  markup: false,
  published: false,
  judge: ({ markup, renders }): Fact<Data, { parts: number }>[] =>
    flatMap(
      renders.filter(({ variant }) => variant === 'outage'),
      (render) => {
        const host = getSilent(render.at) ?? '';
        const lost = listLost(render, renders);
        if (lost.length === 0) return [];
        const asked = render.traffic.find((one) => one.host === host && one.status === null);
        const waits = asked?.type === 'script' || asked?.type === 'style' ? asked.type : null;
        const data = { host, parts: sortNames(lost.map(({ part }) => nameHostPart(part))), waits };
        const seen = makeSeen(render, { parts: lost.length });
        return [tell.seen(blame(markup, asked), data, seen, { group: host })];
      },
    ),
  says: ({ host, parts, waits }) => ({
    message: `While ${host} does not answer, ${listNames(parts)} ${parts.length === 1 ? 'is' : 'are'} not shown.`,
    notice: 'On a bad day of the vendor’s the page is empty from here on, for as long as it lasts.',
    cure: CURES[waits ?? 'other'],
  }),
  measures: ({ parts }: { parts: number }) => `${countWords(parts, 'part')} not shown`,
  brief: ({ host }) => `the page waits for ${host}`,
  samples: [{ host: 'tally.example', parts: ['the footer'], waits: 'script' }],
  examples: {
    faulty: [
      {
        name: 'a style sheet that the page waits for',
        code: '<p class="type">Sow in May.</p><link rel="stylesheet" href="https://static.rootcellar.example/type.css">',
      },
    ],
    sound: [
      {
        name: 'a script that nobody waits for',
        code: '<p>Sow in May.</p><script async src="https://tally.example/small.js"></script>',
      },
    ],
  },
});

const CURES = {
  script: 'Give the script the attribute async, or defer: then nothing waits for it.',
  style:
    'Put the style sheet into the house’s own files, or have it loaded by a script once the page stands.',
  other: 'Have the page shown first, and what comes of the vendor put in once it is there.',
};

/** What is gone or hidden in the outage, and is not where all hosts answer. */
function listLost(render: RenderOf<Needs>, all: readonly RenderOf<Needs>[]): Harmed[] {
  const { slot, insert, width } = render.at;
  const usual = all.filter(
    ({ at, variant }) =>
      variant === 'as-is' && at.slot === slot && at.insert === insert && at.width === width,
  );
  const known = new Set(flatMap(usual, listGone).map(({ part }) => part.offset));
  // Without a look at the page as it is nothing is known to come of the outage.
  return usual.length === 0 ? [] : listGone(render).filter(({ part }) => !known.has(part.offset));
}

function listGone(render: RenderOf<Needs>): Harmed[] {
  return listHarmed(render).filter(({ harm }) => harm === 'gone' || harm === 'hidden');
}

/** What asks for it: a tag, or whatever the code is that made one. */
function blame(markup: Markup, asked: RequestFact | undefined): Blame {
  const offset = asked?.from ? getSourceOffset(asked.from) : null;
  const importing = asked?.type === 'style' ? findImporting(markup, asked) : undefined;
  const element = importing ?? (offset === null ? null : getElementAt(markup, offset));
  return element ? atTag(element) : atSnippet('outage', locateMaker(markup));
}

/** Of what a style imports the browser says that it was asked for behind it. */
function findImporting({ elements }: Markup, { first }: RequestFact): MarkupElement | undefined {
  const named = first.replace(/^\w+:/, '');
  return elements.find(({ name, text }) => name === 'style' && text.includes(named));
}
