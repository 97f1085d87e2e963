import { create } from 'xmlbuilder2';
import type { CheckReport, Finding, RunDocument, SnippetReport } from '../core/run.js';
import { counts, isHeldOn } from '../core/verdict.js';
import { flatMap } from '../core/lists.js';
import { cleanLine } from './clean.js';

/** How one finding was looked for in one snippet came out. */
interface Case {
  id: string;
  subject: string;
  outcome: 'passed' | 'failure' | 'error' | 'skipped';
  /** The first line of what is said. */
  brief: string;
  text: string;
}

/**
 * Test results as builds read them (JUnit's XML): a suite for each snippet, a case for each finding that was looked
 * for. What holds the snippet is a failure, what could have held it and was not judged an error; the rest passed, with
 * what there is to say.
 */
export function formatJunit(document: RunDocument): string {
  const { startedAt, durationMs, snippets } = document;
  const suites = snippets.map((snippet) => ({ snippet, cases: listCases(snippet, document) }));
  const options = { version: '1.0', encoding: 'UTF-8', invalidCharReplacement: '\ufffd' };
  const root = create(options).ele('testsuites', {
    name: 'mivket',
    ...count(flatMap(suites, ({ cases }) => cases)),
    time: (durationMs / 1000).toFixed(3),
    timestamp: startedAt,
  });
  for (const { snippet, cases } of suites) {
    const suite = root.ele('testsuite', { name: cleanLine(snippet.name), ...count(cases) });
    for (const one of cases) addCase(suite, one, snippet);
  }
  return `${root.end({ prettyPrint: true })}\n`;
}

function addCase(
  suite: ReturnType<typeof create>,
  { id, subject, outcome, brief, text }: Case,
  { name, path }: SnippetReport,
): void {
  const file = path === null ? {} : { file: cleanLine(path) };
  const element = suite.ele('testcase', {
    name: id,
    classname: `${cleanLine(name)}.${subject}`,
    ...file,
  });
  if (outcome === 'passed' && text !== '') element.ele('system-out').txt(text);
  if (outcome === 'skipped') element.ele('skipped', { message: brief });
  if (outcome === 'failure' || outcome === 'error')
    element.ele(outcome, { message: brief, type: id }).txt(text);
}

function listCases(snippet: SnippetReport, document: RunDocument): Case[] {
  return document.checks.filter(({ ran }) => ran).map((check) => toCase(check, snippet, document));
}

function toCase(
  check: CheckReport,
  snippet: SnippetReport,
  { notJudged, house }: RunDocument,
): Case {
  const { id, subject, level } = check;
  const found = snippet.findings.filter((one) => one.id === id);
  const holding = found.filter((one) => counts(one) && isHeldOn(one.level, house.holdOn));
  const missed = notJudged.find((one) => one.id === id && one.snippet === snippet.name);
  const said = { id, subject, text: found.map(formatFound).join('\n') };
  if (holding.length > 0)
    return { ...said, outcome: 'failure', brief: cleanLine(holding[0]!.message) };
  const why = missed ? `Not judged: ${cleanLine(missed.why)}.` : '';
  const holds = level !== 'off' && isHeldOn(level, house.holdOn);
  if (missed && holds && snippet.verdict === 'unsure')
    return { ...said, outcome: 'error', brief: why };
  if (found.length > 0 && !found.some(counts))
    return { ...said, outcome: 'skipped', brief: `Waived: ${cleanLine(found[0]!.message)}` };
  return missed && found.length === 0
    ? { ...said, outcome: 'skipped', brief: why }
    : { ...said, outcome: 'passed', brief: '' };
}

function formatFound({ level, where, message, notice, cure }: Finding): string {
  return cleanLine(`${level}, line ${where.line}: ${message} ${notice} ${cure}`);
}

function count(cases: readonly Case[]) {
  const of = (outcome: Case['outcome']) => cases.filter((one) => one.outcome === outcome).length;
  return {
    tests: cases.length,
    failures: of('failure'),
    errors: of('error'),
    skipped: of('skipped'),
  };
}
