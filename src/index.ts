/** The library: what may be relied on from outside. Everything else is the tool's own business. */

// Auditing.
export { audit } from './run/audit.js';
export type { AuditOptions, AuditRun } from './run/audit.js';
export { compare, compareKept } from './run/compare.js';
export type { KeptComparison } from './run/compare.js';
export type { Comparison } from './core/compare/candidates.js';
export type { RunComparison } from './core/compare/runs.js';
export { checkLive } from './run/check-live.js';
export type { CheckedLive, LiveRequest } from './run/check-live.js';
export type { Cleared, LiveDocument } from './core/live/live.js';
export { clearTo, readLedger } from './run/ledger.js';
export { holdAgainst } from './core/ledger/held.js';
export type { HeldSnippet } from './core/ledger/held.js';
export type { LedgerEntry } from './core/ledger/entry.js';
export { mend } from './run/mend.js';
export type { Mended, MendOptions } from './run/mend.js';
export { readAnswers } from './core/mend/answers.js';
export type { Reply } from './core/mend/answers.js';
export { listQuestions } from './core/mend/questions.js';
export type { OpenQuestion } from './core/mend/questions.js';
export type { MendedSnippet, TakenBack } from './core/mend/work.js';
export type { Proof } from './core/mend/proof.js';
export type { AuditEvent } from './run/events.js';
export type { AuditRequest, Called } from './run/request.js';
export { ToolError } from './core/errors.js';
export type { ErrorCode } from './core/errors.js';

// The house: what the publisher has laid down.
export { getDefaultHouse, readHouse } from './core/house/read.js';
export { loadHouse } from './run/house-file.js';
export type { LoadedHouse } from './run/house-file.js';
export type { House, Level, Slot, SlotRange } from './core/house/house.js';
export type { HouseFile } from './core/house/schema.js';

// The run document: what an audit gives.
export { runSchema } from './core/run.js';
export type {
  Counts,
  Finding,
  HouseReport,
  NotJudged,
  RenderReport,
  RunDocument,
  SnippetReport,
  Verdict,
} from './core/run.js';

// Snippets and their markup.
export { applyEdits } from './core/mend/apply.js';
export { readMarkup } from './core/markup/markup.js';
export type { Markup, MarkupAttribute, MarkupElement } from './core/markup/markup.js';
export type { Edit, Spot, Published, Snippet, Span } from './core/snippet.js';

// Checks: those that there are, and what one is made of.
export { CHECKS } from './checks/index.js';
export { defineCheck, makeSeen } from './core/check.js';
export type {
  Case,
  Check,
  CheckDefinition,
  Culprit,
  Example,
  Explains,
  Fact,
  Needs,
  Range,
  RenderOf,
  Seen,
  Words,
} from './core/check.js';
export type { Intent } from './core/mend/intent.js';
export { judgeSnippet } from './core/judge/judge.js';
export type { Judged, JudgedReport, Judgement } from './core/judge/judge.js';

// Evidence: what a render measures.
export { planRenders } from './core/plan.js';
export type { PlanWish } from './core/plan.js';
export type {
  Baseline,
  Box,
  ElementFact,
  ElementStyle,
  Evidence,
  FactKind,
  Facts,
  FrameFact,
  Gap,
  Hang,
  HostPart,
  HostPartFact,
  MediaFact,
  PageFact,
  PageWidth,
  PictureFact,
  Refusal,
  RefusalKind,
  RequestFact,
  ScriptFact,
  Shot,
  SlotFact,
  Source,
} from './core/evidence.js';
export type { EngineName, Insert, Place, Render, Variant, Viewport } from './core/render.js';
