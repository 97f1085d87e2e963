import { CHECKS } from '../../dist/src/checks/index.js';
import type { Check, Example } from '../../dist/src/core/check.js';
import type { Baseline, Evidence } from '../../dist/src/core/evidence.js';
import { completeHouse, type House } from '../../dist/src/core/house/house.js';
import { houseSchema } from '../../dist/src/core/house/schema.js';
import { judgeSnippet, type JudgedReport } from '../../dist/src/core/judge/judge.js';
import { readMarkup } from '../../dist/src/core/markup/markup.js';
import { planRenders } from '../../dist/src/core/plan.js';
import type { Finding } from '../../dist/src/core/run.js';
import { findBrowser } from '../../dist/src/render/browser/find.js';
import { measure } from '../../dist/src/run/measure.js';
import { Renderer } from '../../dist/src/render/renderer.js';
import { HOSTS, startStandIns, type StandIns } from '../../dist/demo/stand-ins/index.js';

type Under = Example['under'];

/** What an example is rendered and judged under. */
export function getHouse(under: Under = {}): House {
  const viewports = [
    { name: 'phone', width: 320 },
    { name: 'desktop', width: 1280 },
  ];
  return completeHouse(houseSchema.parse({ viewports, ...under }), null);
}

/** What the examples are under that say nothing of it. */
export const EXAMPLE_HOUSE = getHouse();

/** Evidence as it is kept for the contract test. */
export interface Recorded {
  code: string;
  under?: Under;
  evidence: Evidence[];
  baselines: [string, Baseline][];
}

/** One browser and one stand-in process for a whole file of tests. */
export interface Live {
  renderer: Renderer;
  render(code: string, under?: Under): Promise<Recorded>;
  close(): Promise<void>;
}

export async function openLive(): Promise<Live> {
  const standIns: StandIns = await startStandIns();
  const reroute = Object.fromEntries(HOSTS.map((host) => [host, standIns.origin]));
  const program = await findBrowser();
  const renderers = new Map<string, Promise<Renderer>>();
  const open = (under: Under) =>
    Renderer.open({
      program,
      house: { ...getHouse(under), reroute },
      ownPage: under?.page ?? null,
      root: null,
      offline: false,
      limits: { load: 8000, settle: 4000, hang: 4000 },
    });
  const find = (under: Under) => {
    const key = JSON.stringify(under ?? {});
    if (!renderers.has(key)) renderers.set(key, open(under));
    return renderers.get(key)!;
  };
  return {
    renderer: await find(undefined),
    async render(code, under) {
      const snippet = { name: 'example', path: null, text: code };
      const house = getHouse(under);
      const renders = planRenders('example', house, house);
      const ignore = { onMore: () => undefined, onRender: () => undefined };
      const measured = await measure(
        await find(under),
        snippet,
        renders,
        { checks: CHECKS, house },
        ignore,
      );
      const { evidence, baselines } = measured;
      return { code, ...(under && { under }), evidence, baselines: [...baselines] };
    },
    async close() {
      for (const renderer of renderers.values()) await (await renderer).close();
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
  { code, under, evidence, baselines }: Recorded,
  checks: readonly Check[] = CHECKS,
): JudgedReport {
  return judgeSnippet({
    snippet: { name: 'example', path: null, text: code },
    markup: readMarkup(code),
    house: getHouse(under),
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
