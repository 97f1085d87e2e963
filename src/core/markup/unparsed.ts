/** What the parser reads no tags in: comments, values of attributes, and the text of scripts, styles and the like. */
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

/** The runs of text between tags that a reader may see, with where they begin. */
export function listRuns(text: string): { offset: number; text: string }[] {
  const bare = blankUnparsed(text).replace(/<[!/a-z][^>]*(?:>|$)/gi, (tag) =>
    '\0'.repeat(tag.length),
  );
  return [...bare.matchAll(/[^\0]+/g)]
    .map((match) => ({ offset: match.index, text: match[0] }))
    .filter((run) => run.text.trim() !== '');
}

/** Several ask for the same text, one after the other. */
let last: { text: string; blanked: string } | null = null;

function blankAll(text: string): string {
  const parsed = text.replace(
    UNPARSED,
    (all, tag: string | undefined, _name, inside: string | undefined) =>
      tag === undefined ? blank(all) : tag + blank(inside ?? ''),
  );
  return parsed.replace(TAG, (tag) => tag.replace(/"[^"]*"|'[^']*'/g, blankValue));
}

/** A tag whose quotes come in pairs. */
const TAG = /<[a-z](?:"[^"]*"|'[^']*'|[^'">])*>/gi;

/** Its quotes stay: it is a value, and may not be taken for a name. */
function blankValue(quoted: string): string {
  return quoted[0]! + blank(quoted.slice(1, -1)) + quoted[0]!;
}

function blank(text: string): string {
  return text.replace(/[^\r\n]/g, ' ');
}
