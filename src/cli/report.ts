import type { Check } from '../core/check.js';
import type { NotJudged, RunDocument, SnippetReport } from '../core/run.js';
import type { Snippet } from '../core/snippet.js';
import { countLevels, getOverall } from '../core/verdict.js';
import { formatJson } from '../formats/json.js';
import type { Sight } from '../formats/html/sheet.js';
import type { HouseLook } from '../formats/summary.js';
import { formatText } from '../formats/text.js';
import { makePaint } from './colours.js';
import type { LoadedHouse } from './house-file.js';
import type { AuditOptions, chooseSlots, chooseViewports } from './options.js';
import { getTextWidth, write, type World } from './streams.js';
import { getVersion } from './version.js';

/** All that is settled before the first snippet is looked at. */
export interface Plan extends LoadedHouse {
  options: AuditOptions;
  checks: Check[];
  slots: ReturnType<typeof chooseSlots>;
  viewports: ReturnType<typeof chooseViewports>;
  snippets: Snippet[];
  today: string;
}

/** What was found so far: results in input order, whatever finished first. */
export interface Results {
  reports: (SnippetReport | undefined)[];
  notJudged: NotJudged[][];
  /** Of every snippet, what its renders looked like. */
  sights: Sight[][];
  engines: RunDocument['engines'];
  interrupted: boolean;
}

/** Room for what is to be found. */
export function makeResults(snippets: number): Results {
  const reports = Array.from({ length: snippets }, () => undefined);
  return { reports, notJudged: [], sights: [], engines: [], interrupted: false };
}

/** The run as a document; unsure where a snippet is missing. */
export function makeDocument(plan: Plan, results: Results, startedAt: Date): RunDocument {
  const snippets = results.reports.filter((report) => report !== undefined);
  const verdicts = snippets.map(({ verdict }) => verdict);
  const unfinished = snippets.length < plan.snippets.length;
  return {
    schema: 'mivket-run-1',
    tool: { name: 'mivket', version: getVersion() },
    startedAt: startedAt.toISOString(),
    durationMs: Date.now() - startedAt.getTime(),
    engines: results.engines,
    verdict: getOverall(unfinished ? ['unsure', ...verdicts] : verdicts),
    counts: countLevels(snippets.flatMap(({ findings }) => findings)),
    notJudged: results.notJudged.flat(),
    snippets,
  };
}

const EXIT = { clear: 0, hold: 1, unsure: 3 } as const;

/** The exit code that stands for the verdict. */
export function getExit({ verdict }: RunDocument): number {
  return EXIT[verdict];
}

/** Writes the report to standard output. */
export async function tell(document: RunDocument, plan: Plan, world: World): Promise<void> {
  const { options, snippets } = plan;
  if (options.format === 'json') return write(world.stdout, formatJson(document));
  const text = formatText(document, {
    paint: makePaint(world, options.color),
    width: getTextWidth(world, 120),
    house: getHouseLook(plan),
    texts: new Map(snippets.map(({ name, text }) => [name, text])),
  });
  return write(world.stdout, text);
}

/** What reports say of the house. */
export function getHouseLook({ house, slots, viewports, ownPage }: Plan): HouseLook {
  return { file: house.file, slots, viewports, ownPage: ownPage !== null };
}
