import { relative, resolve } from 'node:path';
import { badInput, ToolError } from '../core/errors.js';
import { getOverall } from '../core/verdict.js';
import { countWords } from '../core/words/list.js';
import { formatMended, formatMendedEnd, formatMendedJson } from '../formats/mended.js';
import { Faults } from '../run/faults.js';
import { loadHouse } from '../run/house-file.js';
import { audit, type AuditOptions } from '../run/audit.js';
import { mend as mendAll, type Mended } from '../run/mend.js';
import type { AuditRequest } from '../run/request.js';
import { readShot } from '../run/shots.js';
import { checkTarget } from '../run/write.js';
import { makeTemporary } from '../render/machine/temporary.js';
import { writeMended, type MendedText, type Destination } from '../run/write-mended.js';
import type { Snippet } from '../core/snippet.js';
import { askHere, checkQuestions, loadAnswers, saveQuestions } from './asking.js';
import { makePaint } from './colours.js';
import { readInputs } from './intake.js';
import { watchInterrupt } from './interrupt.js';
import {
  called,
  clash,
  parseOptions,
  TEXT_OR_JSON,
  toRequest,
  type AuditFlags,
} from './options.js';
import { getExit, getFailureCode, INTERRUPTED } from './outputs.js';
import { checkFiles, listSaved, PAGE_OR_JSON, saveFiles, type SavedForms } from './saved-files.js';
import { complain, complainOf, getTextWidth, write, type World } from './streams.js';

/** What only `mend` takes. */
interface MendFlags {
  write?: boolean;
  out?: string;
  questions?: string;
  answers?: string;
  ask?: boolean;
  format?: string;
  save?: string[];
}

/** Mends what can be mended with certainty, and proves it. Resolves to the exit code, which is the verdict after. */
export async function runMend(given: Record<string, unknown>, world: World): Promise<number> {
  const { write: inPlace = false, out, questions, answers, ask, ...rest } = given as MendFlags;
  const options = parseOptions(rest, TEXT_OR_JSON);
  checkAsking(given, options.inputs, world);
  const files = listSaved(options, PAGE_OR_JSON);
  const target = getTarget(inPlace, out, world.cwd);
  const answered = answers === undefined ? [] : await loadAnswers(answers, world.cwd);
  const home = await loadHouse(options.house, world.cwd);
  const { inputs, code, extract } = options;
  const { snippets, problems } = await readInputs(inputs, code, world.cwd, world.stdin, extract);
  checkInputs(snippets, target);
  if (out !== undefined) await checkTarget(resolve(world.cwd, out, 'mended.html'));
  if (questions !== undefined) await checkQuestions(questions, world.cwd);
  await checkFiles(files, world);
  const interrupt = watchInterrupt();
  const shots = await makeTemporary('shots');
  try {
    const onRound = (round: number, count: number) => {
      if (options.quiet || !world.stderr.isTTY) return;
      void complain(
        world,
        `Looking at ${countWords(count, round === 1 ? 'snippet' : 'mended snippet')}.`,
      );
    };
    const request = { ...toRequest(options), ...home, snippets, shots: shots.path };
    const { signal } = interrupt;
    const steering = { signal, called };
    if (questions !== undefined) {
      const code = await onlyAsk(request, steering, questions, world);
      for (const { message } of problems) await complain(world, message);
      return getFailureCode(problems, new Faults()) ?? code;
    }
    const mended = await mendAll(request, {
      ...{ ...steering, onRound },
      ask: (before) => (ask ? askHere(before.snippets, world, signal) : Promise.resolve(answered)),
    });
    if (signal.aborted) return await tellInterrupted(world);
    await tell(mended, options, world);
    for (const { snippet, finding, key } of mended.unasked)
      await complain(
        world,
        `Nothing asks any more for the answer to ${finding || key} of ${snippet}.`,
      );
    const faults = new Faults();
    if (mended.fault !== null) faults.add(mended.fault, 'the second look');
    await saveFiles(files, toFiles(mended, shots.path), world, faults);
    if (target === null) {
      if (!options.quiet && mended.snippets.some(isChanged)) await complain(world, NOTHING_WRITTEN);
    } else await writeAll(mended, snippets, target, faults, world);
    for (const { message } of problems) await complain(world, message);
    for (const fault of faults.found) await complainOf(world, fault);
    const verdict = getOverall(mended.snippets.map(({ after }) => after.verdict));
    return getFailureCode(problems, faults) ?? getExit({ verdict });
  } finally {
    await shots.remove();
    interrupt.stop();
  }
}

