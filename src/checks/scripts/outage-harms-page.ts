import { defineCheck, makeSeen, type Fact, type RenderOf } from '../../core/check.js';
import type { RequestFact } from '../../core/evidence.js';
import { flatMap } from '../../core/lists.js';
import type { House } from '../../core/house/house.js';
import type { Markup } from '../../core/markup/markup.js';
import { findAsking } from '../../core/measure/asking.js';
import { atSnippet, atTag, type Blame } from '../../core/measure/blame.js';
import { listHarmed, type Harmed } from '../../core/measure/host-damage.js';
import { listNames, nameHostPart, sortNames } from '../../core/measure/host-names.js';
import { locateMaker } from '../../core/measure/makers.js';
import { getSilent, nameRoom, type Place } from '../../core/render.js';
import { tell } from '../../core/tell.js';
import { countWords } from '../../core/words/list.js';

interface Data {
  host: string;
  /** What of the page is not there, as a person would name it. */
  parts: string[];
  /** What is not there either once it answers after all; null where that was not seen. */
  stays: string[] | null;
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
    'With `--outage` the page is loaded once more for each outside host that the snippet asks for, and that host takes in what it is asked and does not answer. When nothing is under way but what it is asked, and the page has come to rest, parts of the page outside the slot are missing or hidden that are there when it answers. After ten seconds of the page’s own time it answers, and it is told what comes then.',
  standard: null,
  needs: { kinds: ['host', 'page', 'traffic'], variants: ['as-is', 'outage'] },
  markup: false,
  published: false,
  judge: ({ markup, house, renders }): Fact<Data, { parts: number }>[] =>
    flatMap(
      renders.filter(({ variant, at }) => variant === 'outage' && at.after === null),
      (render) => {
        const host = getSilent(render.at) ?? '';
        const lost = listLost(render, renders);
        if (lost.length === 0) return [];
        const asked = render.traffic.find((one) => one.host === host && one.status === null);
        // What is only hidden waits for code, and not for the tag to be read.
        const stops = lost.some(({ harm }) => harm === 'gone');
        const isKnown = asked?.type === 'script' || asked?.type === 'style';
        const waits = stops && isKnown ? (asked.type as 'script' | 'style') : null;
        const data = {
          host,
          parts: nameAll(lost),
          stays: listStaying(render, renders, lost),
          waits,
        };
        const seen = makeSeen(render, { parts: lost.length });
        return [tell.seen(blame(markup, asked, house), data, seen, { group: host })];
      },
    ),
  says: ({ host, parts, stays, waits }) => ({
    message: `While ${host} does not answer, ${listNames(parts)} ${parts.length === 1 ? 'is' : 'are'} not shown${describeAfter(stays)}.`,
    notice: 'On a bad day of the vendor’s the page is empty from here on, for as long as it lasts.',
    cure: CURES[waits ?? 'other'],
  }),
  measures: ({ parts }: { parts: number }) => `${countWords(parts, 'part')} not shown`,
  brief: ({ host }) => `the page waits for ${host}`,
  samples: [{ host: 'tally.example', parts: ['the footer'], stays: [], waits: 'script' }],
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
  other:
    'Have the page shown at once, or after a second at most whoever answers; what comes of the vendor is put in when it is there.',
};

/** What is gone or hidden in the outage, and is not where all hosts answer. */
function listLost(render: RenderOf<Needs>, all: readonly RenderOf<Needs>[]): Harmed[] {
  const usual = all.filter(({ at, variant }) => variant === 'as-is' && isSameWindow(at, render.at));
  const known = new Set(flatMap(usual, listGone).map(({ part }) => part.offset));
  // Without a look at the page as it is nothing is known to come of the outage.
  return usual.length === 0 ? [] : listGone(render).filter(({ part }) => !known.has(part.offset));
}

/** What is not there either in the load in which the host answers late; null where that was not seen. */
function listStaying(
  { at }: RenderOf<Needs>,
  all: readonly RenderOf<Needs>[],
  lost: readonly Harmed[],
): string[] | null {
  const late = all.find(
    ({ at: one }) => one.variant === at.variant && one.after !== null && isSameWindow(one, at),
  );
  if (!late) return null;
  const gone = new Set(listGone(late).map(({ part }) => part.offset));
  return nameAll(lost.filter(({ part }) => gone.has(part.offset)));
}

function isSameWindow(a: Place, b: Place): boolean {
  return nameRoom(a) === nameRoom(b) && a.width === b.width;
}

function nameAll(parts: readonly Harmed[]): string[] {
  return sortNames(parts.map(({ part }) => nameHostPart(part)));
}

function describeAfter(stays: readonly string[] | null): string {
  if (stays === null) return '';
  return stays.length === 0
    ? ': all of it comes when there is an answer after ten seconds'
    : `; when there is an answer after ten seconds, ${listNames(stays)} still ${stays.length === 1 ? 'is' : 'are'} not`;
}

function listGone(render: RenderOf<Needs>): Harmed[] {
  return listHarmed(render).filter(({ harm }) => harm === 'gone' || harm === 'hidden');
}

/** What asks for it: a tag, or whatever the code is that made one. */
function blame(markup: Markup, asked: RequestFact | undefined, { origin }: House): Blame {
  const element = asked ? findAsking(markup, asked, origin) : null;
  return element ? atTag(element) : atSnippet('outage', locateMaker(markup));
}
