import { Hono } from 'hono';
import { html, raw } from 'hono/html';

/** The library's letter, whose system keeps no styles and no words for frames, and where one block was put in twice. */
export const letter = new Hono();

const BOOKING = `<script async src="https://book.trellis.example/loader.js"></script>
<div data-trellis-desk="workshops" style="min-height:80px"></div>`;
const CALENDAR =
  '<iframe class="seed-calendar" src="https://maps.fernmap.example/embed/calendar"></iframe>';

letter.get('/spring', (context) =>
  context.html(
    html`<!doctype html>
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
            ${raw(CALENDAR)}
            <h2>Workshops</h2>
            ${raw(BOOKING)}
            <p>Bring gloves.</p>
            ${raw(BOOKING)}
          </main>
        </body>
      </html>`,
  ),
);
