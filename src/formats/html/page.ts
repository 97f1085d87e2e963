import { STYLE } from './style.js';
import { html, trusted, type Html } from './template.js';

/** What a page tells, in the frame that all such have. */
interface Told {
  /** Of the window; left out: the heading. */
  title?: string;
  heading: string;
  /** Below the heading. */
  about: Html;
  stamp?: Html;
  main: Html | readonly Html[];
  /** How to read it. */
  foot: string;
}

/** A page that is no report of a run, in the look of one. */
export function formatToldPage({
  heading,
  title = heading,
  about,
  stamp,
  main,
  foot,
}: Told): string {
  return formatPage(
    title,
    html`<header class="top">
        <div>
          <h1>${heading}</h1>
          ${about}
        </div>
        ${stamp ?? null}
      </header>
      <main>${main}</main>
      <footer>
        <div>${foot}</div>
      </footer>`,
  );
}

/** A part of it that is about one snippet. @param said of it as a whole */
export function formatPart(name: string, said: string, body: Html): Html {
  return html`<section class="snippet" aria-label="${name}">
    <div class="title">
      <h2>${name}</h2>
      <b>${said}</b>
    </div>
    ${body}
  </section>`;
}

/** Lines one below the other, clean. */
export function formatPlainList(lines: readonly string[]): Html {
  return html`<ul class="plain">
    ${lines.map((line) => html`<li>${line}</li>`)}
  </ul>`;
}

/** A whole page in the look of the report, which asks for nothing outside. */
export function formatPage(title: string, body: Html): string {
  const page = html`<!doctype html>
    <html lang="en" class="themed">
      <head>
        <meta charset="utf-8" />
        <meta name="viewport" content="width=device-width, initial-scale=1" />
        <meta
          http-equiv="content-security-policy"
          content="default-src 'none'; style-src 'unsafe-inline'; img-src data:"
        />
        <title>${title}</title>
        <style>
          ${trusted(STYLE)}
        </style>
      </head>
      <body>
        ${body}
      </body>
    </html>`;
  return page.toString();
}
