import { defineCheck, makeSeen, type Case, type Fact } from '../../core/check.js';
import { flatMap, mapPresent } from '../../core/lists.js';
import { atAttribute, atPart, blameElement } from '../../core/measure/blame.js';
import { listAddresses, listWritten } from '../../core/markup/addresses.js';
import {
  getAttribute,
  type MarkupAttribute,
  type MarkupElement,
} from '../../core/markup/markup.js';
import { tell } from '../../core/tell.js';

type Needs = 'traffic' | 'frames';

interface Data {
  kind: Bound;
  address: string;
  /** The offset of the tag. */
  element: number;
}

type Bound = 'file' | 'blob' | 'mail' | 'machine' | 'expired' | 'absent' | 'signed-in';

export default defineCheck({
  id: 'address-works-only-here',
  subject: 'paste',
  level: 'blocker',
  title: 'An address works only where it was copied',
  decided:
    'An address to load or to follow is a file of a machine (`file:`, `C:\\`), a piece of a browser’s or a mail program’s memory (`blob:`, `cid:`), this machine itself (localhost), or signed for a time that is over; or it is relative, and the house’s site, by its `root` or its own answer, has nothing there; or a frame’s address leads on to a page that asks for a password.',
  standard: 'URL; RFC 8089; File API, 8 A URL for Blob',
  needs: ['traffic', 'frames'],
  markup: true,
  explains: [
    { findings: ['request-failed'], anywhere: true },
    {
      findings: ['frame-refused', 'frame-height-collapsed', 'frame-mostly-empty'],
      anywhere: true,
      fits: ({ culprit }, { element }: Data) =>
        culprit.at === 'element' && culprit.offset === element,
    },
  ],
  judge: (c) => [...judgeElements(c), ...listAbsent(c), ...listSignIns(c)],
  says: ({ kind, address }) => ({ message: getMessage(kind, address), ...WORDS[kind] }),
  brief: ({ kind }) => BRIEF[kind],
  samples: [
    { kind: 'file', address: 'file:///home/desk/beans.png', element: 0 },
    { kind: 'signed-in', address: 'https://forms.fernmap.example/edit', element: 0 },
    { kind: 'machine', address: 'http://localhost:3000/form', element: 0 },
    {
      kind: 'expired',
      address: 'https://files.bookbed.example/list.pdf?Expires=1700000000',
      element: 0,
    },
  ],
  examples: {
    faulty: [
      {
        name: 'a picture from a disk',
        code: '<img alt="Beans" src="file:///home/desk/beans.png" width="40" height="30">',
      },
      {
        name: 'a link into somebody’s drive',
        code: '<p><a href="C:\\seeds\\list.pdf">Seed list</a></p>',
      },
    ],
    sound: [
      {
        name: 'a picture of a site',
        code: '<img alt="Beans" src="https://static.rootcellar.example/beans.png" width="40" height="30">',
      },
      {
        name: 'a picture that is all in the address',
        code: '<img alt="Bean" width="9" height="9" src="data:image/gif;base64,R0lGODlhAQABAIAAAAAAAP///ywAAAAAAQABAAACAUwAOw==">',
      },
    ],
  },
});

const OTHERS = {
  cure: 'Put the file on the site or at its vendor, and use the address it has there.',
};

const WORDS: Record<Bound, { notice: string; cure: string }> = {
  file: { notice: 'Everybody else sees nothing there, or an error.', ...OTHERS },
  blob: { notice: 'Everybody else sees nothing there, or an error.', ...OTHERS },
  mail: { notice: 'Only in that message is there anything to be seen.', ...OTHERS },
  machine: {
    notice: 'On every other machine there is nothing at this address.',
    cure: 'Use the address under which the site or its vendor is reached by everybody.',
  },
  absent: {
    notice:
      'On the site there is nothing at this address: visitors see nothing there, or an error.',
    cure: 'Write the whole address, with its host; or put the file on the site.',
  },
  'signed-in': {
    notice: 'Visitors who have no account there see a form that asks for a password.',
    cure: 'Ask for the address that is open to everybody: it is often found under “share” or “embed”.',
  },
  expired: {
    notice: 'The address is answered with an error by now.',
    cure: 'Ask for an address that does not run out.',
  },
};

const BRIEF: Record<Bound, string> = {
  file: 'an address on somebody’s disk',
  blob: 'an address in a browser’s memory',
  mail: 'an address inside a message',
  machine: 'an address on this machine',
  absent: 'an address that the site does not have',
  'signed-in': 'an address for those who are signed in',
  expired: 'a signed address that has run out',
};

