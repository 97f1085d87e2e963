import { html, type Html } from './template.js';

/** What was measured, as a table. */
export function formatHtmlTable(
  heads: readonly string[],
  rows: readonly (readonly string[])[],
  caption: string | null = null,
): Html {
  return html`<table class="measured">
    ${
      caption === null
        ? null
        : html`<caption>
            ${caption}
          </caption>`
    }
    <thead>
      <tr>
        ${heads.map((head) => html`<th>${head}</th>`)}
      </tr>
    </thead>
    <tbody>
      ${rows.map(
        (cells) =>
          html`<tr>
            ${cells.map((cell) => html`<td>${cell}</td>`)}
          </tr>`,
      )}
    </tbody>
  </table>`;
}
