import { readFile, stat } from 'node:fs/promises';
import { dirname, relative, resolve } from 'node:path';
import { fileURLToPath } from 'node:url';
import { findSlots } from '../core/host/host-page.js';
import { writeDraft, type Draft } from '../core/house/draft.js';
import { readHouse } from '../core/house/read.js';
import { ToolError } from '../core/errors.js';
import { describeFault } from '../core/words/fault.js';
import { joinWords } from '../core/words/list.js';
import { PACKAGE } from '../run/version.js';
import { writeWhole } from '../run/write.js';
import { askLines } from './asking.js';
import { write, type World } from './streams.js';

/** The options of `init`, as they were given. */
export interface InitOptions {
  page?: string;
  origin?: string;
  language?: string;
  slot?: string[];
  width?: string[];
  holdOn?: string;
  force?: boolean;
}

type Answers = Omit<InitOptions, 'force'>;

const NAME = 'mivket.yaml';
const SCHEMA = new URL('schema/house.schema.json', PACKAGE);

/**
 * Writes a house file: from options, or else by questions where somebody is at a terminal.
 * @throws ToolError `bad-option`, `bad-house`, `cannot-write`
 */
export async function init(
  file: string | undefined,
  { force, ...given }: InitOptions,
  world: World,
): Promise<number> {
  const name = file ?? NAME;
  const path = resolve(world.cwd, name);
  if (!force && (await stat(path).catch(() => null)))
    throw new ToolError('bad-option', `${name} is there already. Give --force to write it anew.`);
  const asks = Object.keys(given).length === 0 && world.stdin.isTTY === true;
  const answers = asks ? await ask(world) : given;
  const text = writeDraft(await toDraft(answers, path, world));
  // What an option gave wrong is told as of the file that it would have made.
  readHouse(text, name);
  await writeWhole(path, text);
  await write(world.stdout, `Wrote ${name}. Next: mivket audit FILE\n`);
  return 0;
}

async function toDraft(answers: Answers, path: string, world: World): Promise<Draft> {
  const { page, origin, language, holdOn, slot = [], width = [] } = answers;
  const marked = page === undefined ? null : await readSlots(page, world);
  const slots = marked ? chooseMarked(slot, marked, page!) : slot.map((written) => toSlot(written));
  return {
    ...(page !== undefined && { page: relative(dirname(path), resolve(world.cwd, page)) }),
    ...(origin !== undefined && { origin }),
    ...(language !== undefined && { language }),
    ...(holdOn !== undefined && { holdOn }),
    ...(slots.length > 0 && { slots }),
    ...(width.length > 0 && { widths: width.map(toWidth) }),
    schema: relative(dirname(path), fileURLToPath(SCHEMA)).replaceAll('\\', '/'),
  };
}

/** The slots that a page marks. @throws ToolError `bad-option` */
async function readSlots(page: string, world: World): Promise<string[]> {
  const text = await readFile(resolve(world.cwd, page), 'utf8').catch((error: unknown) => {
    throw new ToolError('bad-option', `--page ${page} cannot be read: ${describeFault(error)}.`);
  });
  const slots = findSlots(text);
  if (slots.length > 0) return slots;
  const how = 'Mark each in it: <div data-mivket-slot="article"></div>.';
  throw new ToolError('bad-option', `--page ${page} has no slot. ${how}`);
}

function chooseMarked(wanted: readonly string[], marked: readonly string[], page: string) {
  const missing = wanted.find((name) => !marked.includes(name));
  const bare = missing?.replace(/:.*$/, '');
  if (bare !== undefined && marked.includes(bare))
    throw new ToolError(
      'bad-option',
      `--slot "${missing}" gives a width, and a slot of ${page} is as wide as that page makes it. Write --slot ${bare}.`,
    );
  if (missing !== undefined)
    throw new ToolError(
      'bad-option',
      `--slot names "${missing}", which ${page} does not mark. It marks ${joinWords(marked)}.`,
    );
  const names = wanted.length > 0 ? wanted : marked;
  return names.map((name) => ({ name, width: null }));
}

/** `article:680`, `banner:full`, `article`. @throws ToolError `bad-option` */
function toSlot(written: string): NonNullable<Draft['slots']>[number] {
  const [, name, width] = /^([\w-]+)(?::(full|\d+))?$/.exec(written) ?? [];
  if (name === undefined)
    throw new ToolError(
      'bad-option',
      `--slot takes a name with a width in px or "full", such as article:680, not "${written}".`,
    );
  return { name, width: width === undefined || width === 'full' ? 'full' : Number(width) };
}

function toWidth(written: string): number {
  if (/^\d+$/.test(written)) return Number(written);
  throw new ToolError(
    'bad-option',
    `--width takes widths in px, such as 320,768, not "${written}".`,
  );
}

interface Question {
  key: keyof Answers;
  text: string;
  several?: boolean;
}

const QUESTIONS: readonly Question[] = [
  { key: 'page', text: 'The page that snippets are put into, a file (none: a neutral page)' },
  {
    key: 'slot',
    text: 'The slots, with their widths in px or "full", such as article:680, sidebar:300',
    several: true,
  },
  { key: 'width', text: 'The widths of window to look at, such as 320, 768, 1280', several: true },
  { key: 'origin', text: 'The origin of the page, such as https://www.seedlibrary.example' },
  { key: 'language', text: 'The language that vendors are asked for, such as en-GB' },
  { key: 'holdOn', text: 'From which level on a snippet is held: blocker, concern or advice' },
];

/** Asks one after the other; an empty answer leaves the default. */
async function ask(world: World): Promise<Answers> {
  const answers: Record<string, string | string[]> = {};
  await write(world.stdout, 'An empty answer leaves the default.\n');
  await askLines(world, async (line) => {
    for (const { key, text, several } of QUESTIONS) {
      // The page marks its slots itself.
      if (key === 'slot' && answers.page !== undefined) continue;
      const answer = await line(`${text}: `);
      if (answer === '') continue;
      answers[key] = several ? answer.split(/[\s,]+/).filter(Boolean) : answer;
    }
  });
  return answers;
}
