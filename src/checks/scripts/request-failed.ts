import { defineCheck, makeSeen, type Case, type Fact, type RenderOf } from '../../core/check.js';
import type { FileType, RequestFact } from '../../core/evidence.js';
import { mapPresent, flatMap } from '../../core/lists.js';
import { listAddresses } from '../../core/markup/addresses.js';
import { atSnippet, findRequestTag } from '../../core/measure/blame.js';
import { findAnswer, getFailure } from '../../core/measure/failed.js';
import { parseAddress } from '../../core/measure/site.js';
import type { Span } from '../../core/snippet.js';
import { tell } from '../../core/tell.js';

interface Data {
  address: string;
  why: string;
  what: What;
  /** The host of the script, sheet or frame that asked for it, where that is none of the snippet's own text. */
  by: string | null;
}

type What = 'script' | 'sheet' | 'font' | 'picture' | 'file';
type Needs = 'traffic';

const KINDS: Partial<Record<FileType, What>> = {
  script: 'script',
  style: 'sheet',
  font: 'font',
  picture: 'picture',
};

const NOTICES: Record<What, string> = {
  script: 'What the script is to do does not happen.',
  sheet: 'It looks otherwise than it was meant.',
  font: 'Letters look otherwise than they were meant.',
  picture: 'A picture is not there.',
  file: 'What it was to bring is not there.',
};

const NAMES: Record<What, string> = {
  script: 'A script',
  sheet: 'A style sheet',
  font: 'A font',
  picture: 'A picture',
  file: 'What is asked for',
};

export default defineCheck({
  id: 'request-failed',
  subject: 'scripts',
  level: 'concern',
  title: 'Something that is asked for does not come',
  decided:
    'A request of the snippet’s is answered with an error, not at all, or with what its host does not share with other sites; advice where a frame’s own document asked. Not with 401, 403, 407 or 429: visitors may see more; nor where the run itself kept it back, or another finding tells it.',
  standard: 'RFC 9110, 15 Status Codes; Fetch, 3.2 CORS protocol',
  needs: ['traffic'],
  markup: false,
  judge: (c): Fact<Data>[] =>
    flatMap(c.renders, (render) =>
      mapPresent(new Set(render.traffic.map(({ first }) => first)), (address) =>
        judgeAddress(c, render, address),
      ),
    ),
  says: ({ address, why, what, by }) => ({
    message: `${NAMES[what]} does not come: ${why} (${address}${by ? `, asked for by what came from ${by}` : ''}).`,
    notice: NOTICES[what],
    cure: by
      ? `Ask ${by} for code that finds what it needs; or do without it.`
      : 'Write the address that it has, or put it where it is looked for.',
  }),
  brief: ({ what }) => `${NAMES[what].toLowerCase()} does not come`,
  samples: [
    {
      address: 'https://static.rootcellar.example/beds.js',
      why: 'its address is answered with 404',
      what: 'script',
      by: null,
    },
  ],
  examples: {
    faulty: [
      {
        name: 'a style sheet that is not there',
        code: '<link rel="stylesheet" href="https://static.rootcellar.example/no-such-sheet.css"><p>Sow in May.</p>',
      },
      {
        name: 'data that a script asks for',
        code: '<p>Sow in May.</p><script>fetch("https://static.rootcellar.example/no-such-list.json").catch(() => 0)</script>',
      },
    ],
    sound: [
      {
        name: 'a picture that is there',
        code: '<p style="background: url(https://static.rootcellar.example/beans.png)">Sow in May.</p>',
      },
    ],
  },
});

function judgeAddress(c: Case<Needs>, render: RenderOf<Needs>, address: string): Fact<Data> | null {
  const request = findAnswer(address, render.traffic);
  const fault = request && getFailure(request);
  if (!fault) return null;
  const by = getAsker(request, c.house.origin);
  const what = KINDS[request.type] ?? 'file';
  return tell.seen(
    atSnippet(`request ${address}`, locate(c, request)),
    { address, why: fault.why, what, by },
    makeSeen(render, { asked: address, happened: fault.why }),
    { ...(request.inFrame && { level: 'advice' as const }) },
  );
}

/** Where the markup names it; else what asked for it. */
function locate({ markup, house }: Case<Needs>, request: RequestFact): Span {
  const named = listAddresses(markup, house.origin).find(({ url }) => url.href === request.first);
  if (!named) return findRequestTag(markup, request);
  const { offset, endOffset } = named.attribute;
  return { offset, endOffset };
}

function getAsker({ by }: RequestFact, origin: string): string | null {
  const host = (by && parseAddress(by)?.hostname) || null;
  return host === new URL(origin).hostname ? null : host;
}
