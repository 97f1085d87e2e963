import { readFile, stat } from 'node:fs/promises';
import { createInterface } from 'node:readline';
import { resolve } from 'node:path';
import { ToolError } from '../core/errors.js';
import { flatMap } from '../core/lists.js';
import { readAnswers, type Reply } from '../core/mend/answers.js';
import { listQuestions, writeQuestions, type OpenQuestion } from '../core/mend/questions.js';
import type { SnippetReport } from '../core/run.js';
import { describeFault } from '../core/words/fault.js';
import { countWords } from '../core/words/list.js';
import { cleanLine } from '../formats/clean.js';
import { checkTarget, writeWhole } from '../run/write.js';
import { complain, write, type World } from './streams.js';

/** Asks one line after another on the terminal; what is not answered any more is empty. */
export async function askLines(
  world: World,
  ask: (line: (words: string) => Promise<string>) => Promise<void>,
  signal?: AbortSignal,
): Promise<void> {
  const lines = createInterface({ input: world.stdin, terminal: false });
  const end = () => lines.close();
  signal?.addEventListener('abort', end);
  const given = lines[Symbol.asyncIterator]();
  try {
    await ask(async (words) => {
      await write(world.stdout, words);
      const { value, done } = (await given.next()) as IteratorResult<string, undefined>;
      return done ? '' : value.trim();
    });
  } finally {
    signal?.removeEventListener('abort', end);
    lines.close();
  }
}

/** @throws ToolError `bad-answers` */
export async function loadAnswers(file: string, cwd: string): Promise<Reply[]> {
  const text = await readFile(resolve(cwd, file), 'utf8').catch((error: unknown) => {
    throw new ToolError(
      'bad-answers',
      `--answers ${file} cannot be read: ${describeFault(error)}.`,
    );
  });
  return readAnswers(text, file);
}

/** There may be answers in it. @throws ToolError `bad-option`, `cannot-write` */
export async function checkQuestions(file: string, cwd: string): Promise<void> {
  const path = resolve(cwd, file);
  if (await stat(path).catch(() => null))
    throw new ToolError(
      'bad-option',
      `--questions ${file} is there already, and may have answers in it: give another name.`,
    );
  await checkTarget(path);
}

/** Writes what is to be asked about snippets into a file. @throws ToolError `cannot-write` */
export async function saveQuestions(
  snippets: readonly SnippetReport[],
  file: string,
  world: World,
): Promise<void> {
  const questions = flatMap(snippets, listQuestions);
  await writeWhole(resolve(world.cwd, file), writeQuestions(questions, file));
  const count = countWords(questions.length, 'question');
  await complain(world, `Written: ${file}, with ${count}. Nothing was mended.`);
}

/** Where it is decoration, instead of an answer. */
const NOTHING = '-';

/** Asks about snippets on the terminal. */
export async function askHere(
  snippets: readonly SnippetReport[],
  world: World,
  signal?: AbortSignal,
): Promise<Reply[]> {
  const questions = flatMap(snippets, listQuestions);
  const answers: Reply[] = [];
  if (questions.length === 0) return answers;
  await write(
    world.stdout,
    `${countWords(questions.length, 'question')}. An empty answer leaves it as it is.\n`,
  );
  await askLines(
    world,
    async (line) => {
      for (const question of questions) {
        if (signal?.aborted) return;
        const said = await line(`\n${describe(question)}`);
        const { snippet, key, finding, decoration } = question;
        if (said === '') continue;
        answers.push({ snippet, key, finding, text: decoration && said === NOTHING ? null : said });
      }
    },
    signal,
  );
  await write(world.stdout, '\n');
  return answers;
}

function describe({
  snippet,
  line,
  source,
  about,
  near,
  question,
  decoration,
}: OpenQuestion): string {
  const lines = [
    cleanLine(`${snippet}, line ${line}: ${source}`),
    ...(about !== null ? [`  address: ${cleanLine(about)}`] : []),
    ...(near !== '' ? [`  near: ${cleanLine(near)}`] : []),
    `  ${question}${decoration ? ` (${NOTHING}: it is mere decoration)` : ''} `,
  ];
  return lines.join('\n');
}
