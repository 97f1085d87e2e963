import { lexer, type DSNode } from 'css-tree';
import { htmlElementAttributes } from 'html-element-attributes';
import { htmlTagNames } from 'html-tag-names';

/** What css-tree knows of CSS. */
const { properties, types, units } = lexer as unknown as {
  properties: Record<string, { syntax: DSNode | null }>;
  types: Record<string, { syntax: DSNode | null }>;
  units: { length: string[] };
};

/** One value of each basic type (CSS Values and Units 4). */
const SAMPLES: Record<string, string> = {
  length: '3px',
  percentage: '4%',
  number: '2',
  integer: '1',
  angle: '5deg',
  time: '1s',
  frequency: '1hz',
  resolution: '1dppx',
  flex: '1fr',
  decibel: '1dB',
  semitones: '1st',
  string: '"a"',
  ident: 'a',
  'custom-ident': 'a',
  'dashed-ident': '--a',
  'custom-property-name': '--a',
  dimension: '3px',
  'url-token': 'url(data:,)',
  'hex-color': '#123',
  'number-token': '2',
  'string-token': '"a"',
  'ident-token': 'a',
  'hash-token': '#a',
  'declaration-value': 'a',
  'any-value': 'a',
  'an-plus-b': '2n+1',
  urange: 'U+26',
  zero: '0',
};
/** So many values are made of one piece of syntax, so deep. */
const MOST = 60;
const DEEPEST = 14;

/** Values that a piece of syntax allows: each of its alternatives at least once, as far as they are so few. */
function listValues(node: DSNode, depth = 0): string[] {
  if (depth > DEEPEST) return [];
  if (node.type === 'Group') return listOfGroup(node.terms, node.combinator, depth);
  if (node.type === 'Multiplier') {
    const times = Math.max(node.min, 1);
    const glue = node.comma ? ', ' : ' ';
    return listValues(node.term, depth + 1).map((one) => Array<string>(times).fill(one).join(glue));
  }
  if (node.type === 'Type')
    return SAMPLES[node.name] !== undefined
      ? [SAMPLES[node.name]!]
      : listOf(types[node.name]?.syntax, depth);
  if (node.type === 'Property') return listOf(properties[node.name]?.syntax, depth);
  if (node.type === 'Function') return [`${node.name}(`];
  if (node.type === 'Keyword') return [node.name];
  if (node.type === 'Token' || node.type === 'String') return [node.value];
  return node.type === 'Comma' ? [','] : [];
}

function listOf(syntax: DSNode | null | undefined, depth: number): string[] {
  return syntax ? listValues(syntax, depth + 1) : [];
}

function listOfGroup(terms: readonly DSNode[], combinator: string, depth: number): string[] {
  const lists = terms.map((term) => listValues(term, depth + 1));
  if (combinator === '|') return [...new Set(lists.flat())].slice(0, MOST);
  const whole = lists.filter((list) => list.length > 0);
  if (combinator === '||') return [...new Set(whole.flat())].slice(0, MOST);
  const varied = whole.flatMap((list, at) =>
    list.map((one) => whole.map((other, i) => (i === at ? one : other[0]!)).join(' ')),
  );
  return [...new Set(varied)].slice(0, MOST);
}

const getFunctions = (value: string) => value.match(/[a-z-]+(?=\()/gi) ?? [];

/** Declarations in which every function that a property's value may have stands once. */
export function listFunctions(): string[] {
  const seen = new Set<string>();
  return Object.entries(properties).flatMap(([property, known]) =>
    property.startsWith('-') || !known.syntax
      ? []
      : listValues(known.syntax).flatMap((value) => {
          const fresh = getFunctions(value).filter((name) => !seen.has(name));
          for (const name of fresh) seen.add(name);
          return fresh.length > 0 ? [`${property}: ${value}`] : [];
        }),
  );
}

/** Functions of numbers, whose values may be mixed with others (CSS Values 4, 10). */
const MATH = [
  'min(2, 3)',
  'max(2, 3)',
  'clamp(1, 2, 3)',
  'round(2, 3)',
  'mod(7, 3)',
  'rem(7, 3)',
  'sin(1)',
  'cos(1)',
  'tan(1)',
  'asin(1) / 1deg',
  'acos(1) / 1deg',
  'atan(1) / 1deg',
  'atan2(1, 2) / 1deg',
  'pow(2, 2)',
  'sqrt(4)',
  'hypot(3, 4)',
  'log(2)',
  'exp(1)',
  'abs(-2)',
  'sign(-2)',
  'progress(2, 1, 4)',
  'sibling-index()',
  'sibling-count()',
];
/** Properties whose lengths a page's layout goes by. */
const LENGTHS = [
  'width',
  'min-width',
  'max-width',
  'height',
  'flex-basis',
  'margin-left',
  'padding-top',
  'left',
  'text-indent',
  'font-size',
  'line-height',
  'gap',
  'translate',
  'border-radius',
  'background-position',
  'grid-template-columns',
];

/** Declarations with every unit, and with every way to reckon with them. */
export function listReckoned(): string[] {
  const lengths = [...new Set(units.length)];
  const plain = lengths.map((unit) => `width: 3${unit}`);
  const products = lengths.map((unit) => `width: calc(10% + 2px * (100vw / 7${unit}))`);
  const mixed = MATH.map((math) => `width: calc(1% + 2px * ${math})`);
  const anywhere = LENGTHS.flatMap((property) => [
    `${property}: calc(1% + 2px * (100vw / 100px))`,
    `${property}: min(9%, 2px * sign(3px - 1em))`,
    `${property}: calc-size(auto, size * 0.5)`,
  ]);
  return [...plain, ...products, ...mixed, ...anywhere];
}

/** What an attribute is given: nothing that asks anybody for anything. */
const VALUES: Record<string, string> = {
  href: '#a',
  src: 'data:,',
  srcset: 'data:, 1x',
  srcdoc: '<p>Sow</p>',
  data: 'data:text/plain,Sow',
  poster: 'data:,',
  action: '#a',
  formaction: '#a',
  background: 'data:,',
  ping: '',
  manifest: '',
  codebase: '',
  archive: '',
  classid: '',
  'http-equiv': 'default-style',
  usemap: '#a',
  style: 'color: #123',
  media: 'screen',
  sizes: '9px',
  type: 'text',
  width: '20',
  height: '20',
};
const VOID =
  /^(area|base|basefont|bgsound|br|col|embed|frame|hr|image|img|input|isindex|keygen|link|meta|param|source|track|wbr)$/;
/** What takes the rest of a page into itself, or is the page. */
const WHOLE =
  /^(html|head|body|frameset|plaintext|noframes|title|textarea|xmp|iframe|noembed|noscript|script|style|template|select|option|listing)$/;

/**
 * Every element with each of its attributes, once; what takes what follows into itself is closed at once.
 * @param isWanted whether an element of that name is
 */
export function listElements(isWanted: (tag: string) => boolean): string[] {
  const every = htmlElementAttributes['*']!.map((name) => ['span', name] as const);
  const own = htmlTagNames.flatMap((tag) =>
    ['', ...(htmlElementAttributes[tag] ?? [])].map((name) => [tag, name] as const),
  );
  return [...every, ...own]
    .filter(([tag]) => tag !== 'plaintext' && isWanted(tag))
    .map(([tag, name]) => {
      const attribute = name && ` ${name}="${VALUES[name] ?? 'a'}"`;
      const start = `<${tag}${attribute}>`;
      if (VOID.test(tag)) return start;
      return WHOLE.test(tag) ? `${start}</${tag}>` : `${start}Sow</${tag}>`;
    });
}
