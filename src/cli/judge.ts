import { join, resolve } from 'node:path';
import { fromPlainHouse, getRenderedPart } from '../core/house/plain.js';
import { loadHouse, type LoadedHouse } from './house-file.js';
import { judge as judgeOne } from './judging.js';
import { PICTURES, readBaselines, readEvidence, readList, type KeptList } from './kept-run.js';
import { chooseChecks, clash, parseOptions } from './options.js';
import { checkTargets, saveAll } from './outputs.js';
import { Faults } from './save.js';
import { PictureStore } from './pictures.js';
import { getExit, makeDocument, makeResults, tell, type Plan } from './report.js';
import { complain, complainOf, type World } from './streams.js';

/** Judges a kept run again, without a browser. Resolves to the exit code, which is the verdict. */
export async function judge(
  run: string,
  given: Record<string, unknown>,
  world: World,
): Promise<number> {
  const startedAt = new Date();
  const options = parseOptions(given);
  const png = options.save.find((file) => /\.png$/i.test(file));
  if (png !== undefined)
    throw clash(`--save ${png}`, 'judge', 'a contact sheet is drawn by the browser, in `audit`');
  await checkTargets(options, world.cwd);
  const folder = resolve(world.cwd, run);
  const list = await readList(folder, run);
  const baselines = await readBaselines(folder, run);
  const kept = await Promise.all(list.snippets.map(({ file }) => readEvidence(folder, run, file)));
  const home = await getHome(list, options.house, world, options.quiet);
  if (options.holdOn) home.house.holdOn = options.holdOn;
  const before = fromPlainHouse(list.house);
  const plan: Plan = {
    ...home,
    options,
    snippets: kept.map(({ snippet }, i) => ({ ...snippet, ...pick(list.snippets[i]!) })),
    checks: chooseChecks(options),
    slots: before.slots.filter(({ name }) => list.slots.includes(name)),
    viewports: list.viewports.flatMap((name) => findViewport(kept, name)),
    today: startedAt.toISOString().slice(0, 10),
  };
  const results = makeResults(kept.length);
  results.engines = list.engines;
  kept.forEach(({ evidence }, i) => judgeOne(plan, results, i, evidence, baselines, null));
  const document = makeDocument(plan, results, startedAt);
  const faults = new Faults();
  const pictures = new PictureStore(join(folder, PICTURES), faults);
  for (const shot of results.sights.flat().flatMap((sight) => sight.shot ?? []))
    await pictures.recall(shot.hash);
  await faults.collect(tell(document, plan, world));
  await saveAll(document, plan, results, pictures, world, null, faults);
  for (const fault of faults.found) await complainOf(world, fault);
  return faults.found[0]?.exitCode ?? getExit(document);
}

function pick({ name, path }: KeptList['snippets'][number]) {
  return { name, path };
}

/** The house named, or that of the run. What it says of rendering comes too late. */
async function getHome(
  list: KeptList,
  file: string | undefined,
  world: World,
  quiet: boolean,
): Promise<LoadedHouse> {
  const before = fromPlainHouse(list.house);
  const ownPage = list.ownPage ? '' : null;
  if (file === undefined) return { house: before, ownPage, root: null };
  const { house } = await loadHouse(file, world.cwd);
  const same = JSON.stringify(getRenderedPart(house)) === JSON.stringify(getRenderedPart(before));
  if (!same && !quiet)
    await complain(
      world,
      'This house has other slots, viewports or page settings than the run was rendered with; judged is what was rendered then.',
    );
  return { house, ownPage, root: null };
}

/** A viewport as it was rendered: it may have been asked for by its width alone. */
function findViewport(kept: Awaited<ReturnType<typeof readEvidence>>[], name: string) {
  const all = kept.flatMap(({ evidence }) => evidence.map(({ render }) => render.viewport));
  const found = all.find((viewport) => viewport.name === name);
  return found ? [found] : [];
}
