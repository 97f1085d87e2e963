/** What stands for something that the standard no longer has: the name of an element, CSS, or words. */
export interface Instead {
  /** The element to write in its place. */
  element?: string;
  /** What does the same on the element itself; for attributes made from their value, null where there is none for it. */
  styles?: (value: string) => Record<string, string> | null;
  /** In words, where neither does. */
  words?: string;
}

const CSS: Instead = { words: 'do it with CSS' };
const set = (styles: Record<string, string>): Instead => ({ styles: () => styles });

/** Elements that documents must not have (HTML, 16.2 Non-conforming features). */
export const OBSOLETE_ELEMENTS: Readonly<Record<string, Instead>> = {
  acronym: { element: 'abbr' },
  applet: { words: 'use an iframe or an object' },
  basefont: CSS,
  bgsound: { words: 'use an audio element' },
  big: { element: 'span', ...set({ 'font-size': 'larger' }) },
  blink: CSS,
  center: { element: 'div', ...set({ 'text-align': 'center' }) },
  dir: { element: 'ul' },
  font: { words: 'use a span with CSS' },
  frame: { words: 'use an iframe' },
  frameset: { words: 'use iframes' },
  isindex: { words: 'use a form with a field' },
  keygen: { words: 'leave it out' },
  listing: { element: 'pre' },
  marquee: { words: 'let the text stand still, or move it with CSS and a way to stop it' },
  menuitem: { words: 'use a script and a menu' },
  multicol: { words: 'use `columns` of CSS' },
  nextid: { words: 'leave it out' },
  nobr: { element: 'span', ...set({ 'white-space': 'nowrap' }) },
  noembed: { words: 'use an object with content inside' },
  noframes: { words: 'leave it out' },
  param: { words: 'put it into the address of the object' },
  plaintext: { words: 'use a pre' },
  rb: { words: 'put the text straight into the ruby' },
  rtc: { words: 'nest ruby elements' },
  spacer: CSS,
  strike: { element: 's' },
  tt: { element: 'code' },
  xmp: { words: 'use a pre with its signs escaped' },
};

