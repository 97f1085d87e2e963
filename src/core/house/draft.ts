import { stringify } from 'yaml';

/** What a house file is begun with; what is left out keeps its default. */
export interface Draft {
  /** A file, from the house file's own folder. */
  page?: string;
  origin?: string;
  language?: string;
  /** Of the house's own page: their widths are its own. */
  slots?: { name: string; width: number | 'full' | null }[];
  /** px. */
  widths?: number[];
  holdOn?: string;
  /** Where the JSON Schema of house files is, from the house file's own folder; left out: it is not named. */
  schema?: string;
}

/** A house file with a comment on each of its parts; what was not answered stands there as a comment too. */
export function writeDraft(draft: Draft): string {
  const { page, origin, language, slots, widths, holdOn, schema } = draft;
  // Editors that know this line complete the file and check it as it is written.
  const named = schema === undefined ? '' : `# yaml-language-server: $schema=${schema}\n`;
  return `${named}# The house file: where snippets live, and what is allowed there. \`mivket audit\` looks for it
# upward from where it is run. Every key may be left out.

# The page that snippets are put into; each slot in it is marked: <div data-mivket-slot="article"></div>.
# Left out, it is a neutral page.
${line('page', page, 'host.html')}

# Where that page stands on the web: relative addresses of snippets lead there.
${line('origin', origin, 'https://www.seedlibrary.example')}

# The slots of the page. On the neutral page \`width\` is how wide each is, in px or \`full\`; \`headingLevel\`
# is the level that its headings begin with.
${writeSlots(slots)}

# The windows that snippets are looked at in: px.
${writeViewports(widths)}

# The language that vendors are asked for.
${line('language', language, 'en-US')}

# From which level on a snippet is held: blocker, concern or advice.
${line('holdOn', holdOn, 'blocker')}

# What third parties may weigh, and other limits.
limits:
  scriptBytes: 150kB

# Findings may have another level here, or be off. \`mivket explain\` lists them.
# levels:
#   obsolete-markup: off

# Known faults that may stand for a while.
# waivers:
#   - finding: frame-fixed-size
#     snippet: noticeboard.html
#     until: 2027-03-31
#     reason: The vendor makes it fluid in spring
#     by: members' desk
`;
}

/** A key with its value, or as a comment with a usual one. */
function line(key: string, value: string | undefined, usual: string): string {
  return value === undefined ? `# ${key}: ${usual}` : stringify({ [key]: value }).trimEnd();
}

function writeSlots(slots: Draft['slots']): string {
  if (!slots || slots.length === 0)
    return '# slots:\n#   article: { width: 680, inset: 16, headingLevel: 2 }';
  const lines = slots.map(({ name, width }) => {
    const keys = width === null ? '' : ` width: ${width},${width === 'full' ? '' : ' inset: 16,'}`;
    return `  ${stringify(name).trim()}: {${keys} headingLevel: 2 }`;
  });
  return ['slots:', ...lines].join('\n');
}

function writeViewports(widths: readonly number[] | undefined): string {
  if (!widths || widths.length === 0)
    return '# viewports:\n#   - { name: phone, width: 320 }\n#   - { name: desktop, width: 1280 }';
  return ['viewports:', ...widths.map((px) => `  - { name: '${px}', width: ${px} }`)].join('\n');
}
