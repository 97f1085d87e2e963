import { defineCheck, makeSeen, type Case, type Fact, type Seen } from '../../core/check.js';
import type { Level } from '../../core/house/house.js';
import type { RequestFact } from '../../core/evidence.js';
import { flatMap, mapPresent } from '../../core/lists.js';
import { listInsecure, type Insecure } from '../../core/markup/insecure.js';
import { atSnippet, atTag, findRequestTag } from '../../core/measure/blame.js';
import { findAnswer, getFailure, isWithheld } from '../../core/measure/failed.js';
import { getPrivateHostKind } from '../../core/measure/private-address.js';
import { isOfAddress } from '../../core/measure/same-address.js';
import { parseAddress } from '../../core/measure/site.js';
import type { Span } from '../../core/snippet.js';
import { tell } from '../../core/tell.js';

interface Data {
  address: string;
  outcome: Outcome;
  /** Why it does not come by https: either; '' where it does, or where that was not asked for. */
  why: string;
  /** Where `http` stands in the source; null where it is not written there as such. */
  scheme: Span | null;
}

/** Not loaded at all; asked for by `https:` instead, and come, not come, or not seen to do either. */
type Outcome = 'blocked' | 'upgraded' | 'lost' | 'open';
type Needs = 'traffic';

const LEVELS: Record<Outcome, Level> = {
  blocked: 'blocker',
  lost: 'blocker',
  open: 'concern',
  upgraded: 'advice',
};

export default defineCheck({
  id: 'not-secure',
  subject: 'scripts',
  level: 'blocker',
  title: 'An address is not secure',
  decided:
    'Something that is no frame is loaded by `http:` on a page that is served by `https:`: browsers refuse scripts, style sheets, fonts and data. Pictures, films and sounds they ask for by `https:` instead: advice where these came that way. Not of this machine itself.',
  standard: 'Mixed Content, 3 Content Categories and 4.1 Upgrade algorithm',
  needs: ['traffic'],
  markup: true,
  explains: [
    {
      findings: ['picture-missing', 'media-missing', 'request-failed'],
      anywhere: true,
      fits: isOfAddress,
    },
  ],
  judge: (c): Fact<Data>[] =>
    c.house.origin.startsWith('https:') ? judge(c, listInsecure(c.markup)) : [],
  says: ({ address, outcome, why }) => ({
    message: `An address is not secure (${address}): ${TOLD[outcome]}${why ? ` (${why})` : ''}.`,
    notice:
      outcome === 'upgraded'
        ? 'Where a browser does not do that by itself, it is missing.'
        : 'What it is to bring is not there.',
    cure:
      outcome === 'upgraded'
        ? 'Write it with `https:`.'
        : 'Use its address with `https:`, if it answers there; else put the file where it does.',
  }),
  brief: ({ outcome }) =>
    outcome === 'upgraded' ? 'an address by http: that works by https:' : 'an address by http:',
  mend: ({ outcome, scheme }) =>
    outcome === 'upgraded' && scheme ? [{ do: 'replace-text', span: scheme, text: 'https' }] : null,
  samples: (['blocked', 'upgraded', 'lost', 'open'] as const).map((outcome) => ({
    address: 'http://static.rootcellar.example/beans.png',
    outcome,
    why: '',
    scheme: null,
  })),
  examples: {
    faulty: [
      {
        name: 'a picture that comes by https too',
        code: '<img src="http://static.rootcellar.example/beans.png" width="160" height="120" alt="Runner beans drying on a rack">',
      },
      {
        name: 'a script',
        code: '<p>Sow in May.</p><script async src="http://count.tally.example/seeds@1.0.0/count.js"></script>',
      },
    ],
    sound: [
      {
        name: 'a picture by https',
        code: '<img src="https://static.rootcellar.example/beans.png" width="160" height="120" alt="Runner beans drying on a rack">',
      },
      {
        name: 'a link, and a name of a thing',
        code: '<p><a href="http://www.rootcellar.example/beans">Beans</a></p><svg xmlns="http://www.w3.org/2000/svg" viewBox="0 0 9 9" width="9" height="9" aria-hidden="true"><circle r="4" cx="4" cy="4" /></svg>',
      },
    ],
  },
});

const TOLD: Record<Outcome, string> = {
  blocked: 'on a page of https: browsers do not load it',
  upgraded: 'browsers ask by https: instead, and it comes',
  lost: 'browsers ask by https: instead, and there it does not come',
  open: 'browsers ask by https: instead, whether it is there or not',
};

function judge(c: Case<Needs>, written: readonly Insecure[]): Fact<Data>[] {
  return [...judgeWritten(c, written), ...judgeAsked(c, written)];
}

function judgeWritten(c: Case<Needs>, written: readonly Insecure[]): Fact<Data>[] {
  return flatMap(written, (one): Fact<Data>[] => {
    const { element, where } = one;
    const make = (outcome: Outcome, why: string, seen: Seen[]): Fact<Data> =>
      tell.seen(
        atTag(element, where),
        { address: one.address, outcome, why, scheme: one.scheme },
        seen,
        { group: one.address, level: LEVELS[outcome], doubtful: outcome === 'open' },
      );
    if (!one.upgraded) return [make('blocked', '', [])];
    const found = mapPresent(c.renders, (render) => {
      const told = tellUpgraded(one, render.traffic);
      return told && make(told.outcome, told.why, [makeSeen(render, { asked: told.asked })]);
    });
    // It is there or not: what is told of it is the worst that was seen.
    const lost = found.filter(({ data }) => data.outcome === 'lost');
    if (lost.length > 0) return lost;
    return found.length > 0 ? found : [make('open', '', [])];
  });
}

/** What became of it by `https:`; null where it was not asked for, or where the run kept it back. */
function tellUpgraded(
  { address }: Insecure,
  traffic: readonly RequestFact[],
): { outcome: Outcome; why: string; asked: string } | null {
  const asked = address.replace(/^http:/, 'https:');
  const answer = findAnswer(asked, traffic);
  if (!answer || isWithheld(answer)) return null;
  const fault = getFailure(answer);
  if (fault) return { outcome: 'lost', why: fault.why, asked };
  const came = answer.status !== null && answer.status < 400;
  return came ? { outcome: 'upgraded', why: '', asked } : null;
}

/** What scripts asked for, and the browser refused. */
function judgeAsked(c: Case<Needs>, written: readonly Insecure[]): Fact<Data>[] {
  const known = new Set(written.map(({ address }) => address));
  return flatMap(c.renders, (render) => {
    const refused = render.traffic.filter(
      ({ first, type, inFrame, failed }) =>
        /^(http|ws):/.test(first) &&
        failed === 'mixed-content' &&
        type !== 'document' &&
        !inFrame &&
        !known.has(first) &&
        !getPrivateHostKind(parseAddress(first)?.hostname ?? ''),
    );
    return refused.map((request): Fact<Data> =>
      tell.seen(
        atSnippet(`request ${request.first}`, findRequestTag(c.markup, request)),
        { address: request.first, outcome: 'blocked', why: '', scheme: null },
        makeSeen(render, { asked: request.first }),
      ),
    );
  });
}
