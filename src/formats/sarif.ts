import type {
  Artifact,
  Fix,
  Location,
  Log,
  Notification,
  Region,
  ReportingConfiguration,
  ReportingDescriptor,
  Result,
} from 'sarif';
import { getLineStarts, getSpot } from '../core/markup/lines.js';
import type { CheckReport, Finding, RunDocument, SnippetReport } from '../core/run.js';
import { flatMap, groupBy } from '../core/lists.js';
import { counts } from '../core/verdict.js';
import { cleanLine } from './clean.js';
import { formatJson } from './json.js';
import { formatWaiver } from './measured.js';

const LEVELS = { blocker: 'error', concern: 'warning', advice: 'note', off: 'none' } as const;

/** The run as SARIF 2.1.0 (OASIS): a result for each finding, what was not judged as notifications. */
export function formatSarif(document: RunDocument): string {
  const { tool, checks, snippets, startedAt, durationMs, since } = document;
  const ended = new Date(Date.parse(startedAt) + durationMs).toISOString();
  const artifacts = listArtifacts(snippets);
  const log: Log = {
    $schema:
      'https://docs.oasis-open.org/sarif/sarif/v2.1.0/errata01/os/schemas/sarif-schema-2.1.0.json',
    version: '2.1.0',
    runs: [
      {
        tool: {
          driver: {
            name: 'Mivket',
            semanticVersion: tool.version,
            rules: checks.map(toRule),
          },
        },
        columnKind: 'utf16CodeUnits',
        invocations: [
          {
            executionSuccessful: true,
            startTimeUtc: startedAt,
            endTimeUtc: ended,
            toolExecutionNotifications: listNotifications(document),
          },
        ],
        artifacts: [...artifacts.values()],
        results: flatMap(snippets, (snippet) =>
          snippet.findings.map((finding) => ({
            ...toResult(finding, snippet, checks, [...artifacts.keys()]),
            ...(since && { baselineState: 'new' as const }),
          })),
        ),
      },
    ],
  };
  return formatJson(log);
}

function toRule({
  id,
  title,
  subject,
  level,
  decided,
  standard,
  ran,
}: CheckReport): ReportingDescriptor {
  const configuration: ReportingConfiguration = { enabled: ran, level: LEVELS[level] };
  const help = `${decided}${standard ? ` Standard: ${standard}` : ''}`;
  return {
    id,
    shortDescription: { text: `${title}.` },
    fullDescription: { text: decided },
    help: { text: help },
    defaultConfiguration: configuration,
    properties: { tags: [subject] },
  };
}

/** Files, one each, whatever number of snippets is in it; what is in no file comes with its text. */
function listArtifacts(snippets: readonly SnippetReport[]): Map<string, Artifact> {
  const artifacts = new Map<string, Artifact>();
  for (const snippet of snippets) {
    const uri = getUri(snippet);
    if (artifacts.has(uri)) continue;
    const whole = snippet.line === null;
    artifacts.set(uri, {
      location: { uri },
      ...(whole && { hashes: { 'sha-256': snippet.hash }, sourceLanguage: 'html' }),
      ...(whole && snippet.path === null && { contents: { text: snippet.text } }),
    });
  }
  return artifacts;
}

/** A reference (RFC 3986) to where a snippet came from. */
function getUri({ path, name, published }: SnippetReport): string {
  if (published !== null) return new URL(published).href;
  if (path === null) return encodeURIComponent(name);
  const parts = path.replaceAll('\\', '/').split('/').map(encodeURIComponent);
  const encoded = parts.join('/').replace(/^([a-z])%3A/i, '/$1:');
  return encoded.startsWith('/') ? `file://${encoded}` : encoded;
}

function toResult(
  finding: Finding,
  snippet: SnippetReport,
  checks: readonly CheckReport[],
  artifacts: readonly string[],
): Result {
  const { id, key, level, message, notice, cure, confirmed, seen, waiver } = finding;
  const uri = getUri(snippet);
  return {
    ruleId: id,
    ruleIndex: checks.findIndex((check) => check.id === id),
    level: LEVELS[level],
    message: { text: cleanLine(`${message} ${notice} ${cure}`) },
    locations: [toLocation(finding, snippet, { uri, index: artifacts.indexOf(uri) })],
    partialFingerprints: { 'mivketFinding/v1': key },
    suppressions:
      waiver && counts({ waiver }) === false
        ? [
            {
              kind: 'external',
              status: 'accepted',
              justification: cleanLine(formatWaiver(waiver)),
            },
          ]
        : [],
    ...toFixes(finding, snippet, uri),
    properties: {
      ...{ level, confirmed, snippet: snippet.name },
      seen: seen.map(({ slot, insert, width, what }) => ({ slot, insert, width, what })),
    },
  };
}

function toLocation(
  { where, excerpt }: Finding,
  snippet: SnippetReport,
  artifactLocation: { uri: string; index: number },
): Location {
  const { line, column, endLine, endColumn, made } = where;
  const region: Region = {
    ...{ startLine: line, startColumn: column, endLine, endColumn },
    ...(snippet.line === null && toOffsets(where)),
    snippet: { text: excerpt },
  };
  return {
    physicalLocation: { artifactLocation, region },
    ...(made !== undefined && { logicalLocations: [{ name: made, kind: 'element' }] }),
  };
}

function toOffsets({ offset, endOffset }: { offset: number; endOffset: number }) {
  return { charOffset: offset, charLength: endOffset - offset };
}

/** The cure as edits of the file; of what is taken out of a document none, since its text there may be written otherwise. */
function toFixes(
  { mend, cure }: Finding,
  { text, line }: SnippetReport,
  uri: string,
): { fixes?: Fix[] } {
  if (mend === null || mend.length === 0 || line !== null) return {};
  const starts = getLineStarts(text);
  const replacements = mend.map((edit) => {
    const spot = getSpot(starts, edit);
    return {
      deletedRegion: {
        ...{ startLine: spot.line, startColumn: spot.column },
        ...{ endLine: spot.endLine, endColumn: spot.endColumn },
        ...toOffsets(edit),
      },
      insertedContent: { text: edit.text },
    };
  });
  const artifactChanges = [{ artifactLocation: { uri }, replacements }];
  return { fixes: [{ description: { text: cure }, artifactChanges }] };
}

/** What was not judged, a notification for each reason. */
function listNotifications({ notJudged, snippets }: RunDocument): Notification[] {
  const byReason = groupBy(notJudged, ({ snippet, why }) => JSON.stringify([snippet, why]));
  return [...byReason.values()].map(([first, ...rest]) => {
    const snippet = snippets.find(({ name }) => name === first!.snippet);
    return {
      level: 'warning',
      message: { text: cleanLine(`Not judged in ${first!.snippet}: ${first!.why}.`) },
      ...(snippet && {
        locations: [{ physicalLocation: { artifactLocation: { uri: getUri(snippet) } } }],
      }),
      properties: { findings: [first!, ...rest].map(({ id }) => id) },
    };
  });
}
