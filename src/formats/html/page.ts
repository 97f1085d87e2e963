import { STYLE } from './style.js';
import { html, trusted, type Html } from './template.js';

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
