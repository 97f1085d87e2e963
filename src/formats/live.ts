import { createTwoFilesPatch } from 'diff';
import { flatMap } from '../core/lists.js';
import type { LiveChange } from '../core/live/changes.js';
import type { LiveDocument, LivePage, LiveState, LiveStanding } from '../core/live/live.js';
import type { HeldDocument, HeldSnippet } from '../core/ledger/held.js';
import { countWords, joinWords, shorten } from '../core/words/list.js';
import { formatMinute } from '../core/words/time.js';
import { clean, cleanLine } from './clean.js';
import type { TextOptions } from './text.js';
import { wrap } from './wrap.js';

const INDENT = 4;
/** So many changes of one copy are still read on a terminal. */
const MOST = 8;
/** So much of a value. */
const LONG = 60;

/** What is said of what was not found. */
export const NOWHERE = 'on none of these pages';

/** Where cleared snippets stand on pages, and what is otherwise. */
export function formatLive(document: LiveDocument, options: TextOptions): string {
  const { pages, missing, verdict } = document;
  const blocks = [
    ...pages.map((page) => formatPage(page, options)),
    ...missing.map(
      (name) =>
        `${options.paint.strong(cleanLine(name))}  ${options.paint.blocker(STATES.missing)}: ${NOWHERE}`,
    ),
    `${options.paint.strong(verdict.toUpperCase())}: ${sumLive(document)}`,
  ];
  return `${blocks.join('\n\n')}\n`;
}

/** How many were found, on how many pages. */
export function sumLive({ pages, missing }: LiveDocument): string {
  const all = flatMap(pages, ({ standings }) => standings);
  const sound = all.filter(({ state }) => state === 'as-cleared').length;
  const found = `${countWords(all.length, 'snippet')} found on ${countWords(pages.length, 'page')}, ${sound} as cleared`;
  return missing.length > 0 ? `${found}, ${missing.length} not found.` : `${found}.`;
}

function formatPage(page: LivePage, options: TextOptions): string {
  const { head, why } = describeLivePage(page);
  return [
    options.paint.strong(head),
    ...why.map((line) => wrap(line, options.width, '  ')),
    ...flatMap(page.standings, (one) => formatStanding(one, options)),
  ].join('\n');
}

/** Which page it is, and what is to be said of it as a whole. */
export function describeLivePage({ asked, address, why, standings }: LivePage): {
  head: string;
  why: string[];
} {
  const led = address !== null && address !== asked ? `, which leads to ${address}` : '';
  const empty = standings.length === 0 ? ['nothing of what was cleared stands here'] : [];
  return {
    head: cleanLine(`${asked}${led}`),
    why: why === null ? empty : [cleanLine(`not all was seen: ${why}`)],
  };
}

const WHERE = { sent: 'in the page', added: 'put there by code', frame: 'in a frame' } as const;

function formatStanding(standing: LiveStanding, options: TextOptions): string[] {
  const { name } = standing;
  const { state, at, told } = describeLive(standing);
  const tone = standing.state === 'as-cleared' ? options.paint.sound : options.paint.blocker;
  return [
    `  ${options.paint.strong(cleanLine(name))}  ${tone(state)}: ${at}`,
    ...told.map((line) =>
      wrap(cleanLine(line), options.width, ' '.repeat(INDENT + 2), ' '.repeat(INDENT)),
    ),
  ];
}

/** How it stands there, where, and what is otherwise, in words. */
export function describeLive({ state, copies, behaviour, pictures }: LiveStanding): {
  state: string;
  at: string;
  told: string[];
} {
  const places = copies.map(({ where, line }) => (line === null ? WHERE[where] : `line ${line}`));
  const at = places.length > 0 ? joinWords([...new Set(places)]) : 'as words that visitors read';
  const told = [
    ...flatMap(copies, ({ changes }) => tellChanges(changes)),
    ...tellBehaviour(behaviour),
    ...tellLooks(pictures),
  ];
  return { state: STATES[state], at, told };
}

const STATES: Record<LiveState, string> = {
  'as-cleared': 'as cleared',
  altered: 'altered',
  doubled: 'more than once',
  escaped: 'shown as text',
  missing: 'not found',
};

