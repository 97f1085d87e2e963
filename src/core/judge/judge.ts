import { selectRenders, type Check, type Fact, type Seen } from '../check.js';
import type { Baseline, Evidence } from '../evidence.js';
import type { House } from '../house/house.js';
import type { Markup } from '../markup/markup.js';
import type { Finding, NotJudged, SnippetReport } from '../run.js';
import type { Snippet } from '../snippet.js';
import { compareLevels, getVerdict } from '../verdict.js';
import { getExcerpt } from './excerpt.js';
import { getMarks, type Mark, type Told } from './marks.js';
import { getFitsFrom, reportRenders } from './renders.js';
import { getPlaceKey, silenceExplained, type JudgedFact } from './silence.js';
import { findWaiver } from './waivers.js';

/** All there is to judge a snippet by. Without renders only the markup is read. */
export interface Judged {
  snippet: Snippet;
  markup: Markup;
  house: House;
  evidence: readonly Evidence[];
  baselines: ReadonlyMap<string, Baseline>;
  checks: readonly Check[];
  /** The day, `YYYY-MM-DD`, that waivers are held against. */
  today: string;
  /** Why nothing was rendered, where nothing was meant to be; null after a render. */
  markupOnly: string | null;
}

/** What was found, and where it shows. */
export interface Judgement {
  report: SnippetReport;
  notJudged: NotJudged[];
  /** The culprits in each render, in the order of the report's renders. */
  marks: Mark[][];
}

/** From markup and evidence to findings and a verdict. Pure: the same input, the same answer. */
export function judgeSnippet(judged: Judged): Judgement {
  const checks = judged.checks.filter((check) => judged.house.levels[check.id] !== 'off');
  const faults = new Map<string, string>();
  const facts = checks.flatMap((check) => attempt(check, faults, () => runCheck(check, judged)));
  const told = silenceExplained(facts).flatMap((one): Told[] =>
    attempt(one.check, faults, () => [{ fact: one.fact, finding: toFinding(one, judged) }]),
  );
  told.sort((a, b) => compareFindings(a.finding, b.finding));
  const findings = told.map(({ finding }) => finding);
  const notJudged = checks.flatMap((check) =>
    explainNotJudged(check, judged, faults.get(check.id) ?? null),
  );
  const blind = checks.some((check) => isBlind(check, judged, notJudged));
  const report: SnippetReport = {
    name: judged.snippet.name,
    path: judged.snippet.path,
    verdict: getVerdict(findings, judged.house.holdOn, blind),
    fitsFrom: getFitsFrom(judged.evidence, findings, checks),
    renders: reportRenders(judged.evidence, findings),
    findings,
    gaps: judged.evidence.flatMap(reportGaps),
  };
  return { report, notJudged, marks: getMarks(judged.markup, judged.evidence, told) };
}

/** Heavier ones first, then as they stand in the source. */
function compareFindings(a: Finding, b: Finding): number {
  return (
    compareLevels(a.level, b.level) || a.where.offset - b.where.offset || a.id.localeCompare(b.id)
  );
}

/** A check that breaks down costs itself only. */
function attempt<T>(check: Check, faults: Map<string, string>, work: () => T[]): T[] {
  try {
    return work();
  } catch (error) {
    const said = error instanceof Error ? error.message : String(error);
    faults.set(check.id, `the check itself broke down (${said.split('\n')[0]})`);
    return [];
  }
}

function runCheck(check: Check, judged: Judged): JudgedFact[] {
  if (judged.evidence.length === 0 && !check.markup) return [];
  const { snippet, markup, house, baselines } = judged;
  const renders = selectRenders(judged.evidence, check.needs);
  const facts = check.judge({ snippet, markup, house, renders, baselines });
  return mergeFacts(facts).map((fact) => {
    const stated = house.levels[check.id] ?? fact.level ?? check.level;
    const level = stated === 'off' ? check.level : stated;
    return { check, fact, level, waiver: findWaiver(house, check.id, snippet, judged.today) };
  });
}

/** The same fault at four widths is one finding seen four times. */
function mergeFacts(facts: readonly Fact<unknown>[]): Fact<unknown>[] {
  const merged = new Map<string, Fact<unknown>>();
  for (const fact of facts) {
    const key = [
      fact.where.offset,
      fact.where.endOffset,
      fact.group ?? fact.subject,
      fact.made,
    ].join(' ');
    const known = merged.get(key);
    if (known) addSeen(known.seen, fact.seen);
    else merged.set(key, { ...fact, seen: [...fact.seen] });
  }
  return [...merged.values()];
}

/** Of two sightings in one render the first, which is the farther, stands for both. */
function addSeen(seen: Seen[], more: readonly Seen[]): void {
  const known = new Set(seen.map(getPlaceKey));
  seen.push(...more.filter((one) => !known.has(getPlaceKey(one))));
}

function toFinding({ check, fact, level, waiver }: JudgedFact, judged: Judged): Finding {
  return {
    id: check.id,
    level,
    ...check.says(fact.data, fact),
    standard: check.standard,
    confirmed: fact.confirmed,
    where: {
      ...judged.markup.place(fact.where),
      ...(fact.made !== undefined && { made: fact.made }),
    },
    excerpt: getExcerpt(judged.snippet.text, fact.where),
    seen: fact.seen,
    ranges: [],
    mend: check.mend?.(fact.data, fact, judged.markup) ?? null,
    waiver,
  };
}

/** What a check could not see: all renders, or those with a gap in what it reads. */
function explainNotJudged(check: Check, judged: Judged, fault: string | null): NotJudged[] {
  const say = (why: string): NotJudged => ({ id: check.id, why, snippet: judged.snippet.name });
  if (fault !== null) return [say(fault)];
  if (judged.markupOnly !== null)
    return check.needs.length > 0 && check.markup !== true ? [say(judged.markupOnly)] : [];
  const why = tellGaps(judged.evidence, check);
  return why === null ? [] : [say(why)];
}

/** The gaps in what a check reads, each reason once with the places it holds for; null where there is none. */
function tellGaps(evidence: readonly Evidence[], check: Check): string | null {
  const places = new Map<string, Set<string>>();
  for (const { gaps, render } of evidence) {
    for (const { kind, why } of gaps) {
      if (!check.needs.includes(kind)) continue;
      const known = places.get(why) ?? new Set();
      places.set(why, known.add(`${render.viewport.name}, ${render.snippets[0]?.slot}`));
    }
  }
  const told = [...places].map(([why, where]) =>
    where.size === evidence.length && where.size > 1 ? why : `${why} (${[...where].join('; ')})`,
  );
  return told.length > 0 ? told.join('; ') : null;
}

/** A check that did not judge and could have held the snippet: there a blocker could hide. */
function isBlind(check: Check, judged: Judged, notJudged: readonly NotJudged[]): boolean {
  const level = judged.house.levels[check.id] ?? check.level;
  if (level === 'off' || compareLevels(level, judged.house.holdOn) > 0) return false;
  return notJudged.some(({ id }) => id === check.id);
}

function reportGaps(evidence: Evidence): SnippetReport['gaps'] {
  const { viewport, snippets } = evidence.render;
  return evidence.gaps.map((gap) => ({
    ...gap,
    slot: snippets[0]?.slot ?? '',
    viewport: viewport.name,
  }));
}
