import type { Command } from 'commander';
import { PRINTED, SAVED } from '../formats/table.js';

const gather = (value: string, before: string[] = []) => [...before, value];

/** Several values of one option, with commas between. */
export const list = (value: string, before: string[] = []) => [
  ...before,
  ...value
    .split(',')
    .map((one) => one.trim())
    .filter(Boolean),
];

export const BROWSER = 'a browser to use, or "system" for an installed one';
export const KEEP = 'keep the whole run: document and evidence';

/** What is looked at, and how. */
export function addRendering(command: Command): Command {
  return command
    .option('--code <text>', 'the snippet itself; may be given several times', gather)
    .option('--extract', 'take the blocks that show code out of HTML documents')
    .option('--house <file>', 'the house file (else mivket.yaml, looked for upward)')
    .option('--slot <names>', 'only these slots of the house', list)
    .option(
      '--insert <kinds>',
      'how code is put into the page: inline, late, frame, shadow; several at once are compared',
      list,
    )
    .option('--viewport <names>', 'only these viewports of the house', list)
    .option('--width <list>', 'widths in px, with a density if wanted: 320,768@2', list)
    .option('--no-ranges', 'leave out the windows between the widths that are rendered')
    .option('--offline', 'let nothing out but what the house serves and reroutes')
    .option('--jobs <n>', 'how many snippets are rendered at once, or widths of one')
    .option(
      '--time-limit <time>',
      'how long one snippet may take as a whole, such as 90s (else 60s)',
    )
    .option('--browser <path>', BROWSER);
}

export function addOutput(command: Command): Command {
  return command
    .option(
      '--format <name>',
      `on standard output: ${PRINTED.map(({ name, about }) => `${name} (${about})`).join(', ')}`,
    )
    .option(
      '--save <file>',
      `write a file, by its ending: ${SAVED.map(({ ending, about }) => `${ending} (${about})`).join(', ')}`,
      list,
    )
    .option('--open', 'open the HTML report')
    .option('--quiet', 'no progress and no notes')
    .option('--no-color', 'no colours');
}

export function addJudging(command: Command): Command {
  return command
    .option('--only <ids>', 'judge only these findings', list)
    .option('--skip <ids>', 'do not judge these findings', list)
    .option('--hold-on <level>', 'hold on blocker, concern or advice');
}

/** What of the findings counts, in a run that others went before. */
export function addCounting(command: Command): Command {
  return command
    .option('--new-since <run>', 'tell only what a kept run did not have (a folder of --keep)')
    .option(
      '--budget <list>',
      'how many findings of a level may be before it is a hold: concern:5,advice:20',
      list,
    )
    .option('--write-waivers <file>', 'write what counts as waivers for the house file (.yaml)')
    .option('--clear-to <file>', 'add each snippet that is clear to a ledger (.jsonl)')
    .option('--by <name>', 'who clears them (else the user of this machine)');
}
