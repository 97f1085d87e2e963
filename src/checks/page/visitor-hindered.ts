import { atSnippet } from '../../core/measure/blame.js';
import { defineCheck, makeSeen, type Fact } from '../../core/check.js';
import type { Act, Way } from '../../core/evidence.js';
import { flatMap } from '../../core/lists.js';
import { locateMaker } from '../../core/measure/makers.js';
import { tell } from '../../core/tell.js';
import { decapitalize } from '../../core/words/list.js';

type What = Act | Exclude<Way, 'tab'>;

interface Data {
  what: What;
}

const TAKEN = 'is taken away from the page’s own parts';

/** What is the matter, and what the source of it looks like. */
const KINDS: Record<What, [message: string, call: RegExp]> = {
  select: ['Words of the page can no longer be selected', /selectstart|user-?select/i],
  copy: ['Words of the page can no longer be copied', /\bcopy\b/i],
  paste: ['Nothing can be pasted into the page’s fields', /\bpaste\b/i],
  menu: ['The context menu of the page does not open', /contextmenu/i],
  find: ['Searching the page (Ctrl+F) is taken away', /ctrlKey|metaKey|keydown/i],
  follow: ['Links of the page no longer lead where they did', /['"]click|onclick/i],
  click: ['A click on words of the page opens another page', /\bopen\(|location/i],
  leave: ['Whoever leaves the page is asked whether to stay', /beforeunload/i],
  wheel: [`The wheel ${TAKEN}`, /wheel/i],
  swipe: [`Swiping ${TAKEN}`, /touch(start|move)|touch-?action/i],
  arrows: ['Arrow keys no longer scroll the page', /key(down|press|up)/i],
  space: ['The space bar no longer scrolls the page', /key(down|press|up)/i],
};

const NOTICES: Partial<Record<What, string>> = {
  leave: 'They are held up by a question that they did not cause.',
  follow: 'They do not get where they want to go.',
  click: 'They end up where they did not mean to go.',
};

export default defineCheck({
  id: 'visitor-hindered',
  subject: 'page',
  level: 'concern',
  title: 'Visitors are kept from using the page as they are used to',
  decided:
    'On the page’s own parts selecting, copying, pasting or the context menu is prevented, wheel, swipes or keys no longer scroll the page though another way does, searching by Ctrl+F is prevented, a click on a link of the page’s is kept from the browser and leads elsewhere or nowhere, one on its words leads away, or leaving asks a question. Each is tried with and without the snippet, in one window of each slot.',
  standard: 'UI Events; Clipboard API and events; HTML Living Standard, 7.4.2.4 beforeunload',
  needs: ['visit'],
  markup: false,
  judge: ({ markup, renders }) =>
    flatMap(renders, (render): Fact<Data>[] => {
      const { stuck, hindered } = render.visit;
      const ways = stuck.filter((way) => way !== 'tab');
      return [...hindered, ...ways].map((what) =>
        tell.seen(
          atSnippet(what, locateMaker(markup, KINDS[what][1])),
          { what },
          makeSeen(render, {}),
          { group: what },
        ),
      );
    }),
  says: ({ what }) => ({
    message: `${KINDS[what][0]}.`,
    notice: NOTICES[what] ?? 'What works on every other page does not work on this one.',
    cure: 'Listen on the snippet’s own parts only, and leave the rest of the page as it is.',
  }),
  brief: ({ what }) => decapitalize(KINDS[what][0]),
  samples: (Object.keys(KINDS) as What[]).map((what) => ({ what })),
  examples: {
    faulty: [
      {
        name: 'a script against copying',
        code: '<p>Sow in May.</p><script>document.addEventListener("copy", (event) => event.preventDefault());</script>',
      },
      {
        name: 'a script against the context menu',
        code: '<p>Sow in May.</p><script>document.oncontextmenu = () => false;</script>',
      },
      {
        name: 'a script that takes the page’s links',
        code: '<p>Sow in May.</p><script>document.addEventListener("click", (event) => { if (event.target.closest("a")) event.preventDefault(); });</script>',
      },
      {
        name: 'a script that opens a page with any click',
        code: '<p>Sow in May.</p><script>document.addEventListener("click", () => open("https://tally.example/"));</script>',
      },
      {
        name: 'a question on leaving',
        code: '<p>Sow in May.</p><script>addEventListener("beforeunload", (event) => { event.preventDefault(); event.returnValue = "Stay?"; });</script>',
      },
    ],
    sound: [
      {
        name: 'a script that adds where copied words are from',
        code: '<p>Sow in May.</p><script>document.addEventListener("copy", (event) => { event.clipboardData.setData("text/plain", `${getSelection()} (seed library)`); event.preventDefault(); });</script>',
      },
      {
        name: 'a script that goes where the link leads by itself',
        code: '<p>Sow in May.</p><script>document.addEventListener("click", (event) => { const link = event.target.closest("a"); if (link) { event.preventDefault(); location.href = link.href; } });</script>',
      },
      {
        name: 'a script that listens for clicks, and leaves them',
        code: '<p>Sow in May.</p><script>let clicks = 0; document.addEventListener("click", () => clicks++);</script>',
      },
      {
        name: 'a menu of one’s own, in its own part',
        code: '<p id="bed">Sow in May.</p><script>document.getElementById("bed").oncontextmenu = () => false;</script>',
      },
    ],
  },
});
