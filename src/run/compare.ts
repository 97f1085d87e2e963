import { comparePictures, findOtherwise } from '../core/compare/pictures.js';
import { compareCandidates, type Comparison } from '../core/compare/candidates.js';
import { compareRuns, type RunComparison } from '../core/compare/runs.js';
import type { Faults } from './faults.js';
import { audit, type AuditOptions } from './audit.js';
import { getShotFolder } from './kept-run.js';
import { inShotFolder, readRasters } from './shots.js';
import { rejudge, type RejudgeRequest } from './rejudge.js';
import type { AuditRequest, Called } from './request.js';

/**
 * Audits candidates for one place, and holds them against each other. The pictures are in the folder `shots` of the
 * request; without one they are gone afterwards.
 * @throws ToolError as `audit` does
 */
export function compare(request: AuditRequest, options: AuditOptions = {}): Promise<Comparison> {
  return inShotFolder(request.shots, (shots) => compareIn(shots, request, options));
}

async function compareIn(
  shots: string,
  request: AuditRequest,
  options: AuditOptions,
): Promise<Comparison> {
  const run = audit({ ...request, shots }, options);
  const scriptTimes = new Map<string, number | null>();
  for await (const event of run)
    if (event.type === 'judged') scriptTimes.set(event.snippet, event.scriptTime);
  const document = await run.document;
  const pictures = await comparePictures(document.snippets, readRasters(shots));
  return compareCandidates(document, { scriptTimes, pictures });
}

/** How two kept runs are held against each other: both are judged by this version, and by one house where one is given. */
export interface KeptComparison extends Omit<RejudgeRequest, 'folder' | 'shown'> {
  before: Pick<RejudgeRequest, 'folder' | 'shown'>;
  after: Pick<RejudgeRequest, 'folder' | 'shown'>;
}

/** What is new, gone and otherwise in a kept run. @throws ToolError `bad-run` */
export async function compareKept(
  { before, after, ...rest }: KeptComparison,
  called: Called,
): Promise<{ comparison: RunComparison; faults: Faults[] }> {
  const [old, now] = [
    await rejudge({ ...rest, ...before }, called),
    await rejudge({ ...rest, ...after }, called),
  ];
  const getRaster = readRasters(getShotFolder(before.folder), getShotFolder(after.folder));
  const looks = await findOtherwise(old.document.snippets, now.document.snippets, getRaster);
  const comparison = compareRuns(
    { name: before.shown, document: old.document },
    { name: after.shown, document: now.document },
    looks,
  );
  return { comparison, faults: [old.faults, now.faults] };
}
