import { flatMap, mapPresent } from '../core/lists.js';
import type { StoodText } from '../core/live/pieces.js';
import { findStanding, type SeenPage } from '../core/live/standing.js';
import type { Cleared, LiveDocument, LivePage } from '../core/live/live.js';
import { readMarkup } from '../core/markup/markup.js';
import type { SnippetReport, Verdict } from '../core/run.js';
import { joinWords } from '../core/words/list.js';
import type { AuditOptions } from './audit.js';
import { Faults } from './faults.js';
import { addLooks } from './live-looks.js';
import type { AuditRequest } from './request.js';
import { getTool } from './version.js';
import { watchPages } from './watch-pages.js';

/** What is looked for, and where: the snippets of the request are published pages. Pictures are taken where there is a folder for shots. */
export interface LiveRequest extends Omit<AuditRequest, 'standing'> {
  cleared: readonly Cleared[];
}

/** What became of it, with what broke down on the way. */
export interface CheckedLive {
  document: LiveDocument;
  faults: Faults;
}

/**
 * Looks whether what was cleared is what is published: there, once, unchanged, and doing what it did.
 * @throws ToolError where no page can be had at all
 */
export async function checkLive(
  { cleared, ...request }: LiveRequest,
  options: AuditOptions = {},
): Promise<CheckedLive> {
  const startedAt = new Date().toISOString();
  const faults = new Faults();
  const { shots } = request;
  const show = shots === undefined ? [] : cleared;
  const seen = await watchPages({ ...request, standing: { show } }, options, faults);
  const known = request.snippets.map(({ name, published }): LivePage => {
    const report = seen.document.snippets.find((one) => one.name === name);
    const asked = published?.address ?? name;
    if (!report?.published)
      return { asked, address: null, why: 'it could not be had', standings: [] };
    return lookAtPage(asked, report, seen.stood.get(name) ?? [], cleared);
  });
  const pages =
    shots === undefined || options.signal?.aborted
      ? known
      : await addLooks(known, { ...request, shots, cleared }, seen.pieces, options, faults).catch(
          (error: unknown) => {
            // Without its pictures all else holds.
            faults.add(error, 'the pictures');
            return known;
          },
        );
  const missing = listNowhere(pages, cleared);
  const verdict = getLiveVerdict(pages, missing);
  return {
    faults,
    document: { schema: 'mivket-live-1', tool: getTool(), startedAt, verdict, pages, missing },
  };
}

function lookAtPage(
  asked: string,
  report: SnippetReport,
  loads: readonly (readonly StoodText[])[],
  cleared: readonly Cleared[],
): LivePage {
  const address = report.published!;
  const page: SeenPage = {
    address,
    sent: readMarkup(report.text),
    stood: loads.map((texts) =>
      texts.map(({ text, inFrame }) => ({ markup: readMarkup(text), inFrame })),
    ),
    report,
  };
  const unseen = new Set(
    mapPresent(report.gaps, ({ kind, why }) => (kind === 'page' ? why : null)),
  );
  if (loads.flat().length === 0 && unseen.size === 0) unseen.add(UNREAD);
  const standings = cleared
    .map((one) => findStanding(one, page))
    .filter(({ state }) => state !== 'missing');
  return {
    ...{ asked, address },
    why: unseen.size > 0 ? joinWords([...unseen]) : null,
    standings,
  };
}

const UNREAD = 'what stands in it could not be read';

/** Cleared, and on none of the pages; not known where one could not be looked at. */
function listNowhere(pages: readonly LivePage[], cleared: readonly Cleared[]): string[] {
  const found = new Set(flatMap(pages, ({ standings }) => standings.map(({ name }) => name)));
  return cleared.map(({ name }) => name).filter((name) => !found.has(name));
}

function getLiveVerdict(pages: readonly LivePage[], missing: readonly string[]): Verdict {
  const all = flatMap(pages, ({ standings }) => standings);
  const isHeld = all.some(
    ({ state, behaviour }) =>
      state !== 'as-cleared' ||
      (behaviour !== null && behaviour.newFindings.length + behaviour.newHosts.length > 0),
  );
  if (isHeld) return 'hold';
  if (pages.some(({ why }) => why !== null)) return 'unsure';
  return missing.length > 0 ? 'hold' : 'clear';
}
