import { getMade, judgesPublished, prepareRenders, type Check, type Fact } from '../check.js';
import { markBounds, type Engines } from '../engines.js';
import type { Baseline, Evidence } from '../evidence.js';
import { flatMap } from '../lists.js';
import type { House, Level } from '../house/house.js';
import type { Markup } from '../markup/markup.js';
import type { Finding, NotJudged, SnippetReport } from '../run.js';
import type { Snippet } from '../snippet.js';
import { compareLevels, getVerdict, isHeldOn } from '../verdict.js';
import { decapitalize } from '../words/list.js';
import { composeMend } from '../mend/compose.js';
import type { Intent } from '../mend/intent.js';
import { getPlace } from '../render.js';
import { listFrameFits } from '../measure/frame-fit.js';
import { listContacts } from '../measure/contacts.js';
import { reportLoads } from '../measure/loads.js';
import { listOpenLines } from '../measure/open-lines.js';
import { attemptCheck, explainFaults, judgeRenders, runCheck, type CheckFaults } from './checks.js';
import { getExcerpt } from './excerpt.js';
import { gatherCauses, listCauses, mendAll, numberCauses, type Telling } from './causes.js';
import { listFindingKeys } from './keys.js';
import { describeCondition, describeLater, describeSlot, judgeLater } from './later.js';
import { getMarks } from './marks.js';
import { getFitsFrom, listFits, reportRenders, reportSearched } from './renders.js';
import { silenceExplained, type JudgedFact } from './silence.js';
import { explainNotJudged } from './unseen.js';

/** All there is to judge a snippet by. Without renders only the markup is read. */
export interface Judged {
  snippet: Snippet;
  markup: Markup;
  house: House;
  evidence: readonly Evidence[];
  baselines: ReadonlyMap<string, Baseline>;
  checks: readonly Check[];
  /** All checks that there are, where not all are run. */
  known?: readonly Check[];
  /** The day, `YYYY-MM-DD`, that waivers are held against. */
  today: string;
  /** Why nothing was rendered, where nothing was meant to be; null after a render. */
  markupOnly: string | null;
  /** What engines can tell; left out: those that there are. */
  engines?: Engines;
  /** Findings of an earlier run by their keys: what is no heavier than there is left out. */
  before?: ReadonlyMap<string, Level>;
}

/** A report, but for what it is known by. */
export type JudgedReport = Omit<SnippetReport, 'hash'>;

/** What was found, and what could not be looked for. */
export interface Judgement {
  report: JudgedReport;
  notJudged: NotJudged[];
  /** Checks that broke down, with what they threw: a fault of Mivket's own. */
  broken: { id: string; error: unknown }[];
}

/** From markup and evidence to findings and a verdict. Pure: the same input, the same answer. */
export function judgeSnippet(given: Judged): Judgement {
  const judged = { ...given, evidence: markBounds(given.evidence, given, given) };
  const wanted = listWanted(judged);
  const { published } = judged.snippet;
  const checks = published ? wanted.filter(judgesPublished) : wanted;
  const faults: CheckFaults = new Map();
  const prepared = prepareRenders(judged.evidence, judged.baselines);
  const facts = flatMap(checks, (check) =>
    attemptCheck(check, faults, () => runCheck(check, judged, prepared)),
  );
  const { later, over } = judgeLater(checks, prepared, facts, (check, renders) =>
    attemptCheck(check, faults, () => judgeRenders(check, judged, renders)),
  );
  const slots = new Set(judged.evidence.map((one) => getPlace(one).slot));
  const lasting = facts.filter((one) => !over.includes(one));
  const told = flatMap([...silenceExplained(lasting), ...later], (one) =>
    attemptCheck(one.check, faults, () => [tell(one, judged, slots)]),
  );
  const all = addKeys(given.snippet.text, told);
  const kept = all.filter(({ key, finding }) => !isKnown(given.before?.get(key), finding.level));
  const numbers = numberCauses(judged.markup, kept);
  const groups = gatherCauses(kept, numbers);
  const findings = kept.map((one, i) => toFinding(one, numbers[i]!));
  const notJudged = flatMap(checks, (check) =>
    explainNotJudged(check, judged, explainFaults(faults, check)),
  );
  const unseen = new Set(notJudged.map(({ id }) => id));
  const blind = checks.some((check) => isBlind(check, judged, unseen));
  for (const { id } of wanted.filter((check) => !checks.includes(check)))
    notJudged.push({ id, why: AS_PUBLISHED, snippet: judged.snippet.name });
  const { snippet, markup, evidence } = judged;
  const fits = listFits(
    evidence,
    flatMap(all, ({ finding }) => [finding]),
    { checks, known: judged.known ?? checks },
  );
  const marks = getMarks(markup, evidence, findings, kept);
  const report: JudgedReport = {
    name: snippet.name,
    path: snippet.path,
    published: published?.address ?? null,
    line: snippet.line ?? null,
    text: snippet.text,
    verdict: getVerdict(findings, judged.house.holdOn, blind),
    fitsFrom: getFitsFrom(evidence, fits),
    searched: reportSearched(evidence),
    frameFit: listFrameFits(markup, evidence),
    renders: reportRenders(markup, evidence, findings, { marks, fits }),
    findings,
    known: all.length - kept.length,
    causes: listCauses(markup, groups),
    mended: mendAll(markup, groups),
    contacts: listContacts(evidence, judged.house.origin),
    loads: reportLoads(markup, evidence, judged.house.origin),
    openLines: listOpenLines(evidence),
    gaps: flatMap(evidence, reportGaps),
  };
  const broken = [...faults].map(([id, { error }]) => ({ id, error }));
  return { report, notJudged, broken };
}

