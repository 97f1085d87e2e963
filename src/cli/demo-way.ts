import { readFile } from 'node:fs/promises';
import { request } from 'node:http';
import { join } from 'node:path';
import { listCleared, toCleared } from '../core/ledger/entry.js';
import type { LiveStanding } from '../core/live/live.js';
import { flatMap } from '../core/lists.js';
import type { RunDocument } from '../core/run.js';
import { describeLive } from '../formats/live.js';
import { cleanLine } from '../formats/clean.js';
import { formatVerdict } from '../formats/summary.js';
import { wrap } from '../formats/wrap.js';
import { audit } from '../run/audit.js';
import { checkLive } from '../run/check-live.js';
import { mend } from '../run/mend.js';
import type { LoadedHouse } from '../run/house-file.js';
import { getTextWidth, write, type World } from './streams.js';

/** The snippet that goes the whole way. */
const NAME = 'map.html';
/** Where the demo's letter shows it. */
const ADDRESS = `https://www.seedletter.example/of/${NAME}`;
const INDENT = 13;

/** One snippet, from what is wrong with it to what became of it where it was published. @param origin of the stand-ins */
export async function showWay(
  folder: string,
  home: LoadedHouse,
  origin: string,
  world: World,
): Promise<void> {
  const say = (what: string, words: string) => {
    const first = `  ${what.padEnd(INDENT - 2)}`;
    const width = getTextWidth(world, 100);
    return write(world.stderr, `${wrap(cleanLine(words), width, ' '.repeat(INDENT), first)}\n`);
  };
  await write(world.stderr, `\nThe whole way of one of them, ${NAME}:\n`);
  const text = await readFile(join(folder, 'snippets', NAME), 'utf8');
  const snippet = { name: NAME, path: NAME, text };
  const mended = await mend({ ...home, snippets: [snippet] });
  const [one] = mended.snippets;
  if (!one) return;
  await say('looked at', tellVerdict(mended.before));
  await say(
    'mended',
    `${one.cured.map(({ id }) => id).join(', ')}: cured, which a second look proves`,
  );
  const run = audit({ ...home, snippets: [{ ...snippet, text: one.after.text }] });
  await run.finished;
  const document = await run.document;
  const [entry] = listCleared(document, { by: 'the demo', houseHash: '' });
  await say(
    'cleared',
    entry ? `${tellVerdict(document)}: a line of a ledger` : tellVerdict(document),
  );
  if (!entry) return;
  await publish(entry.text, origin);
  await say('published', `${ADDRESS}, whose system keeps code in its own way`);
  const page = {
    name: ADDRESS,
    path: ADDRESS,
    text: '',
    published: { address: ADDRESS, headers: {} },
  };
  const { document: live } = await checkLive({
    ...home,
    snippets: [page],
    cleared: [toCleared(entry)],
  });
  for (const standing of flatMap(live.pages, ({ standings }) => standings))
    await say('looked for', tellLive(standing));
}

function tellVerdict(document: RunDocument): string {
  const [snippet] = document.snippets;
  return snippet ? formatVerdict(snippet, document) : '';
}

function tellLive(standing: LiveStanding): string {
  const { state, told } = describeLive(standing);
  return [state, ...new Set(told)].join('; ');
}

async function publish(text: string, origin: string): Promise<void> {
  const headers = { host: 'www.seedletter.example' };
  await new Promise<void>((resolve, reject) => {
    const path = new URL(ADDRESS).pathname;
    const asking = request(
      `${origin}${path}`,
      { method: 'PUT', headers, agent: false },
      (answer) => {
        answer.resume();
        answer.on('end', resolve);
      },
    );
    asking.on('error', reject);
    asking.end(text);
  });
}
