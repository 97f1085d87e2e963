import { stringify } from 'yaml';
import { flatMap } from '../lists.js';
import {
  getElementFrom,
  getText,
  getValue,
  listAround,
  listInside,
  readMarkup,
  type Markup,
  type MarkupElement,
} from '../markup/markup.js';
import type { Finding, SnippetReport } from '../run.js';
import { counts } from '../verdict.js';
import { shorten } from '../words/list.js';

/** What a person has to say, and what helps them to say it. */
export interface OpenQuestion {
  /** The snippet's name, and the line in it. */
  snippet: string;
  line: number;
  /** The finding's id. */
  finding: string;
  question: string;
  takes: 'text' | 'address';
  /** The address of the picture, frame, film or link that it is about; null where it has none. */
  about: string | null;
  /** The words around it; empty where there are none. */
  near: string;
  /** The piece of the source. */
  source: string;
  /** It may also be said that it says nothing to visitors. */
  decoration: boolean;
  /** The finding's key. */
  key: string;
}

/** So many characters of what stands near. */
const NEAR = 160;

/** Whether it takes a person's words, and nobody accepts it as it is. */
export function isAsking(finding: Finding): boolean {
  return finding.ask !== null && counts(finding);
}

/** What is to be asked about a snippet, in the order of the source. */
export function listQuestions({
  name,
  text,
  findings,
}: Pick<SnippetReport, 'name' | 'text' | 'findings'>): OpenQuestion[] {
  const asking = findings.filter(isAsking);
  if (asking.length === 0) return [];
  const markup = readMarkup(text);
  return [...asking]
    .sort((a, b) => a.where.offset - b.where.offset)
    .map((one) => toQuestion(name, markup, one));
}

function toQuestion(snippet: string, markup: Markup, finding: Finding): OpenQuestion {
  const { question, takes, element, decoration } = finding.ask!;
  const asked = getElementFrom(markup, element);
  return {
    ...{ snippet, line: finding.where.line, finding: finding.id, question, takes },
    about: asked && findAddress(asked),
    near: asked ? findNear(markup, asked) : '',
    source: finding.excerpt,
    decoration: decoration !== null,
    key: finding.key,
  };
}

const ADDRESSES = ['src', 'data', 'href', 'poster', 'xlink:href'];

/** Its own address, or that of what is in it. */
function findAddress(asked: MarkupElement): string | null {
  const all = flatMap([asked, ...listInside(asked)], (one) =>
    ADDRESSES.map((name) => getValue(one, name)?.trim() ?? ''),
  );
  return all.find((address) => address !== '' && address !== '#') ?? null;
}

/** The words of the nearest thing around it that has any, else of the nearest before it. */
function findNear({ elements }: Markup, asked: MarkupElement): string {
  const around = [asked, ...listAround(asked.parent)];
  const before = elements.filter(({ offset }) => offset < asked.offset).reverse();
  return shorten([...around, ...before].map(getText).find((text) => text !== '') ?? '', NEAR);
}

/** Questions as a file that a person writes answers into. */
export function writeQuestions(questions: readonly OpenQuestion[], file: string): string {
  const entries = questions.map(({ decoration, key, about, near, ...rest }) => ({
    ...rest,
    ...(about !== null && { about }),
    ...(near !== '' && { near }),
    answer: null,
    ...(decoration && { decoration: false }),
    key,
  }));
  const list = entries.map((entry) => stringify([entry], { lineWidth: 0, nullStr: '' }));
  return `# What only a person can say about these snippets. Write each answer behind "answer:"; what has none is
# left as it is. \`decoration: true\` instead of an answer: it adds nothing to the words around it. Then:
#
#   mivket mend (the same files) --answers ${file}

${list.map((one) => one.replace(/^( {2}answer:) $/m, '$1')).join('\n')}`;
}