function getMessage(kind: Bound, address: string): string {
  const shown = address.length > 80 ? `${address.slice(0, 79)}…` : address;
  if (kind === 'file') return `This address is a file on somebody’s disk (${shown}).`;
  if (kind === 'blob') return `This address lives in the memory of one browser (${shown}).`;
  if (kind === 'mail') return `This address is a part of one message (${shown}).`;
  if (kind === 'machine') return `This address is the machine itself that asks (${shown}).`;
  if (kind === 'absent') return `The site that it is for has nothing at this address (${shown}).`;
  if (kind === 'signed-in')
    return `This address leads on to a page that asks for a password (${shown}).`;
  return `The time of this signed address is over (${shown}).`;
}

const FOLLOWED: Record<string, string> = { a: 'href', area: 'href', form: 'action' };

/** What was asked of the house's own site, and is not there. */
function listAbsent({ markup, house, renders }: Case<Needs>): Fact<Data>[] {
  if (renders.length === 0) return [];
  const { host } = new URL(house.origin);
  const missing = new Map(
    flatMap(renders, (render) =>
      render.traffic
        .filter((one) => new URL(one.first).host === host && /^(404|410)$/.test(String(one.status)))
        .filter(({ refused }) => refused === null)
        .map(({ first }) => [first, render] as const),
    ),
  );
  return flatMap(
    listAddresses(markup, house.origin),
    ({ url, element, attribute }): Fact<Data>[] => {
      const render = missing.get(url.href);
      const address = attribute.value.trim();
      if (!render || /^([a-z][a-z\d+.-]*:|\/\/)/i.test(address)) return [];
      const { name, offset, endOffset } = attribute;
      return [
        tell.seen(
          atPart(element, name, { offset, endOffset }),
          { kind: 'absent', address, element: element.offset },
          makeSeen(render, { status: 404 }),
          { group: name },
        ),
      ];
    },
  );
}

/** Frames whose address leads elsewhere, and there a password is asked for. */
function listSignIns({ markup, renders }: Case<Needs>): Fact<Data>[] {
  return flatMap(renders, (render) =>
    mapPresent(render.frames, (frame): Fact<Data> | null => {
      const load = render.traffic.find((one) => one.first === frame.address);
      const led = load !== undefined && load.address !== load.first;
      if (!led || !frame.inner?.asksPassword) return null;
      const blame = blameElement(markup, frame);
      const element = 'offset' in frame.from ? frame.from.offset : -1;
      return tell.seen(
        atAttribute(markup, blame, 'src'),
        { kind: 'signed-in', address: frame.address, element },
        makeSeen(render, { status: load.status }),
        { group: 'src' },
      );
    }),
  );
}

function judgeElements({ markup, today }: Case<Needs>): Fact<Data>[] {
  const loaded = new Map(listWritten(markup).map(({ element, attribute }) => [attribute, element]));
  const facts: Fact<Data>[] = [];
  for (const [attribute, element] of loaded) {
    const kind = getKind(attribute.value.trim(), today);
    if (kind) facts.push(toFact(element, attribute, kind));
  }
  for (const element of markup.elements) {
    const name = FOLLOWED[element.name];
    const attribute = name === undefined ? null : getAttribute(element, name);
    const kind = attribute && getKind(attribute.value.trim(), today);
    if (kind && kind !== 'expired') facts.push(toFact(element, attribute, kind));
  }
  return facts;
}

function toFact(
  element: MarkupElement,
  { name, value, offset, endOffset }: MarkupAttribute,
  kind: Bound,
): Fact<Data> {
  return tell.markup(
    atPart(element, name, { offset, endOffset }),
    { kind, address: value.trim(), element: element.offset },
    { group: name },
  );
}

const LOOPBACK =
  /^(https?:)?\/\/(localhost|[^/?#]*\.localhost|127(\.\d+){3}|\[::1\]|0\.0\.0\.0)(:\d+)?([/?#]|$)/i;

/** What names no host and says not until when it holds works wherever its page does. */
const RELATIVE = /^(?![a-z][a-z\d+.-]*:|[\\/]{2})/i;

function getKind(address: string, today: string): Bound | null {
  if (RELATIVE.test(address)) return isExpired(address, today) ? 'expired' : null;
  if (/^file:/i.test(address) || /^[a-z]:[\\/]/i.test(address) || /^\\\\\w/.test(address))
    return 'file';
  if (/^(blob|filesystem|content|chrome-extension|moz-extension):/i.test(address)) return 'blob';
  if (/^(cid|mid|x-apple-data-detectors|webkit-fake-url):/i.test(address)) return 'mail';
  if (LOOPBACK.test(address)) return 'machine';
  return isExpired(address, today) ? 'expired' : null;
}

/** Whether the query says until when it is signed, in seconds since 1970, and that is over. */
function isExpired(address: string, today: string): boolean {
  if (
    !address.includes('?') ||
    !/[?&](Signature|sig|hdnts|X-\w+-Signature|Key-Pair-Id|token)=/i.test(address)
  )
    return false;
  const until = /[?&]Expires=(\d{10})(&|#|$)/i.exec(address)?.[1];
  return until !== undefined && Number(until) * 1000 < Date.parse(today);
}
