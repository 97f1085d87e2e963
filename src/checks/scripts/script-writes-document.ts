import { defineCheck, makeSeen, type Case, type Fact } from '../../core/check.js';
import { flatMap } from '../../core/lists.js';
import { getAttribute, getValue, type MarkupElement } from '../../core/markup/markup.js';
import { isScript, runsBeside } from '../../core/markup/traits.js';
import { atSnippet, atTag, getHead } from '../../core/measure/blame.js';
import { parseAddress } from '../../core/measure/site.js';
import { tell } from '../../core/tell.js';

interface Data {
  /** Of the script; null for one that stands in the snippet. */
  address: string | null;
  /** Browsers let no script write that is loaded beside the page. */
  ignored: boolean;
}

export default defineCheck({
  id: 'script-writes-document',
  subject: 'scripts',
  level: 'concern',
  title: 'A script writes into the page while that is read',
  decided:
    'A script of the snippet, or one that it loads, called document.write or document.writeln. Of one that is loaded beside the page (`async`, `defer`, made by a script) browsers take no heed, which is said.',
  standard: 'HTML Living Standard, 8.4.3 document.write()',
  needs: ['scripts', 'traffic'],
  markup: false,
  judge: (c): Fact<Data>[] =>
    flatMap(c.renders, (render) =>
      flatMap([...new Set(render.scripts.writers)], (script): Fact<Data>[] => {
        const element = findWriter(c, script);
        // The page's own scripts may write too.
        const isPulled = render.traffic.some(
          (one) => one.type === 'script' && one.address === script,
        );
        if (!element && !isPulled) return [];
        const ignored = script !== '' && (element === null || runsBeside(element));
        const data = { address: script === '' ? null : script, ignored };
        const blame = element ? atTag(element) : atSnippet('writes', getHead(c.markup));
        const seen = makeSeen(render, { asked: script || 'in the snippet' });
        return [tell.seen(blame, data, seen, { group: script })];
      }),
    ),
  says: ({ address, ignored }) => ({
    message: `${address === null ? 'A script of the snippet' : `The script ${address}`} writes into the page with document.write${ignored ? ', which browsers ignore of a script that is loaded beside the page' : ''}.`,
    notice: ignored
      ? 'What it was to write is missing.'
      : 'The page stands still meanwhile; some browsers refuse it on slow lines, and once the page is there it wipes all of it out.',
    cure: 'Put in what it writes as elements (`append`, `insertAdjacentHTML`), or ask its maker for a code that does.',
  }),
  samples: [
    { address: null, ignored: false },
    { address: 'https://tally.example/writes.js', ignored: true },
  ],
  examples: {
    faulty: [
      {
        name: 'a line that is written',
        code: '<p>Sow in May.</p><script>document.write("<p>Open till six</p>")</script>',
      },
      {
        name: 'the date by writeln',
        code: '<p>Open on <script>document.writeln("Monday")</script></p>',
      },
    ],
    sound: [
      {
        name: 'a line that is put in',
        code: '<p id="hours">Sow in May.</p><script>document.querySelector("#hours").insertAdjacentHTML("afterend", "<p>Open till six</p>")</script>',
      },
      {
        name: 'one that would write, and is not called',
        code: '<p>Sow in May.</p><script>function printHours() { document.write("Seeds") }</script>',
      },
    ],
  },
});

/** The script that is to blame: by its address, or the one whose text says so. */
function findWriter({ markup, house }: Case<never>, script: string): MarkupElement | null {
  const scripts = markup.elements.filter(isScript);
  const named = scripts.find((one) => {
    const src = getValue(one, 'src')?.trim();
    return src ? parseAddress(src, house.origin)?.href === script : false;
  });
  if (script !== '') return named ?? null;
  const inline = scripts.filter((one) => getAttribute(one, 'src') === null);
  const speaks = inline.find(({ text }) => /\bwrite(ln)?\b/.test(text));
  return speaks ?? (house.page === undefined ? (inline[0] ?? null) : null);
}
