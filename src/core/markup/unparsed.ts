/** What the parser reads no tags in: comments, and the text of scripts, styles and the like. */
const UNPARSED =
  /<!--[\s\S]*?(?:-->|$)|(<(script|style|textarea|title|xmp|iframe|noembed|noframes)\b(?:"[^"]*"|'[^']*'|[^'">])*>)([\s\S]*?)(?=<\/\2|$)/gi;

/** The text with blanks for all that no tags are read in; offsets stay as they are. */
export function blankUnparsed(text: string): string {
  if (last?.text !== text) last = { text, blanked: blankAll(text) };
  return last.blanked;
}

/** All that fits a pattern where tags are read. */
export function matchTags(text: string, pattern: RegExp): RegExpExecArray[] {
  // Most texts have none of it anywhere.
  return text.search(pattern) < 0 ? [] : [...blankUnparsed(text).matchAll(pattern)];
}

/** Several ask for the same text, one after the other. */
let last: { text: string; blanked: string } | null = null;

function blankAll(text: string): string {
  return text.replace(
    UNPARSED,
    (all, tag: string | undefined, _name, inside: string | undefined) =>
      tag === undefined ? blank(all) : tag + blank(inside ?? ''),
  );
}

function blank(text: string): string {
  return text.replace(/[^\r\n]/g, ' ');
}