/** A snippet that could not be judged at all: nothing is told of it but that. */
export function leaveUnjudged(
  { snippet, checks }: Pick<Judged, 'snippet' | 'checks'>,
  why: string,
): Judgement {
  const { name, path, published, line, text } = snippet;
  const report: JudgedReport = {
    ...{ name, path, published: published?.address ?? null, line: line ?? null, text },
    verdict: 'unsure',
    fitsFrom: null,
    searched: { windows: [], tried: 0, why },
    ...{ frameFit: [], renders: [], findings: [], known: 0, causes: [], mended: null },
    ...{ contacts: [], loads: null, openLines: [], gaps: [] },
  };
  const notJudged = checks.map(({ id }) => ({ id, why, snippet: name }));
  return { report, notJudged, broken: [] };
}

/** The checks that the house has not switched off. */
function listWanted({ checks, house }: Judged): readonly Check[] {
  const off = Object.keys(house.levels).filter((id) => house.levels[id] === 'off');
  return off.length === 0 ? checks : checks.filter(({ id }) => !off.includes(id));
}

/** Why what is about a paste and its place says nothing of a page that is there already. */
const AS_PUBLISHED = 'the page is looked at where it stands, with nothing to hold it against';

/** Heavier ones first, then as they stand in the source. */
function compareFindings(a: Telling['finding'], b: Telling['finding']): number {
  return (
    compareLevels(a.level, b.level) || a.where.offset - b.where.offset || a.id.localeCompare(b.id)
  );
}

function toFinding({ key, finding: { id, ...rest } }: Keyed, cause: number): Finding {
  return { id, key, ...rest, cause };
}

type Keyed = Telling & { key: string };

/** In their order, each with what it is known by. */
function addKeys(text: string, told: Telling[]): Keyed[] {
  told.sort((a, b) => compareFindings(a.finding, b.finding));
  const keys = listFindingKeys(
    text,
    told.map(({ finding, fact }) => ({ id: finding.id, fact })),
  );
  return told.map((one, i) => ({ ...one, key: keys[i]! }));
}

function isKnown(before: Level | undefined, level: Level): boolean {
  return before !== undefined && compareLevels(before, level) <= 0;
}

/** @param slots that the snippet was looked at in */
function tell(
  { check, fact, level, waiver }: JudgedFact,
  judged: Judged,
  slots: ReadonlySet<string>,
): Telling {
  const { markup } = judged;
  const intents = check.mend?.(fact.data, fact, markup) ?? null;
  const made = getMade(fact.culprit);
  const { message, notice, cure } = check.says(fact.data, fact);
  const finding: Telling['finding'] = {
    id: check.id,
    level,
    brief: check.brief?.(fact.data, fact) ?? decapitalize(check.title),
    message: `${message}${describeSlot(fact, slots)}${describeCondition(fact.seen)}${describeLater(fact.seen)}`,
    ...{ notice, cure },
    standard: check.standard,
    confirmed: isConfirmed(check, fact, judged),
    where: {
      ...markup.place(fact.where),
      ...(made !== undefined && { made }),
    },
    excerpt: getExcerpt(judged.snippet.text, fact.where),
    seen: fact.seen.map((seen) => ({ ...seen, what: check.measures?.(seen.measured) ?? '' })),
    ranges: (fact.ranges ?? []).map(({ from, to, near, slot = '' }) => ({ from, to, near, slot })),
    mend: composeMend(markup, intents),
    ask: findAsked(intents),
    waiver,
  };
  return { check, fact, finding, intents };
}

function findAsked(intents: readonly Intent[] | null): Finding['ask'] {
  const asked = intents?.find((one) => one.do === 'ask');
  if (!asked) return null;
  const { do: _, ...ask } = asked;
  return ask;
}

/** Whether nothing that was not looked at could still overturn it. */
function isConfirmed({ needs }: Check, fact: Fact<unknown>, { evidence }: Judged): boolean {
  const isLooked = fact.seen.length > 0 || evidence.length > 0 || needs.kinds.length === 0;
  return isLooked && !fact.doubtful;
}

/** A check that did not judge and could have held the snippet: there a blocker could hide. */
function isBlind(check: Check, judged: Judged, unseen: ReadonlySet<string>): boolean {
  const level = judged.house.levels[check.id] ?? check.level;
  if (level === 'off' || !isHeldOn(level, judged.house.holdOn)) return false;
  return unseen.has(check.id);
}

function reportGaps(evidence: Evidence): SnippetReport['gaps'] {
  const { slot, viewport, variant } = getPlace(evidence);
  return evidence.gaps.map((gap) => ({ ...gap, slot, viewport, variant }));
}
