import { ariaAttributes } from 'aria-attributes';
import { htmlElementAttributes } from 'html-element-attributes';
import { htmlEventAttributes } from 'html-event-attributes';
import { svgElementAttributes } from 'svg-element-attributes';
import { flatMap } from '../lists.js';

/** In use in all browsers and missing from the tables. */
const MORE: Record<string, string[]> = {
  '*': [
    'role',
    'xmlns',
    'xml:lang',
    'about',
    'content',
    'datatype',
    'prefix',
    'property',
    'rel',
    'resource',
    'rev',
    'typeof',
    'vocab',
    'align',
    'anchor',
    'elementtiming',
    'virtualkeyboardpolicy',
  ],
  video: [
    'disablepictureinpicture',
    'disableremoteplayback',
    'controlslist',
    'loading',
    'webkit-playsinline',
    'x-webkit-airplay',
  ],
  audio: ['disableremoteplayback', 'controlslist', 'loading'],
  iframe: [
    'allowtransparency',
    'credentialless',
    'csp',
    'fetchpriority',
    'webkitallowfullscreen',
    'mozallowfullscreen',
  ],
  img: ['fetchpriority', 'decoding', 'loading', 'sharedstoragewritable'],
  link: ['fetchpriority', 'blocking'],
  script: ['fetchpriority', 'blocking', 'attributionsrc'],
  style: ['blocking'],
  template: [
    'shadowrootmode',
    'shadowrootdelegatesfocus',
    'shadowrootclonable',
    'shadowrootserializable',
  ],
  button: ['command', 'commandfor', 'popovertarget', 'popovertargetaction'],
  details: ['name'],
  dialog: ['closedby'],
};

/** Events of Pointer Events 3, Touch Events, CSS Animations 2 and CSS Transitions 2. */
const EVENTS = flatMap(
  Object.entries({
    pointer: 'over enter down move rawupdate up cancel out leave',
    touch: 'start end move cancel',
    animation: 'start end iteration cancel',
    transition: 'run start end cancel',
    gotpointer: 'capture',
    lostpointer: 'capture',
  }),
  ([kind, names]) => names.split(' ').map((name) => `on${kind}${name}`),
);

const GLOBAL = new Set(
  [
    htmlElementAttributes['*'] ?? [],
    MORE['*']!,
    [...ariaAttributes],
    [...htmlEventAttributes],
    EVENTS,
  ]
    .flat()
    .map((name) => name.toLowerCase()),
);

const SVG_ALL = new Set(
  Object.values(svgElementAttributes)
    .flat()
    .map((name) => name.toLowerCase()),
);
const ANY = new Set([
  ...GLOBAL,
  ...Object.values(htmlElementAttributes).flat(),
  ...Object.values(MORE).flat(),
  ...SVG_ALL,
]);

/** Whether a name is an attribute of some element of HTML, ARIA or SVG. */
export function isKnownSomewhere(name: string): boolean {
  return ANY.has(name);
}

const LISTED = new Map<string, readonly string[]>();

/** The attributes that an element can have, in lower case. */
export function listAttributes(element: string): readonly string[] {
  const known = LISTED.get(element) ?? gatherAttributes(element);
  // Names that are nobody's are not kept: there is no end to them.
  if (isKnownElement(element)) LISTED.set(element, known);
  return known;
}

function gatherAttributes(element: string): string[] {
  const svg = svgElementAttributes[element];
  const own = [...(htmlElementAttributes[element] ?? []), ...(MORE[element] ?? [])];
  return [
    ...own,
    ...(svg ? [...svg, ...(svgElementAttributes['*'] ?? [])] : []).map((name) =>
      name.toLowerCase(),
    ),
    ...GLOBAL,
  ];
}

/** Whether an element is one of HTML or SVG: on others every attribute is free. */
export function isKnownElement(name: string): boolean {
  return (
    name in htmlElementAttributes || name in svgElementAttributes || name in MORE || PLAIN.has(name)
  );
}

const PLAIN = new Set(
  'abbr address article aside b bdi bdo center cite code datalist dd dfn dt em figcaption figure footer header hgroup i kbd main mark menu nav noscript p picture rp rt ruby s samp search section small span strong sub summary sup u var wbr'.split(
    ' ',
  ),
);
