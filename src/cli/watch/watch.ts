import { watch as watchFiles, type FSWatcher } from 'chokidar';
import { badInput, ToolError } from '../../core/errors.js';
import type { RunDocument } from '../../core/run.js';
import { countWords } from '../../core/words/list.js';
import { cleanLine } from '../../formats/clean.js';
import { formatHtml } from '../../formats/html/report.js';
import { formatVerdict } from '../../formats/summary.js';
import { makeTemporary } from '../../render/machine/temporary.js';
import { listHouseFiles, loadHouse } from '../../run/house-file.js';
import { readShot } from '../../run/shots.js';
import { Watcher, type Renewed } from '../../run/watcher.js';
import { readInputs } from '../intake.js';
import { watchInterrupt } from '../interrupt.js';
import { openFile } from '../open.js';
import { called, parseOptions, toRequest, type AuditFlags } from '../options.js';
import { complain, complainOf, write, type World } from '../streams.js';
import { WatchPage } from './page.js';
import { listWatched } from './paths.js';

/** What belongs to no house. */
const IGNORED = /(^|[/\\])(\.git|node_modules)([/\\]|$)/;
/** How long a file must have been as it is: editors write in pieces, ms. */
const WRITTEN = { stabilityThreshold: 60, pollInterval: 20 };

/** Audits on save, until Ctrl-C. Resolves to 0 then. */
export async function runWatch(
  { port, ...given }: Record<string, unknown> & { port?: string },
  world: World,
): Promise<number> {
  const options = parseOptions(given, ['text']);
  if (options.inputs.length === 0)
    throw badInput('There is nothing to watch: give files, folders or patterns.');
  const paths = listWatched(options.inputs, world.cwd);
  const interrupt = watchInterrupt();
  const shots = await makeTemporary('shots');
  let document: RunDocument | null = null;
  const report = () => document && formatHtml(document, (hash) => readShot(shots.path, hash));
  const page = await WatchPage.open(readPort(port), report).catch(async (error: unknown) => {
    await shots.remove();
    throw error;
  });
  const changes = new Changes(interrupt.signal);
  const asked = { ...toRequest(options), shots: shots.path };
  const watching = new Watcher(asked, { signal: interrupt.signal, called });
  try {
    const home = await loadHouse(options.house, world.cwd);
    const house = await listHouseFiles(options.house, world.cwd);
    const rest = [...house, ...(home.root === null ? [] : [home.root])];
    await changes.follow([...paths, ...rest]);
    await write(
      world.stdout,
      `The report is at ${page.origin}/ and follows what is saved. Ctrl-C ends it.\n`,
    );
    if (options.open) await openFile(`${page.origin}/`, world.env);
    for await (const files of changes) {
      if (files.some((file) => isIn(file, rest) && !isIn(file, paths))) await watching.forget();
      page.say('looking');
      const found = await look(watching, options, world, page);
      if (!found) continue;
      document = found;
      page.renew();
    }
    return 0;
  } finally {
    await changes.close();
    await watching.close();
    await page.close();
    await shots.remove();
    interrupt.stop();
  }
}

function isIn(file: string, paths: readonly string[]): boolean {
  return paths.some((path) => file === path || file.startsWith(`${path}/`));
}

/** Looks at what has changed, and says what came of it; what is wrong is said, and waited for. */
async function look(
  watching: Watcher,
  options: AuditFlags,
  world: World,
  page: WatchPage,
): Promise<RunDocument | null> {
  try {
    const home = await loadHouse(options.house, world.cwd);
    const { inputs, code, extract } = options;
    const { snippets, problems } = await readInputs(inputs, code, world.cwd, world.stdin, extract);
    for (const { message } of problems) await complain(world, message);
    const found = await watching.renew(snippets, home);
    if (!found) {
      page.say('as before');
      return null;
    }
    for (const one of found.renewed) await write(world.stdout, tell(one, found.document));
    page.say(`${found.document.verdict.toUpperCase()}: ${countWords(snippets.length, 'snippet')}`);
    return found.document;
  } catch (error) {
    if (!(error instanceof ToolError)) throw error;
    await complainOf(world, error);
    page.say(error.message);
    return null;
  }
}

/** When, what, what became of it, and why. */
function tell({ before, after }: Renewed, document: RunDocument): string {
  const was =
    before && before.verdict !== after.verdict ? `${before.verdict.toUpperCase()} → ` : '';
  const time = new Date().toTimeString().slice(0, 5);
  const said = cleanLine(`${was}${formatVerdict(after, document)}`);
  return `${time}  ${cleanLine(after.name)}  ${said}\n`;
}

function readPort(given: string | undefined): number {
  const port = Number(given ?? 0);
  if (/^\d+$/.test(given ?? '0') && port <= 65_535) return port;
  throw new ToolError('bad-option', `\`--port\` must be a number up to 65535, found “${given}”.`);
}

/** Which files were saved, a batch at a time; the first comes at once, and is of none. */
class Changes implements AsyncIterable<string[]> {
  #signal: AbortSignal;
  #waiting: string[] = [];
  #wake: () => void = () => undefined;
  #watcher: FSWatcher | null = null;

  constructor(signal: AbortSignal) {
    this.#signal = signal;
    signal.addEventListener('abort', () => this.#wake());
  }

  /** Resolves when nothing that is saved from now on is missed. */
  async follow(paths: readonly string[]): Promise<void> {
    // What is asked for may itself stand in such a place.
    const ignored = (file: string) =>
      !paths.some((path) => file.startsWith(path) && !IGNORED.test(file.slice(path.length)));
    const watcher = watchFiles([...paths], {
      ...{ ignored, ignoreInitial: true, awaitWriteFinish: WRITTEN },
    });
    this.#watcher = watcher;
    await new Promise<void>((resolve) => watcher.once('ready', resolve));
    watcher.on('all', (_, path) => {
      this.#waiting.push(path);
      this.#wake();
    });
    watcher.on('error', () => undefined);
  }

  async *[Symbol.asyncIterator](): AsyncGenerator<string[], void, undefined> {
    yield [];
    while (!this.#signal.aborted) {
      if (this.#waiting.length > 0) yield this.#waiting.splice(0);
      else await new Promise<void>((resolve) => (this.#wake = resolve));
    }
  }

  async close(): Promise<void> {
    await this.#watcher?.close();
  }
}
