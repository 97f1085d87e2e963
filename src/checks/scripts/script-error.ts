import { defineCheck, makeSeen, type Case, type Fact, type RenderOf } from '../../core/check.js';
import type { FileType, RequestFact, ScriptFact } from '../../core/evidence.js';
import { flatMap, mapPresent } from '../../core/lists.js';
import { getAttribute, getElementAt, getTagSpan } from '../../core/markup/markup.js';
import { atSpan, getHead } from '../../core/measure/blame.js';
import { atCode } from '../../core/measure/code.js';
import { tell } from '../../core/tell.js';

type Told = ScriptFact['errors'][number];

interface Data {
  how: Told['how'];
  text: string;
  /** Of the script, where it is not the snippet itself; else null. */
  address: string | null;
  /** From 1; null where it is not known, or in the snippet. */
  line: number | null;
  /** Of a document in a frame. */
  framed?: boolean;
}

type Needs = 'scripts' | 'traffic' | 'policy';

export default defineCheck({
  id: 'script-error',
  subject: 'scripts',
  level: 'concern',
  title: 'A script of the snippet raises an error',
  decided:
    'While the page loads, an error of the snippet’s code is caught by nobody, a promise of its is rejected and nobody minds, or it writes an error to the console. Not where something that it asked for did not come, is refused by the page’s policy, or was kept back by the run (of documents in frames it is advice): that is told by itself, or is a gap; nor of `play()`, which other findings tell of.',
  standard: 'HTML Living Standard, 8.1.4.6 Runtime script errors',
  needs: ['scripts', 'traffic', 'policy'],
  markup: false,
  judge: (c): Fact<Data>[] => flatMap(c.renders, (render) => judgeRender(c, render)),
  says({ how, text, address, line, framed }) {
    if (framed)
      return {
        message: `A document in a frame raises an error (${address}, line ${line}): “${text}”`,
        notice: 'What its code was to do from there on does not happen.',
        cure: 'Look whether the frame works, and tell the maker of its page.',
      };
    const where = address === null ? '' : ` (${address}${line === null ? '' : `, line ${line}`})`;
    return {
      message: `${SAYS[how]}${where}: “${text}”`,
      notice:
        how === 'console'
          ? 'Something that the code wants is not as it wants it; visitors may miss a part.'
          : 'What the script was to do from there on does not happen.',
      cure:
        address === null
          ? 'Mend the script at that place.'
          : 'Look whether the code is whole and in order, and tell the maker of the script.',
    };
  },
  brief: ({ text }) => text,
  samples: [
    { how: 'error', text: 'ReferenceError: Trellis is not defined', address: null, line: null },
    {
      how: 'console',
      text: 'no such bed',
      address: 'https://static.rootcellar.example/bedlist.js',
      line: 4,
    },
  ],
  examples: {
    faulty: [
      {
        name: 'a name that nothing has',
        code: '<p id="lent">Lent</p><script>document.querySelector("#lent").append(countLent())</script>',
      },
      {
        name: 'a promise that nobody minds',
        code: '<p>Lent</p><script>Promise.reject(new Error("no such bed"))</script>',
      },
    ],
    sound: [
      {
        name: 'an error that the code minds itself',
        code: '<p id="lent">Lent</p><script>try { countLent() } catch { document.querySelector("#lent").append(" out") }</script>',
      },
      { name: 'a word to the console', code: '<p>Lent</p><script>console.log("lent")</script>' },
    ],
  },
});

const SAYS: Record<Told['how'], string> = {
  error: 'The script raises an error',
  promise: 'A promise of the script is rejected, and nobody minds',
  console: 'The script tells of an error',
};

/** Errors that other findings tell of, and one that means nothing. */
const ELSEWHERE =
  /play\(\) (request|failed)|Content Security Policy|permissions policy|ResizeObserver loop/i;
/** What code needs in order to go on. */
const NEEDED: readonly FileType[] = ['script', 'data', 'stream', 'socket'];

function judgeRender(c: Case<Needs>, render: RenderOf<Needs>): Fact<Data>[] {
  const { scripts, traffic, policy } = render;
  if (scripts.hung || policy.length > 0 || traffic.some(isMissed)) return [];
  return [...judgeOwn(c, render), ...judgeFramed(c, render)];
}

/** In the documents of frames: what these tell the console is their makers' business. */
function judgeFramed(c: Case<Needs>, render: RenderOf<Needs>): Fact<Data>[] {
  const written = c.markup.elements.find((one) => getAttribute(one, 'srcdoc'));
  return mapPresent(render.scripts.framed, ({ how, text, from, address, line }) => {
    if (how === 'console' || ELSEWHERE.test(text)) return null;
    const at = from && 'offset' in from ? getElementAt(c.markup, from.offset) : written;
    const where = at ? getTagSpan(at) : getHead(c.markup);
    return tell.seen(
      atSpan(where),
      { how, text, address, line, framed: true },
      makeSeen(render, { error: text }),
      { group: text, level: 'advice' },
    );
  });
}

function judgeOwn(c: Case<Needs>, render: RenderOf<Needs>): Fact<Data>[] {
  const { scripts } = render;
  return mapPresent(scripts.errors, ({ how, text, from, address, line }): Fact<Data> | null => {
    if (ELSEWHERE.test(text)) return null;
    return tell.seen(
      atCode(c.markup, { from, address }),
      { how, text, address, line },
      makeSeen(render, { error: text }),
      { group: text },
    );
  });
}

/** It did not come, or was kept back: what comes of that is no fault of the code's. */
function isMissed({ type, status, failed, refused }: RequestFact): boolean {
  const missing = failed !== null || (status !== null && status >= 400);
  return refused !== null || (missing && NEEDED.includes(type));
}
