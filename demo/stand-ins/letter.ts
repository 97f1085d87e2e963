import { Hono } from 'hono';
import { html, raw } from 'hono/html';

/** The library's letter: its system keeps no styles and no words for frames, and puts in twice what is published. */
export const letter = new Hono();

const BOOKING = `<script async src="https://book.trellis.example/loader.js"></script>
<div data-trellis-desk="workshops" style="min-height:80px"></div>`;
const CALENDAR =
  '<iframe class="seed-calendar" src="https://maps.fernmap.example/embed/calendar"></iframe>';

letter.get('/spring', (context) =>
  context.html(
    showLetter(`${CALENDAR}\n<h2>Workshops</h2>\n${BOOKING}\n<p>Bring gloves.</p>\n${BOOKING}`),
  ),
);

/** What was published, as its system keeps it. */
const published = new Map<string, string>();

letter.put('/of/:name', async (context) => {
  const code = await context.req.text();
  const kept = code.replaceAll(/ title="[^"]*"/g, '');
  published.set(context.req.param('name'), `${kept}\n<hr>\n${kept}`);
  return context.body(null, 204);
});

letter.get('/of/:name', (context) => {
  const code = published.get(context.req.param('name'));
  return code === undefined ? context.notFound() : context.html(showLetter(code));
});

function showLetter(body: string) {
  return html`<!doctype html>
    <html lang="en">
      <head>
        <meta charset="utf-8" />
        <meta name="viewport" content="width=device-width, initial-scale=1" />
        <title>The spring letter</title>
      </head>
      <body>
        <main>
          <h1>The spring letter</h1>
          <p>What to sow, and when the workshops are.</p>
          ${raw(body)}
        </main>
      </body>
    </html>`;
}
