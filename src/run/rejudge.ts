import { flatMap } from '../core/lists.js';
import { fromPlainHouse, getRenderedPart } from '../core/house/plain.js';
import type { House } from '../core/house/house.js';
import { readMarkup } from '../core/markup/markup.js';
import type { RunDocument } from '../core/run.js';
import { chooseChecks } from './choose.js';
import {
  readBaselines,
  readEvidence,
  readList,
  readStart,
  type KeptList,
  type KeptSnippet,
} from './kept-run.js';
import type { AuditRequest, Called, Earlier } from './request.js';
import { Faults } from './faults.js';
import { Results, type Judging } from './results.js';

/** How a kept run is judged again; `house`: another than that of the run. */
export interface RejudgeRequest extends Pick<
  AuditRequest,
  'only' | 'skip' | 'house' | 'holdOn' | 'newSince'
> {
  /** A folder that a run was kept in, and how it is called in complaints. */
  folder: string;
  shown: string;
}

/** What came of it. */
export interface Rejudged {
  document: RunDocument;
  /** The house that it was judged under. */
  house: House;
  /** Where Mivket itself failed. */
  faults: Faults;
  /** The house given has other slots, viewports or page settings than the run was rendered with. */
  differs: boolean;
}

/** Judges a kept run again, without a browser. @throws ToolError `bad-run` */
export async function rejudge(request: RejudgeRequest, called: Called): Promise<Rejudged> {
  const startedAt = new Date();
  const { folder, shown, holdOn } = request;
  const list = await readList(folder, shown);
  const baselines = await readBaselines(folder, shown);
  const kept = await Promise.all(
    list.snippets.map((one) => readEvidence(folder, shown, { ...one, schema: list.schema })),
  );
  const before = fromPlainHouse(list.house);
  const given = request.house ?? before;
  const faults = new Faults();
  const judging: Judging = {
    house: holdOn ? { ...given, holdOn } : given,
    ownPage: list.ownPage ? '' : null,
    snippets: kept.map(({ snippet }, i) => ({ ...snippet, ...pickNames(list.snippets[i]!) })),
    checks: chooseChecks({ ...request, outage: hasDrill(kept) }, called),
    slots: before.slots.filter(({ name }) => list.slots.includes(name)),
    viewports: flatMap(list.viewports, (name) => findViewport(kept, name)),
    markupOnly: null,
    whole: isAll(before.slots, list.slots) && isAll(before.viewports, list.viewports),
    earlier: await readEarlier(request, called),
    startedAt,
    renderedAt: await readStart(folder, list),
  };
  const results = new Results(judging, faults);
  try {
    for (const [i, { snippet, evidence }] of kept.entries())
      await results.judge(i, { markup: readMarkup(snippet.text, snippet), evidence, baselines });
    return {
      faults,
      house: judging.house,
      document: await results.makeDocument(list.engines),
      differs: getKey(given) !== getKey(before),
    };
  } finally {
    await results.close();
  }
}

/**
 * The run before, judged by this version and by the same house.
 * @throws ToolError `bad-run`
 */
export async function readEarlier(
  { newSince, ...rest }: Omit<RejudgeRequest, 'folder' | 'shown'>,
  called: Called,
): Promise<Earlier | null> {
  if (newSince === undefined) return null;
  const { document } = await rejudge({ ...rest, folder: newSince, shown: newSince }, called);
  const findings = document.snippets.map(
    (one) => [one.name, new Map(one.findings.map(({ key, level }) => [key, level]))] as const,
  );
  return { run: newSince, startedAt: document.renderedAt, findings: new Map(findings) };
}

function isAll(all: readonly { name: string }[], names: readonly string[]): boolean {
  return all.every(({ name }) => names.includes(name));
}

/** Whether hosts were silent in it. */
function hasDrill(kept: readonly KeptSnippet[]): boolean {
  return kept.some(({ evidence }) => evidence.some(({ render }) => render.outage !== undefined));
}

function getKey(house: House): string {
  return JSON.stringify(getRenderedPart(house));
}

function pickNames({ name, path }: KeptList['snippets'][number]) {
  return { name, path };
}

/** A viewport as it was rendered: it may have been asked for by its width alone. */
function findViewport(kept: readonly KeptSnippet[], name: string) {
  const all = flatMap(kept, ({ evidence }) => evidence.map(({ render }) => render.viewport));
  const found = all.find((viewport) => viewport.name === name);
  return found ? [found] : [];
}
