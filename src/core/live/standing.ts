import { flatMap } from '../lists.js';
import type { LoadReport } from '../loads-report.js';
import { readMarkup, type Markup } from '../markup/markup.js';
import type { SnippetReport } from '../run.js';
import { isWithin, type Span } from '../snippet.js';
import { findCopies, type Copy } from './copies.js';
import type { Cleared, LiveState, LiveStanding } from './live.js';

/** What stood in a page in one load: its own document, what is in shadow roots, and documents of frames. */
export type StoodLoad = readonly { markup: Markup; inFrame: boolean }[];

/** A page as it was sent, as it stood, and what was found in it. */
export interface SeenPage {
  address: string;
  sent: Markup;
  /** Its documents as they stood, in each load. */
  stood: readonly StoodLoad[];
  report: Pick<SnippetReport, 'findings' | 'loads' | 'contacts'>;
}

/** How a cleared snippet stands on a page. */
export function findStanding(cleared: Cleared, page: SeenPage): LiveStanding {
  const snippet = readMarkup(cleared.text);
  const { address: base, sent } = page;
  const inSource = findCopies(snippet, sent, { base, asSent: true });
  const { own, framed } = findStood(snippet, page);
  const copies: LiveStanding['copies'] = [
    ...inSource.map((one) => tellCopy('sent', one, sent.place(one.span).line)),
    // What stands there besides was put there by code.
    ...own.slice(inSource.length).map((one) => tellCopy('added', one, null)),
    ...framed.map((one) => tellCopy('frame', one, null)),
  ];
  const isEscaped = copies.length === 0 && holdsEscaped(snippet, page);
  return {
    name: cleared.name,
    state: getState(copies, isEscaped),
    copies,
    behaviour: inSource.length > 0 ? compareBehaviour(cleared, page, inSource) : null,
    pictures: [],
  };
}

/** Its copies in the load that has most of them, where code puts one in on some visits only. */
function findStood(snippet: Markup, { address: base, stood }: SeenPage) {
  const loads = stood.map((load) => {
    const find = (inFrame: boolean) =>
      flatMap(
        load.filter((one) => one.inFrame === inFrame),
        ({ markup }) => findCopies(snippet, markup, { base, asSent: false }),
      );
    return { own: find(false), framed: find(true) };
  });
  const count = ({ own, framed }: (typeof loads)[number]) => own.length + framed.length;
  const none = { own: [], framed: [] };
  return loads.reduce((most, one) => (count(one) > count(most) ? one : most), none);
}

function tellCopy(
  where: LiveStanding['copies'][number]['where'],
  { changes }: Copy,
  line: number | null,
): LiveStanding['copies'][number] {
  return { where, line, changes };
}

function getState(copies: LiveStanding['copies'], isEscaped: boolean): LiveState {
  if (copies.length === 0) return isEscaped ? 'escaped' : 'missing';
  if (copies.length > 1) return 'doubled';
  return copies[0]!.changes.length > 0 ? 'altered' : 'as-cleared';
}

/** Whether its code stands there as words that visitors read. */
function holdsEscaped(snippet: Markup, { address, sent }: SeenPage): boolean {
  return sent.elements.some(
    ({ name, text }) =>
      !/^(script|style|template|noscript)$/.test(name) &&
      text.includes('<') &&
      findCopies(snippet, readMarkup(text), { base: address, asSent: true }).length > 0,
  );
}

/** What it does there, beside what it did when it was cleared. */
function compareBehaviour(
  { findings: before, hosts }: Cleared,
  { report }: SeenPage,
  copies: readonly Copy[],
): LiveStanding['behaviour'] {
  if (before === null || hosts === null)
    return { known: false, newFindings: [], newHosts: [], goneHosts: [] };
  const spans = copies.map(({ span }) => span);
  const found = report.findings.filter(({ where, id }) => {
    return spans.some((span) => isWithin(where, span)) && !before.includes(id);
  });
  const here = new Set(listHosts(report.loads?.requests ?? [], spans));
  const all = new Set(report.contacts.map(({ host }) => host));
  return {
    known: true,
    newFindings: found.map(({ id, level, brief }) => ({ id, level, brief })),
    newHosts: [...here].filter((host) => !hosts.includes(host)).sort(),
    goneHosts: hosts.filter((host) => !all.has(host)),
  };
}

/** Hosts of other sites that are asked by what stands in a copy, and by what that loads. */
function listHosts(requests: readonly LoadReport[], spans: readonly Span[]): string[] {
  const isOf = (at: number): boolean => {
    const { offset, by } = requests[at]!;
    if (by !== null) return isOf(by);
    return (
      offset !== null && spans.some((span) => isWithin({ offset, endOffset: offset + 1 }, span))
    );
  };
  return requests.filter((one, i) => one.thirdParty && isOf(i)).map(({ host }) => host);
}
