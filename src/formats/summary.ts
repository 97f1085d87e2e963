import { getDay } from '../core/words/time.js';
import type { Finding, IdleWaiver, RunDocument, SnippetReport, Verdict } from '../core/run.js';
import { countLevels, counts } from '../core/verdict.js';
import { joinWords } from '../core/words/list.js';

/** Under which house, in which slots, at which widths. */
export function formatHead({
  house: { file, slots, viewports, ownPage },
  snippets,
}: Pick<RunDocument, 'house' | 'snippets'>): string {
  const widths = `${joinWords(viewports.map((viewport) => String(viewport.width)))} px`;
  const names = joinWords(slots.map((slot) => `“${slot.name}”`));
  const page = ownPage ? 'the house’s page' : 'the neutral page';
  const from = file === null ? 'No house file' : `House ${file}`;
  const pages = snippets.filter(({ published }) => published !== null).length;
  const published =
    pages === 1 ? 'a page as it is published' : `${pages} pages as they are published`;
  const slotted = `${slots.length === 1 ? 'slot' : 'slots'} ${names} on ${page}`;
  const where = pages === snippets.length && pages > 0 ? [published] : [slotted];
  if (pages > 0 && pages < snippets.length) where.push(published);
  return `${from}: ${where.join('; ')}, at ${widths}.`;
}

/** How many findings of each level, as `, 1 blocker, 2 concerns`; '' where there is none. */
export function formatCounts(snippet: SnippetReport): string {
  const counts = countLevels(snippet.findings);
  const words = (['blocker', 'concern', 'advice'] as const)
    .filter((level) => counts[level] > 0)
    .map(
      (level) => `${counts[level]} ${level}${counts[level] > 1 && level !== 'advice' ? 's' : ''}`,
    );
  const waived = snippet.findings.filter(({ waiver }) => waiver && !waiver.expired).length;
  if (waived > 0) words.push(`${waived} waived`);
  if (snippet.known > 0) words.push(`${snippet.known} as before`);
  return words.length > 0 ? `, ${words.join(', ')}` : '';
}

/** What a report says at its end of the run as a whole: what is left out, and what of the house is out of date. */
export function listEndNotes({ since, idleWaivers }: RunDocument): string[] {
  const of = since?.startedAt ? ` (${getDay(new Date(since.startedAt))})` : '';
  const left = since ? [`Only what ${since.run}${of} did not have already is told.`] : [];
  return [...left, ...idleWaivers.map(formatIdle)];
}

function formatIdle({ finding, snippet, piece, until }: IdleWaiver): string {
  const where = snippet === null ? '' : ` in ${snippet}`;
  const at = piece === null ? '' : ` at “${piece}”`;
  return `The waiver until ${until} of ${finding}${where}${at} accepts nothing any more: take it out of the house file, or look whether its piece is still the same.`;
}

/** The engines by their usual names. */
export function formatEngines(engines: RunDocument['engines']): string {
  return engines.map(({ version }) => version.replace('HeadlessChrome/', 'Chromium ')).join(', ');
}

/** How many places there are: each slot at each width, in whatever variants it was rendered. */
export function countPlaces({ renders }: SnippetReport): number {
  return renders.filter(({ variant }) => variant === 'as-is').length;
}

/** What keeps a finding from being certain, to be put behind its place; '' where nothing does. */
export function describeDoubt({ confirmed, seen }: Finding): string {
  if (confirmed) return '';
  return seen.length > 0 ? ' · not confirmed' : ' · from the markup alone';
}

/** In what slots, by their width, it fits: `fits 680, not 358`, of those that were tried; '' where nothing is known. */
export function formatFits({
  renders,
  fitsFrom,
  searched,
}: Pick<SnippetReport, 'renders' | 'fitsFrom' | 'searched'>): string {
  const tried = renders.filter(({ variant }) => variant === 'as-is');
  if (tried.length === 0 || tried.some(({ fits }) => fits === null)) return '';
  const list = (fits: boolean) => {
    const widths = tried
      .filter((one) => one.fits === fits)
      .map((one) => one.slotWidth ?? one.width);
    return [...new Set(widths.map(Math.round))].sort((a, b) => a - b);
  };
  const unfit = list(false);
  const fit = list(true).filter((width) => !unfit.includes(width));
  if (fit.length === 0) return 'fits none tested';
  if (fitsFrom !== null && searched.tried > 0)
    return `fits ${unfit.length === 0 ? 'all tested, ' : ''}from ${Math.round(fitsFrom)} px`;
  if (unfit.length === 0) return `fits all tested, from ${fit[0]} px`;
  // Where it fits from a width on, the two on either side of the edge say it all.
  if (unfit.at(-1)! < fit[0]!) return `fits ${fit[0]}, not ${unfit.at(-1)}`;
  return `fits ${joinWords(fit.map(String))}, not ${joinWords(unfit.map(String))}`;
}

