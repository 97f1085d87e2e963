import { CHECKS } from '../../dist/src/checks/index.js';
import type { Check, Example } from '../../dist/src/core/check.js';
import type { Baseline, Evidence } from '../../dist/src/core/evidence.js';
import { completeHouse } from '../../dist/src/core/house/house.js';
import { houseSchema } from '../../dist/src/core/house/schema.js';
import { judgeSnippet } from '../../dist/src/core/judge/judge.js';
import { readMarkup } from '../../dist/src/core/markup/markup.js';
import { planRenders } from '../../dist/src/core/plan.js';
import type { Finding, SnippetReport } from '../../dist/src/core/run.js';
import { findBrowser } from '../../dist/src/render/browser/find.js';
import { measure } from '../../dist/src/run/measure.js';
import { Renderer } from '../../dist/src/render/renderer.js';
import { HOSTS, startStandIns, type StandIns } from '../../dist/demo/stand-ins/index.js';

/** What the examples of all checks are rendered and judged under. */
export const EXAMPLE_HOUSE = completeHouse(
  houseSchema.parse({
    viewports: [
      { name: 'phone', width: 320 },
      { name: 'desktop', width: 1280 },
    ],
  }),
  null,
);

/** Evidence as it is kept for the contract test. */
export interface Recorded {
  code: string;
  evidence: Evidence[];
  baselines: [string, Baseline][];
}

/** One browser and one stand-in process for a whole file of tests. */
export interface Live {
  renderer: Renderer;
  render(code: string): Promise<Recorded>;
  close(): Promise<void>;
}

export async function openLive(): Promise<Live> {
  const standIns: StandIns = await startStandIns();
  const reroute = Object.fromEntries(HOSTS.map((host) => [host, standIns.origin]));
  const renderer = await Renderer.open({
    program: await findBrowser(),
    house: { ...EXAMPLE_HOUSE, reroute },
    ownPage: null,
    root: null,
    offline: false,
    limits: { load: 8000, settle: 4000, hang: 4000 },
  });
  return {
    renderer,
    async render(code) {
      const snippet = { name: 'example', path: null, text: code };
      const renders = planRenders('example', EXAMPLE_HOUSE, EXAMPLE_HOUSE);
      const ignore = { onMore: () => undefined, onRender: () => undefined };
      const measured = await measure(renderer, snippet, renders, CHECKS, ignore);
      return { code, evidence: measured.evidence, baselines: [...measured.baselines] };
    },
    async close() {
      await renderer.close();
      await standIns.close();
    },
  };
}

/** The findings of all checks on recorded evidence. */
export function judgeRecorded(recorded: Recorded, checks: readonly Check[] = CHECKS): Finding[] {
  return reportRecorded(recorded, checks).findings;
}

/** The whole report on recorded evidence. */
export function reportRecorded(
  { code, evidence, baselines }: Recorded,
  checks: readonly Check[] = CHECKS,
): SnippetReport {
  return judgeSnippet({
    snippet: { name: 'example', path: null, text: code },
    markup: readMarkup(code),
    house: EXAMPLE_HOUSE,
    evidence,
    baselines: new Map(baselines),
    checks,
    today: '2026-01-01',
    markupOnly: null,
  }).report;
}

/** What two renderings of one example must agree in: all but the measures, which may differ by a hair. */
export function getEssence(findings: readonly Finding[]): string[] {
  return findings.map(
    ({ id, level, where, confirmed, seen }) =>
      `${id} ${level} ${where.offset}-${where.endOffset} ${where.made ?? ''} ${confirmed} ${seen.map((one) => one.viewport).join(',')}`,
  );
}

export interface NamedExample extends Example {
  check: Check;
  kind: 'faulty' | 'sound';
  key: string;
}

/** All examples of all checks. */
export function listExamples(): NamedExample[] {
  return CHECKS.flatMap((check) =>
    (['faulty', 'sound'] as const).flatMap((kind) =>
      check.examples[kind].map((example) => ({
        ...example,
        check,
        kind,
        key: `${check.id} ${kind}: ${example.name}`,
      })),
    ),
  );
}