function toFiles({ snippets, before }: Mended, shots: string): SavedForms {
  return {
    json: () => formatMendedJson(snippets, before),
    html: async () => {
      const { formatMendedPage } = await import('../formats/html/mended.js');
      return formatMendedPage(snippets, before, (hash) => readShot(shots, hash));
    },
  };
}

/** Looks at snippets, and writes down what is to be asked. Resolves to the exit code, which is the verdict. */
async function onlyAsk(
  request: AuditRequest,
  steering: AuditOptions,
  file: string,
  world: World,
): Promise<number> {
  const run = audit(request, steering);
  await run.finished;
  const document = await run.document;
  if (steering.signal?.aborted) return tellInterrupted(world);
  await saveQuestions(document.snippets, file, world);
  return getExit(document);
}

async function tellInterrupted(world: World): Promise<number> {
  await complain(world, 'Interrupted: nothing was written.');
  return INTERRUPTED;
}

/** @throws ToolError `bad-option` */
function checkAsking(given: MendFlags, inputs: readonly string[], world: World): void {
  const { questions, answers, ask, write: inPlace, out, format, save } = given;
  const written = { '--write': inPlace, '--out': out, '--save': save };
  const others = { '--answers': answers, '--ask': ask, ...written };
  const [other] = Object.entries(others).find(([, value]) => value !== undefined) ?? [];
  if (questions !== undefined && other !== undefined)
    throw clash('--questions', other, 'it mends nothing, and writes only what is to be asked');
  if (!ask) return;
  if (answers !== undefined)
    throw clash('--ask', '--answers', 'answers come from one or the other');
  if (format === 'json')
    throw clash('--ask', '--format json', 'questions go to standard output too');
  if (inputs.includes('-') || !world.stdin.isTTY)
    throw new ToolError(
      'bad-option',
      '`--ask` needs a terminal to ask on: give --questions FILE, and then --answers FILE.',
    );
}

const NOTHING_WRITTEN =
  'Nothing was written: --out FOLDER writes mended copies, --write the files themselves.';

function getTarget(inPlace: boolean, out: string | undefined, cwd: string): Destination | null {
  if (inPlace && out !== undefined)
    throw clash('--write', '--out', 'it is one or the other that is written');
  if (out !== undefined) return { folder: resolve(cwd, out) };
  return inPlace ? 'in place' : null;
}

/** @throws ToolError `bad-input`, `bad-option` */
function checkInputs(snippets: readonly Snippet[], target: Destination | null): void {
  const page = snippets.find(({ published }) => published);
  if (page)
    throw badInput(
      `${page.name} is a page that is published: mend the code that it is made of, as a file.`,
    );
  const loose = snippets.find(({ path }) => path === null);
  if (loose && target === 'in place')
    throw new ToolError(
      'bad-option',
      `\`--write\` has no file to write ${loose.name} into: give --out FOLDER.`,
    );
}

const isChanged = ({ before, after }: Mended['snippets'][number]) => before.text !== after.text;

async function tell(
  { before, snippets }: Mended,
  { format, color: colours }: Pick<AuditFlags, 'format' | 'color'>,
  world: World,
): Promise<void> {
  if (format === 'json') return write(world.stdout, formatMendedJson(snippets, before));
  const means = {
    paint: makePaint(world, colours),
    width: getTextWidth(world, 120),
    terminal: Boolean(world.stdout.isTTY),
  };
  await write(world.stdout, `${formatMended(snippets, means)}\n${formatMendedEnd(snippets)}\n`);
}

/** File by file: what one cannot be written costs no other. */
async function writeAll(
  { snippets: mended }: Mended,
  given: readonly Snippet[],
  target: Destination,
  faults: Faults,
  world: World,
): Promise<void> {
  const files = new Map<string, MendedText[]>();
  for (const { before, after } of mended.filter(isChanged)) {
    const snippet = given.find(({ name }) => name === before.name)!;
    const key = snippet.path ?? `\0${snippet.name}`;
    files.set(key, [...(files.get(key) ?? []), { snippet, text: after.text }]);
  }
  for (const texts of files.values()) {
    const writing = writeMended(texts, target, world.cwd).then(async (written) => {
      const show = (file: string) => relative(world.cwd, file) || file;
      const kept = written.original ? `; as it was: ${show(written.original)}` : '';
      await complain(world, `Written: ${show(written.path)}${kept}.`);
    });
    await faults.collect(writing, 'what was mended');
  }
}