function tellChanges(changes: readonly LiveChange[]): string[] {
  const more = changes.length - MOST;
  const told = changes.slice(0, MOST).map(tellChange);
  return more > 0 ? [...told, `and ${more} more: in JSON`] : told;
}

function tellChange({ what, tag, attribute, line, before, after }: LiveChange): string {
  const [from, to] = [before, after].map((value) => `“${shorten(value ?? '', LONG)}”`);
  const words: Record<LiveChange['what'], string> = {
    'element-missing': `the <${tag}> of line ${line} is gone`,
    'element-added': `<${tag}> was put in (line ${line} of the page)`,
    'attribute-missing': `${attribute} of the <${tag}> of line ${line} is gone: it was ${from}`,
    'attribute-changed': `${attribute} of the <${tag}> of line ${line} is ${to}: it was ${from}`,
    'attribute-added': `the <${tag}> of line ${line} was given ${attribute} (${to})`,
    'text-changed': `the text of the <${tag}> of line ${line} is ${to}: it was ${from}`,
  };
  return words[what];
}

function tellBehaviour(behaviour: LiveStanding['behaviour']): string[] {
  if (!behaviour) return [];
  const { newFindings, newHosts, goneHosts } = behaviour;
  return [
    ...newFindings.map(({ id, brief }) => `new there: ${id}, ${brief}`),
    ...(newHosts.length > 0
      ? [`contacts ${joinWords(newHosts)} there, and did not when it was cleared`]
      : []),
    ...(goneHosts.length > 0 ? [`does not contact ${joinWords(goneHosts)} there, as it did`] : []),
  ];
}

/** What it looks like there, beside what it looks like in a slot of the house. */
function tellLooks(pictures: LiveStanding['pictures']): string[] {
  const tell = (rows: LiveStanding['pictures'], words: string) => {
    const widths = joinWords([...new Set(rows.map(({ width }) => String(width)))]);
    return rows.length > 0 ? [`${words} in a window of ${widths} px`] : [];
  };
  const rooms = flatMap(
    pictures.filter((one) => one.alike === null),
    tellRoom,
  );
  const [alike, otherwise] = [true, false].map((is) => pictures.filter((one) => one.alike === is));
  return [
    ...tell(alike!, 'looks as in the slot'),
    ...tell(otherwise!, 'looks otherwise than in the slot'),
    ...(rooms.length > 0 ? [`is not as wide as in the slot: ${rooms.join('; ')}`] : []),
  ];
}

function tellRoom({ slot, width, of }: LiveStanding['pictures'][number]): string[] {
  const [own, ...copies] = of.map((one) => one && Math.round(one.shot.region.width));
  const there = joinWords([...new Set(copies.filter((one) => one !== null))].map(String));
  return own && there !== ''
    ? [`${there} px in place of ${own} (${slot}) in a window of ${width} px`]
    : [];
}

/** Which snippets were cleared as they are, and what is otherwise in those that were not. */
export function formatHeld({ snippets, verdict }: HeldDocument, options: TextOptions): string {
  const blocks = snippets.map((one) => formatOneHeld(one, options));
  const cleared = snippets.filter(({ state }) => state === 'cleared').length;
  const end = `${options.paint.strong(verdict.toUpperCase())}: ${cleared} of ${countWords(snippets.length, 'snippet')} cleared as they are.`;
  return `${[...blocks, '', end].join('\n')}\n`;
}

const HELD: Record<HeldSnippet['state'], string> = {
  cleared: 'cleared',
  altered: 'altered since it was cleared',
  'never-cleared': 'never cleared',
};

function formatOneHeld(one: HeldSnippet, { paint }: TextOptions): string {
  const { name, state, clearedAt, by, before, text } = one;
  const when = clearedAt === null ? '' : ` on ${formatMinute(clearedAt)} by ${by}`;
  const tone = state === 'cleared' ? paint.sound : paint.blocker;
  const head = `${paint.strong(cleanLine(name))}  ${tone(cleanLine(`${HELD[state]}${when}`))}`;
  if (before === null) return head;
  const patch = createTwoFilesPatch(`${name} (cleared)`, name, before, text).split('\n').slice(1);
  return [head, ...patch.map((line) => `  ${clean(line)}`.trimEnd())].join('\n').trimEnd();
}
