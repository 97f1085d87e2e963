import { join, relative, sep } from 'node:path';
import { fileURLToPath } from 'node:url';
import { ToolError } from '../core/errors.js';
import { runAudit } from './audit.js';
import { showWay } from './demo-way.js';
import { loadHouse, type LoadedHouse } from '../run/house-file.js';
import { watchInterrupt } from './interrupt.js';
import { write, type World } from './streams.js';
import { PACKAGE } from '../run/version.js';

const FOLDER = fileURLToPath(new URL('demo', PACKAGE));
/** What a house is made of. */
const HOUSE = ['mivket.yaml', 'host.html', 'public'];
/** What `audit` may answer when it did its work: the demo's snippets are meant to have faults. */
const RAN = [0, 1];

/**
 * Starts the stand-ins, audits the demo's snippets with them, and says what to try next.
 * Resolves to 0 when it ran, whatever was found.
 */
export async function demo(given: Record<string, unknown>, world: World): Promise<number> {
  const { serve, ...options } = given;
  const { startStandIns } = await import('../../demo/stand-ins/index.js');
  const loaded = await loadHouse(`${FOLDER}/mivket.yaml`, world.cwd);
  if (serve) return keepServing(loaded, startStandIns, world);
  const standIns = await startStandIns();
  try {
    for (const pattern of Object.keys(loaded.house.reroute))
      loaded.house.reroute[pattern] = standIns.origin;
    const code = await runAudit({ ...options, inputs: [`${FOLDER}/snippets`] }, world, loaded);
    if (!RAN.includes(code)) return code;
    if (options.quiet) return 0;
    const isRead = options.format === undefined || options.format === 'text';
    if (isRead) await showWay(FOLDER, loaded, standIns.origin, world);
    await write(world.stderr, getNextSteps(world.cwd));
    return 0;
  } finally {
    await standIns.close();
  }
}

/** Keeps the stand-ins running until Ctrl-C, at the place the demo's house file names. */
async function keepServing(
  { house }: LoadedHouse,
  start: (port: number) => Promise<{ origin: string; close(): Promise<void> }>,
  world: World,
): Promise<number> {
  const [origin] = Object.values(house.reroute);
  const standIns = await start(Number(new URL(origin ?? 'http://127.0.0.1:0').port)).catch(
    (error: NodeJS.ErrnoException) => {
      throw new ToolError(
        'bad-option',
        `The stand-ins could not start at ${origin}: ${error.code ?? error.message}.`,
      );
    },
  );
  const shown = getShown(FOLDER, world.cwd);
  await write(
    world.stderr,
    `The stand-ins answer at ${standIns.origin}. In another terminal:\n  ${getCommand(world.cwd)} audit ${shown}/snippets/map.html --house ${shown}/mivket.yaml\nCtrl-C ends them.\n`,
  );
  const { signal, stop } = watchInterrupt();
  // A listener alone keeps nothing alive; the server does.
  await new Promise<void>((resolve) =>
    signal.addEventListener('abort', () => resolve(), { once: true }),
  );
  stop();
  await standIns.close();
  return 0;
}

function getNextSteps(cwd: string): string {
  const folder = getShown(FOLDER, cwd);
  const program = getCommand(cwd);
  const house = HOUSE.map((name) => getShown(join(FOLDER, name), cwd)).join(' ');
  return `
That was the demo: thirteen snippets as people paste them, in the slots of a made-up seed library.
Try next:
  ${program} audit --code '<iframe width="900" src="https://maps.fernmap.example/"></iframe>'
      your own code, or a file of it, on the neutral page
  ${program} demo --open
      the same as a report with pictures
  ${program} demo --serve
      keeps the stand-ins running, for audits of ${folder}/snippets, and for a look at what became of two of them:
  ${program} check-live https://www.seedletter.example/spring --snippet ${folder}/snippets/booking.html,${folder}/snippets/calendar.html --house ${folder}/mivket.yaml
  cp -r ${house} .
      a house to start your own from: its file, its page and its files
`;
}

/** How this program is called here: by its name where it was installed, by its file in a checkout. */
function getCommand(cwd: string): string {
  const file = fileURLToPath(new URL('bin/mivket.js', PACKAGE));
  return file.includes(`${sep}node_modules${sep}`) ? 'npx mivket' : `node ${getShown(file, cwd)}`;
}

/** A path as seen from the working folder, where it is in it. */
function getShown(path: string, cwd: string): string {
  const near = relative(cwd, path);
  const shown = near.startsWith('..') ? path : near || '.';
  // What a shell would take apart is put in quotes.
  return /[^\w./\\:-]/.test(shown) ? `'${shown}'` : shown;
}
