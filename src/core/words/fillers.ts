/** What templates and instructions leave to be filled in, in what machines read. */
const FILLERS = [
  /\{\{[^{}]*\}\}/,
  /<%[\s\S]*?%>/,
  /\$\{[^{}]*\}/,
  /%%[A-Z][A-Z0-9_]*%%/,
  /\[\[[^[\]]*\]\]/,
  /\[(?:YOUR|INSERT|ADD|ENTER)[ _-][^\]]*\]/i,
  /(?<![A-Za-z])(?:YOUR|INSERT|REPLACE|CHANGE|ENTER)[_-][A-Z0-9]+(?:[_-][A-Z0-9]+)*(?![a-z])/,
  /(?<![A-Za-z])(?:YOUR|INSERT|REPLACE|CHANGE|ENTER|ADD|PASTE|PUT)(?:(?:[_-]| |%20|\+)[A-Z0-9]+)*(?:[_-]| |%20|\+)(?:HERE|URL|LINK|ADDRESS|ID|KEY|TOKEN|CODE)(?![A-Za-z])/,
  /(?<![A-Za-z])(?:YOURID|YOURKEY|CHANGEME|REPLACEME)(?![A-Za-z])/i,
  /(?<![A-Za-z])your[_-](?:api[_-]?key|id|account[_-]?id|key|token|video[_-]?id|domain|url|code)(?:[_-]here)?(?![\w])/i,
  /(?<![A-Za-z0-9])X{4,}(?![A-Za-z0-9])/,
  /(?<![A-Za-z])__[A-Z][A-Z0-9_]*__(?![A-Za-z])/,
];
/** What all of these have some of. */
const SOME = /\{\{|<%|\$\{|%%|\[|__|your|insert|replace|change|enter|here|xxxx/i;

/** What is left in a text for people: only what nobody would write to be read. */
const WORDS = [
  /\{\{\s*[\w.$#/>-][^{}]*\}\}/,
  /\$\{\s*[a-z_$][^{}]*\}/i,
  /%%[A-Z][A-Z0-9_]*%%/,
  /\[(?:your|insert|enter|replace|add your)\b[^\]]*\]/i,
  /\[(?=[^\]]*\b(?:HERE|YOUR|INSERT|NAME|TITLE|DATE|TIME|PLACE|PRICE|URL|LINK|TEXT|TBC|TBD)\b)[A-Z0-9 '’_.:/-]+\]/,
  /(?<![\w'’])(?:INSERT|ADD|ENTER|PASTE|PUT|YOUR)(?: [A-Z0-9]+)* HERE(?![\w])/,
  /\blorem ipsum\b[^<]{0,40}/i,
  /\bdolor sit amet\b/i,
  /(?<!\S)(?:TODO|FIXME)\s*(?::(?=\s|$)|\()/,
  /^\s*(?:TODO|FIXME)\s*$/m,
];
const SOME_WORDS = /\{\{|\$\{|%%|\[|HERE|lorem ipsum|dolor sit|TODO|FIXME/i;

/** What was to be filled in, of a value for machines; null where nothing was. */
export function findFiller(value: string): string | null {
  return SOME.test(value) ? findFirst(FILLERS, value) : null;
}

/** Whether it is worth looking for what was to be filled in, in a text or in pieces of it. */
export function mayHaveFillerWords(text: string): boolean {
  return SOME_WORDS.test(text);
}

/** What was to be filled in, of a text that people read. */
export function findFillerWords(text: string): string | null {
  return mayHaveFillerWords(text) ? findFirst(WORDS, text) : null;
}

function findFirst(patterns: readonly RegExp[], text: string): string | null {
  for (const pattern of patterns) {
    const match = pattern.exec(text);
    if (match) return match[0].trim();
  }
  return null;
}
