import * as z from 'zod';
import { flatMap } from '../lists.js';
import type { Finding } from '../run.js';
import { complainAt, readYaml, type Complaint, type FileKind, type HandWritten } from '../yaml.js';
import type { Intent } from './intent.js';

const entrySchema = z.strictObject({
  snippet: z.string(),
  key: z.string(),
  answer: z.union([z.string(), z.number()]).nullish(),
  decoration: z.boolean().optional(),
  // What stands there for the reader.
  line: z.int().optional(),
  finding: z.string().optional(),
  question: z.string().optional(),
  takes: z.enum(['text', 'address']).optional(),
  about: z.string().optional(),
  near: z.string().optional(),
  source: z.string().optional(),
});

const answersSchema = z.array(entrySchema);

/** What a person said of a finding. */
export interface Reply {
  /** The snippet's name. */
  snippet: string;
  /** The finding's key. */
  key: string;
  /** The finding's id, where it is said, for words. */
  finding: string;
  /** null: it is mere decoration. */
  text: string | null;
}

const ANSWERS_FILE: FileKind<typeof answersSchema> = {
  schema: answersSchema,
  name: 'the answers',
  code: 'bad-answers',
  check: (entries, source) => flatMap([...entries.entries()], ([i, one]) => check(i, one, source)),
};

function check(i: number, entry: z.output<typeof entrySchema>, source: HandWritten): Complaint[] {
  const text = toText(entry.answer);
  if (entry.decoration && text !== '')
    return [
      complainAt(source, [i, 'decoration'], 'is true, and there is an answer too: leave one'),
    ];
  if (entry.takes === 'address' && /\s/.test(text))
    return [
      complainAt(source, [i, 'answer'], 'must be an address, which has no white space in it'),
    ];
  return [];
}

/**
 * Reads a file of answers; what has none is left out.
 * @throws ToolError `bad-answers`: of each mistake file, line, key and what is allowed
 */
export function readAnswers(text: string, file: string): Reply[] {
  return flatMap(readYaml(text, file, ANSWERS_FILE), (entry) => {
    const { snippet, key, answer, decoration, finding = '' } = entry;
    const said = toText(answer);
    if (said === '' && !decoration) return [];
    return [{ snippet, key, finding, text: decoration ? null : said }];
  });
}

function toText(answer: string | number | null | undefined): string {
  return String(answer ?? '')
    .replace(/\s+/g, ' ')
    .trim();
}

/** What an answer brings about; null where it is none to what is asked. */
export function toIntents({ ask }: Pick<Finding, 'ask'>, text: Reply['text']): Intent[] | null {
  if (!ask) return null;
  const { element, attribute, decoration } = ask;
  const set = (name: string, value: string): Intent[] => [
    { do: 'set-attribute', element, name, value },
  ];
  if (text !== null) return set(attribute, text);
  return decoration && set(decoration.name, decoration.value);
}