const length = (value: string) => (/^\s*\d+\s*$/.test(value) ? `${value.trim()}px` : value.trim());
const isLength = (value: string) => /^\s*\d+(\.\d+)?\s*(px|%)?\s*$/.test(value);
const size = (property: string): Instead => ({
  styles: (value) => (isLength(value) ? { [property]: length(value) } : null),
});
const colour = (property: string): Instead => ({
  styles: (value) => (/^#?\w+$/.test(value.trim()) ? { [property]: value.trim() } : null),
});
const both = (property: string): Instead => ({
  styles: (value) =>
    isLength(value)
      ? { [`${property}-left`]: length(value), [`${property}-right`]: length(value) }
      : null,
});
const upright: Instead = {
  styles: (value) =>
    isLength(value) ? { 'margin-top': length(value), 'margin-bottom': length(value) } : null,
};
const textAlign: Instead = {
  styles: (value) =>
    /^(left|right|center|justify)$/i.test(value.trim())
      ? { 'text-align': value.trim().toLowerCase() }
      : null,
};
const float: Instead = {
  styles(value) {
    const side = value.trim().toLowerCase();
    if (/^(left|right)$/.test(side)) return { float: side };
    return /^(top|middle|bottom|baseline)$/.test(side) ? { 'vertical-align': side } : null;
  },
};
const blockAlign: Instead = {
  styles(value) {
    const side = value.trim().toLowerCase();
    if (/^(left|right)$/.test(side)) return { float: side };
    return side === 'center' ? { 'margin-left': 'auto', 'margin-right': 'auto' } : null;
  },
};
const vertical: Instead = {
  styles: (value) =>
    /^(top|middle|bottom|baseline)$/i.test(value.trim())
      ? { 'vertical-align': value.trim().toLowerCase() }
      : null,
};
const noBorder: Instead = {
  styles: (value) => (/^\s*(0|no)\s*$/i.test(value) ? { border: '0' } : null),
};
const nowrap = set({ 'white-space': 'nowrap' });
const OUT: Instead = { words: 'leave it out' };
const background: Instead = { words: 'use `background-image` of CSS' };

const CELLS: Record<string, Instead> = {
  align: textAlign,
  axis: OUT,
  background,
  bgcolor: colour('background-color'),
  char: OUT,
  charoff: OUT,
  height: size('height'),
  nowrap,
  valign: vertical,
  width: size('width'),
};
const ROWS: Record<string, Instead> = {
  align: textAlign,
  background,
  bgcolor: colour('background-color'),
  char: OUT,
  charoff: OUT,
  height: size('height'),
  valign: vertical,
};
const SPACED: Record<string, Instead> = { hspace: both('margin'), vspace: upright };
const HEADING: Record<string, Instead> = { align: textAlign };

/** Attributes that elements must not have (HTML, 16.2 Non-conforming features), by element. */
export const OBSOLETE_ATTRIBUTES: Readonly<Record<string, Record<string, Instead>>> = {
  a: { charset: OUT, coords: OUT, methods: OUT, rev: OUT, shape: OUT, urn: OUT },
  area: { nohref: OUT, type: OUT },
  br: {
    clear: { styles: (value) => ({ clear: value.trim().toLowerCase().replace(/^all$/, 'both') }) },
  },
  caption: { align: textAlign },
  col: { align: textAlign, char: OUT, charoff: OUT, valign: vertical, width: size('width') },
  div: { align: textAlign },
  dl: { compact: CSS },
  embed: { align: float, name: { words: 'use an id' }, ...SPACED },
  fieldset: { datafld: OUT },
  form: { accept: OUT },
  h1: HEADING,
  h2: HEADING,
  h3: HEADING,
  h4: HEADING,
  h5: HEADING,
  h6: HEADING,
  hr: {
    align: blockAlign,
    color: colour('color'),
    noshade: CSS,
    size: size('height'),
    width: size('width'),
  },
  iframe: {
    align: float,
    allowtransparency: OUT,
    frameborder: noBorder,
    framespacing: OUT,
    ...SPACED,
    longdesc: { words: 'use a link' },
    marginheight: OUT,
    marginwidth: OUT,
    scrolling: { words: 'leave it out, and give the frame the height that its content needs' },
  },
  img: {
    align: float,
    border: {
      styles: (value) =>
        isLength(value) ? { border: value.trim() === '0' ? '0' : `${length(value)} solid` } : null,
    },
    ...SPACED,
    longdesc: { words: 'use a link' },
    lowsrc: OUT,
    name: { words: 'use an id' },
  },
  input: { align: float, border: size('border-width'), ...SPACED, ismap: OUT, usemap: OUT },
  legend: { align: textAlign },
  li: { type: { words: 'use `list-style-type` of CSS' } },
  link: { charset: OUT, methods: OUT, rev: OUT, target: OUT, urn: OUT },
  object: {
    align: float,
    archive: OUT,
    border: size('border-width'),
    classid: OUT,
    code: OUT,
    codebase: OUT,
    codetype: OUT,
    declare: OUT,
    ...SPACED,
    standby: OUT,
  },
  ol: { compact: CSS },
  p: { align: textAlign },
  pre: { width: size('width') },
  script: { charset: OUT, event: OUT, for: OUT, language: OUT },
  table: {
    align: blockAlign,
    background,
    bgcolor: colour('background-color'),
    bordercolor: colour('border-color'),
    border: { words: 'use `border` of CSS' },
    cellpadding: { words: 'use `padding` on its cells' },
    cellspacing: { words: 'use `border-spacing` of CSS' },
    frame: CSS,
    height: size('height'),
    rules: CSS,
    summary: { words: 'use a caption' },
    width: size('width'),
  },
  tbody: ROWS,
  td: { ...CELLS, abbr: OUT, scope: { words: 'use it on a th' } },
  tfoot: ROWS,
  th: CELLS,
  thead: ROWS,
  tr: ROWS,
  ul: { compact: CSS, type: { words: 'use `list-style-type` of CSS' } },
};
