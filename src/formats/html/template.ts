import { html as tagged, raw } from 'hono/html';
import type { HtmlEscapedString } from 'hono/utils/html';

/** A piece of HTML whose values have been escaped. */
export type Html = HtmlEscapedString;

/** A template: every value is escaped, but for pieces that are templates themselves. */
export function html(strings: TemplateStringsArray, ...values: unknown[]): Html {
  // The helper answers with a promise only where one was put in.
  return tagged(strings, ...values) as Html;
}

/** Our own text that is HTML or CSS already: never anything of a snippet's. */
export function trusted(text: string): Html {
  return raw(text) as Html;
}
