import { atSnippet } from '../../core/measure/blame.js';
import { defineCheck, makeSeen, type Fact } from '../../core/check.js';
import { flatMap } from '../../core/lists.js';
import { findCall } from '../../core/measure/calls.js';
import { getTagSpan, getValue, type Markup } from '../../core/markup/markup.js';
import { FRAMES } from '../../core/standards/elements.js';
import type { Span } from '../../core/snippet.js';
import { tell } from '../../core/tell.js';
import { shorten } from '../../core/words/list.js';

interface Data {
  /** The name that the file would be saved under. */
  name: string;
}

/** What the source of it looks like. */
const CALL = /\bdownload\b|\.click\s*\(|\blocation\b/i;

export default defineCheck({
  id: 'download-forced',
  subject: 'scripts',
  level: 'blocker',
  title: 'A download begins by itself',
  decided:
    'Without a visitor’s action the browser begins to save a file: a frame’s answer that it cannot show, a click by script, an address that is set. What is saved is refused by Mivket.',
  standard: 'HTML Living Standard, 7.4.2 (downloads) and 4.6.5 download',
  needs: ['scripts'],
  markup: false,
  judge: ({ markup, renders }) =>
    flatMap(renders, (render) =>
      render.scripts.downloads.map(({ address, name }): Fact<Data, { from: string }> => {
        // What a blob is called differs from load to load.
        const from = address.startsWith('blob:') ? 'blob:' : address;
        return tell.seen(
          atSnippet(`${from} ${name}`, locate(markup, address)),
          { name },
          makeSeen(render, { from }),
          { group: '' },
        );
      }),
    ),
  says: ({ name }) => ({
    message: `A download begins by itself${name ? `: “${shorten(name, 60)}”` : ''}.`,
    notice:
      'Visitors find a file on their device that they did not ask for; many take it for an attack.',
    cure: 'Offer it as a link with a `download` attribute, and let the visitor press it; in a frame show a document.',
  }),
  measures: ({ from }) => `from ${shorten(from, 80)}`,
  brief: () => 'a download begins by itself',
  samples: [{ name: 'seeds.zip' }, { name: '' }],
  examples: {
    faulty: [
      {
        name: 'a click by script',
        code: '<a id="list" download="seeds.csv" href="data:text/csv,bean%2Cpea">Seed list</a><script>document.getElementById("list").click();</script>',
      },
      {
        name: 'a blob',
        code: '<p>Seed list</p><script>const link = document.createElement("a"); link.href = URL.createObjectURL(new Blob(["bean"])); link.download = "seeds.csv"; link.click();</script>',
      },
    ],
    sound: [
      {
        name: 'a link that waits for a click',
        code: '<a download="seeds.csv" href="data:text/csv,bean%2Cpea">Seed list</a>',
      },
    ],
  },
});

/** The frame whose answer it is, or the call. */
function locate(markup: Markup, address: string): Span {
  const frame = markup.elements.find(
    (element) =>
      FRAMES.has(element.name) &&
      [getValue(element, 'src'), getValue(element, 'data')].includes(address),
  );
  return frame ? getTagSpan(frame) : findCall(markup, CALL);
}