/** What a report says below a snippet's findings: what was searched, and what could not be judged. */
export function listNotes(
  snippet: SnippetReport,
  { notJudged }: Pick<RunDocument, 'notJudged'>,
): string[] {
  const { published } = snippet;
  const missed = notJudged.filter((one) => one.snippet === snippet.name);
  const inserts = formatInserts(snippet);
  const where = published === null ? '' : `The page as it is published at ${published}.`;
  const notes = [where, inserts, formatSearched(snippet), formatLines(snippet)];
  return [...notes, ...listMissed(missed, snippet.findings)].filter(Boolean);
}

/** What nobody could wait for; '' where no line stays open. */
function formatLines({ openLines }: SnippetReport): string {
  if (openLines.length === 0) return '';
  const lines = openLines.length === 1 ? 'A line stays' : 'Lines stay';
  const what = openLines.length === 1 ? 'it' : 'them';
  return `${lines} open to ${joinWords(openLines)}: what comes over ${what} later was not seen.`;
}

/** In what the ways differ in which code is put in; '' where there is but one. */
export function formatInserts({
  renders,
  findings,
}: Pick<SnippetReport, 'renders' | 'findings'>): string {
  const ways = [...new Set(renders.map(({ insert }) => insert))];
  if (ways.length < 2) return '';
  const apart = new Map<string, Set<string>>();
  for (const { id, where, seen } of findings) {
    const own = ways.filter((way) => seen.some(({ insert }) => insert === way));
    if (own.length === 0 || own.length === ways.length) continue;
    const key = joinWords(own);
    apart.set(key, (apart.get(key) ?? new Set()).add(`${id} (line ${where.line})`));
  }
  if (apart.size === 0) return `Put in ${joinWords(ways)}, it is found to be the same.`;
  const parts = [...apart].map(([key, ids]) => `only ${key}: ${joinWords([...ids])}`);
  return `Put in ${joinWords(ways)}, it differs: ${parts.join('; ')}.`;
}

/** What was tried between the widths that were rendered, and why not all of it; '' where there is nothing to say. */
export function formatSearched({ searched }: Pick<SnippetReport, 'searched'>): string {
  const { windows, tried, why } = searched;
  const where = joinWords(windows.map(({ from, to }) => `from ${from} to ${to} px`));
  const done = tried > 0 ? `Windows ${where} searched, ${tried} of them tried.` : '';
  const missed = why
    ? `Between the widths shown ${tried > 0 ? 'not everything' : 'nothing'} was tried: ${why}.`
    : '';
  return [done, missed].filter(Boolean).join(' ');
}

/** Why a snippet has its verdict, in a sentence; '' where nothing was found. */
export function getMainReason(
  snippet: SnippetReport,
  { notJudged }: Pick<RunDocument, 'notJudged'>,
): string {
  const counting = snippet.findings.find(counts);
  if (snippet.verdict !== 'unsure' && counting) return counting.brief;
  const missed = notJudged.find((one) => one.snippet === snippet.name);
  if (snippet.verdict === 'unsure' && missed) return `not all was seen: ${missed.why}`;
  return counting?.brief ?? '';
}

/** The verdict of a snippet, what was found in it, and why, on a line. */
export function formatVerdict(snippet: SnippetReport, document: RunDocument): string {
  const reason = getMainReason(snippet, document);
  const counted = formatCounts(snippet);
  return `${snippet.verdict.toUpperCase()}${counted}${reason && `: ${reason}`}`;
}

const ORDER: Record<Verdict, number> = { hold: 0, unsure: 1, clear: 2 };

/** Snippets, the worst first. */
export function orderByWorst(snippets: readonly SnippetReport[]): SnippetReport[] {
  const weigh = ({ verdict, findings }: SnippetReport) => {
    const { blocker, concern, advice } = countLevels(findings);
    return [ORDER[verdict], -blocker, -concern, -advice];
  };
  return [...snippets].sort((a, b) => {
    const [x, y] = [weigh(a), weigh(b)];
    return x.map((n, i) => n - y[i]!).find((n) => n !== 0) ?? 0;
  });
}

/** What could not be judged, a sentence a reason; of what is told all the same, that there may be more, or that it is not confirmed. */
export function listMissed(
  missed: RunDocument['notJudged'],
  findings: readonly Finding[],
): string[] {
  const byReason = new Map<string, { head: string; ids: string[]; why: string }>();
  for (const { id, why } of missed) {
    const head = getHead(findings.filter((one) => one.id === id));
    const known = byReason.get(head + why);
    if (known) known.ids.push(id);
    else byReason.set(head + why, { head, ids: [id], why });
  }
  return [...byReason.values()].map(({ head, ids, why }) => `${head}: ${shorten(ids)} (${why}).`);
}

function getHead(told: readonly Finding[]): string {
  if (told.length === 0) return 'Not judged';
  return told.every(({ confirmed }) => confirmed) ? 'Judged in part' : 'Not confirmed';
}

/** More names than these are told by their number: all of them stand in the run document. */
const MOST_NAMES = 24;

function shorten(ids: readonly string[]): string {
  return ids.length <= MOST_NAMES
    ? joinWords(ids)
    : `${ids.length} findings, such as ${joinWords(ids.slice(0, 3))}`;
}
