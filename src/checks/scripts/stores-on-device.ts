import { defineCheck, makeSeen, type Case, type Fact, type RenderOf } from '../../core/check.js';
import type { StoredFact } from '../../core/evidence.js';
import { flatMap } from '../../core/lists.js';
import { isScript } from '../../core/markup/traits.js';
import {
  atSnippet,
  atSpan,
  atTag,
  findRequestTag,
  getHead,
  type Blame,
} from '../../core/measure/blame.js';
import { getSite } from '../../core/measure/site.js';
import { tell } from '../../core/tell.js';
import { countWords, joinWords, shorten } from '../../core/words/list.js';

interface Data {
  host: string;
  things: Pick<StoredFact, 'kind' | 'name' | 'days'>[];
}

type Measured = { stored: string };

/** What says in code that it stores. */
const STORES = /localStorage|sessionStorage|\.cookie\b|indexedDB|\bcaches\b/;
const MOST = 5;

export default defineCheck({
  id: 'stores-on-device',
  subject: 'scripts',
  level: 'concern',
  title: 'Something is stored on the visitor’s device',
  decided:
    'Cookies, or something in the local or session storage, a database or a cache, is there when the page has come to rest, of whatever frame, without the visitor having done anything and without it being there with the slot empty.',
  standard: 'RFC 6265, HTTP State Management; HTML Living Standard, 12 Web storage',
  needs: ['stored', 'traffic'],
  markup: false,
  judge: (c): Fact<Data, Measured>[] =>
    flatMap(c.renders, (render) =>
      groupByHost(render.stored).map(({ host, things }) => {
        const seen = makeSeen(render, { stored: things.map(nameThing).join(', ') });
        return tell.seen(blame(c, render, host), { host, things }, seen, { group: host });
      }),
    ),
  says: ({ host, things }) => {
    const named = things.slice(0, MOST).map(nameThing);
    const more = things.length - named.length;
    const list = joinWords([...named, ...(more > 0 ? [`${more} more`] : [])]);
    return {
      message: `For ${host} is stored on the visitor’s device, without asking: ${list}.`,
      notice: 'In many places visitors must be asked before that, and can be known again by it.',
      cure: 'Let it be stored only when the visitor has agreed, or ask for a code that does without.',
    };
  },
  measures: ({ stored }) => shorten(stored, 120),
  brief: ({ host, things }) => `${countWords(things.length, 'thing')} stored for ${host}`,
  samples: [{ host: 'tally.example', things: [{ kind: 'cookie', name: 'visit', days: 365 }] }],
  examples: {
    faulty: [
      {
        name: 'a cookie for a year',
        code: '<p>Sow in May.</p><script>document.cookie = "visit=1; max-age=31536000"</script>',
      },
      {
        name: 'a number by which one is known again',
        code: '<p>Sow in May.</p><script>localStorage.setItem("visitor", "7f3a")</script>',
      },
    ],
    sound: [
      {
        name: 'stored only when it is asked for',
        code: '<p>Sow in May.</p><button type="button" onclick="localStorage.setItem(\'large\', 1)">Large letters</button>',
      },
      {
        name: 'looked up, and nothing stored',
        code: '<p>Sow in May.</p><script>if (localStorage.getItem("large")) document.body.classList.add("large")</script>',
      },
    ],
  },
});

const KINDS: Record<StoredFact['kind'], string> = {
  cookie: 'the cookie',
  local: 'in the local storage',
  session: 'in the session storage',
  database: 'the database',
  cache: 'the cache',
};

function nameThing({ kind, name, days }: Data['things'][number]): string {
  const long = days === null ? '' : ` (for ${days === 1 ? 'a day' : `${days} days`})`;
  return `${KINDS[kind]} “${shorten(name, 40)}”${long}`;
}

function groupByHost(stored: readonly StoredFact[]): Data[] {
  const hosts = [...new Set(stored.map(({ host }) => host))];
  return hosts.map((host) => ({
    host,
    things: stored
      .filter((one) => one.host === host)
      .map(({ kind, name, days }) => ({ kind, name, days })),
  }));
}

/** What asked the host for something; for the page’s own the script that speaks of it. */
function blame({ markup }: Case<never>, { traffic }: RenderOf<'traffic'>, host: string): Blame {
  const isOf = (one: string) => getSite(one) === getSite(host);
  const request = traffic.find((one) => one.host === host) ?? traffic.find((one) => isOf(one.host));
  if (request) return atSpan(findRequestTag(markup, request));
  const scripts = markup.elements.filter(isScript);
  const speaks = scripts.find(({ text }) => STORES.test(text)) ?? scripts[0];
  return speaks ? atTag(speaks) : atSnippet('stores', getHead(markup));
}
