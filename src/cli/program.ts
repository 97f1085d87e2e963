import { Command } from 'commander';
import { getVersion } from '../run/version.js';
import type { DoctorOptions } from './doctor.js';
import { EXITS } from './exits.js';
import {
  addCounting,
  addJudging,
  addOutput,
  addRendering,
  BROWSER,
  KEEP,
  list,
} from './program-options.js';
import type { World } from './streams.js';

/** The command line. What a command needs is loaded only when it runs, so that `--help` is quick. */
export function makeProgram(world: World, outcome: { code: number }): Command {
  const program = new Command('mivket')
    .description(
      'Renders a pasted snippet where it will live, at several widths, and says what is wrong with it.',
    )
    .version(getVersion(), '--version')
    .exitOverride()
    .configureOutput({
      writeOut: (text) => void world.stdout.write(text),
      writeErr: (text) => void world.stderr.write(text.replace(/^error: /, 'mivket: ')),
      getOutHelpWidth: () => Math.min(world.stdout.columns ?? 80, 100),
    })
    .showHelpAfterError('See `mivket --help`.');
  addAudit(program, world, outcome);
  addMend(program, world, outcome);
  addCompare(program, world, outcome);
  addWatch(program, world, outcome);
  addJudge(program, world, outcome);
  addCheckLive(program, world, outcome);
  addExplain(program, world, outcome);
  addDemo(program, world, outcome);
  addDoctor(program, world, outcome);
  addInit(program, world, outcome);
  program.addHelpText('after', `\nExit codes: ${EXITS.map((one) => one.join(' ')).join(', ')}.`);
  return program;
}

/** What renders begins once the machine is ready for it. */
function whenReady(
  outcome: { code: number },
  work: (given: Record<string, unknown>) => Promise<number>,
) {
  return async (inputs: string[], options: Record<string, unknown>): Promise<void> => {
    const { withAllReady } = await import('../run/ready.js');
    outcome.code = await withAllReady(() => work({ ...options, inputs }));
  };
}

function addAudit(program: Command, world: World, outcome: { code: number }): void {
  const command = program
    .command('audit')
    .description(
      'Render snippets in their slots and report what is wrong; the exit code is the verdict.',
    )
    .argument(
      '[inputs...]',
      'files (.html, .txt, .svg; .md, .csv, .json, .jsonl with several snippets), folders, patterns, the address of a published page, or - for standard input',
    );
  addCounting(addJudging(addOutput(addRendering(command)).option('--keep <folder>', KEEP)))
    .option('--markup-only', 'read the markup, render nothing')
    .option('--outage', 'try what becomes of the page when a vendor does not answer')
    .option('--pictures <folder>', 'write a contact sheet of each snippet, culprits outlined')
    .option('--record <file>', 'record all traffic, also what was blocked (.har)')
    .option('--replay <file>', 'let a recording (.har) answer, and nothing else')
    .action(async (inputs: string[], options: Record<string, unknown>) => {
      const work = async () => {
        const { runAudit } = await import('./audit.js');
        return runAudit({ ...options, inputs }, world);
      };
      const { withAllReady } = await import('../run/ready.js');
      outcome.code = await (options.markupOnly ? work() : withAllReady(work));
    });
}

function addMend(program: Command, world: World, outcome: { code: number }): void {
  const command = program
    .command('mend')
    .description(
      'Cure what can be cured with certainty, prove it by a second look, and show the change; the exit code is the verdict after.',
    )
    .argument('[inputs...]', 'files, folders, patterns, or - for standard input')
    .option('--write', 'write the files themselves; as they were they stay beside them (.orig)')
    .option('--out <folder>', 'write mended copies into a folder')
    .option(
      '--questions <file>',
      'write what only a person can say into a file (.yaml), and mend nothing',
    )
    .option('--answers <file>', 'take answers from such a file, and mend what they are for too')
    .option('--ask', 'ask on the terminal');
  addJudging(addRendering(command))
    .option('--format <name>', 'on standard output: text, or json (with the mended code)')
    .option(
      '--save <file>',
      'write a file, by its ending: .html (with pictures before and after) or .json',
      list,
    )
    .option('--quiet', 'no progress and no notes')
    .option('--no-color', 'no colours')
    .action(whenReady(outcome, async (given) => (await import('./mend.js')).runMend(given, world)));
}

function addCompare(program: Command, world: World, outcome: { code: number }): void {
  const command = program
    .command('compare')
    .description(
      'Hold candidates, a snippet before and after, or two kept runs against each other; the choice is yours.',
    )
    .argument(
      '[inputs...]',
      'two snippets or more (files, - for standard input), or two folders that `audit --keep` made',
    );
  addJudging(addRendering(command))
    .option('--format <name>', 'on standard output: text, or json')
    .option(
      '--save <file>',
      'write a file, by its ending: .html (with pictures side by side) or .json',
      list,
    )
    .option('--quiet', 'no notes')
    .option('--no-color', 'no colours')
    .action(
      whenReady(outcome, async (given) => (await import('./compare.js')).runCompare(given, world)),
    );
}

function addWatch(program: Command, world: World, outcome: { code: number }): void {
  const command = program
    .command('watch')
    .description(
      'Audit on save, what has changed alone, and show the report on a local page that refreshes itself; Ctrl-C ends it.',
    )
    .argument('[inputs...]', 'files, folders or patterns');
  addJudging(addRendering(command))
    .option('--port <n>', 'where the page listens on this machine (else any that is free)')
    .option('--open', 'open the page')
    .option('--no-color', 'no colours')
    .action(
      whenReady(outcome, async (given) =>
        (await import('./watch/watch.js')).runWatch(given, world),
      ),
    );
}

function addJudge(program: Command, world: World, outcome: { code: number }): void {
  const command = program
    .command('judge')
    .description('Judge a kept run again, under another house file, without a browser.')
    .argument('<run>', 'a folder that `audit --keep` made')
    .option('--house <file>', 'the house file (else the one the run was made with)');
  addCounting(addJudging(addOutput(command))).action(
    async (run: string, options: Record<string, unknown>) => {
      const { judge } = await import('./judge.js');
      outcome.code = await judge(run, options, world);
    },
  );
}

function addCheckLive(program: Command, world: World, outcome: { code: number }): void {
  program
    .command('check-live')
    .description(
      'Look whether what was cleared is what is published: there once, unchanged, doing what it did; without a page, whether files are as a ledger has them. The exit code is the verdict.',
    )
    .argument(
      '[pages...]',
      'the addresses of pages, or lists of such: a file with a line each, or a sitemap (.xml, also by its address)',
    )
    .option('--ledger <file>', 'what was cleared: a ledger that --clear-to wrote')
    .option('--run <run>', 'what was cleared: what is clear in a kept run (a folder of --keep)')
    .option('--snippet <files>', 'what was cleared: files, folders or patterns', list)
    .option('--house <file>', 'the house file (else mivket.yaml, looked for upward)')
    .option('--viewport <names>', 'only these viewports of the house', list)
    .option('--width <list>', 'widths in px, with a density if wanted: 320,768@2', list)
    .option('--jobs <n>', 'how many pages are rendered at once')
    .option('--time-limit <time>', 'how long one page may take as a whole, such as 90s (else 60s)')
    .option('--browser <path>', BROWSER)
    .option('--format <name>', 'on standard output: text, or json')
    .option(
      '--save <file>',
      'write a file, by its ending: .html (with pictures of what was cleared and what is published) or .json',
      list,
    )
    .option('--quiet', 'no notes')
    .option('--no-color', 'no colours')
    .action(
      whenReady(outcome, async (given) =>
        (await import('./check-live.js')).runCheckLive(given, world),
      ),
    );
}

function addExplain(program: Command, world: World, outcome: { code: number }): void {
  program
    .command('explain')
    .description(
      'Say what a finding means, how it is decided and cured; list all without a name, or those that begin as given (frame).',
    )
    .argument('[finding]', 'the finding, as reports name it')
    .action(async (finding: string | undefined) => {
      const { explain } = await import('./explain.js');
      outcome.code = await explain(finding, world);
    });
}

function addDoctor(program: Command, world: World, outcome: { code: number }): void {
  program
    .command('doctor')
    .description('Say what works on this machine (browsers, sandbox, fonts, proxy) and what to do.')
    .option('--browser <path>', BROWSER)
    .option('--clean', 'remove what versions before left in the cache')
    .option('--no-color', 'no colours')
    .action(async (options: DoctorOptions) => {
      const { doctor } = await import('./doctor.js');
      outcome.code = await doctor(options, world);
    });
}

function addInit(program: Command, world: World, outcome: { code: number }): void {
  program
    .command('init')
    .description('Write a house file with comments: by questions on a terminal, or from options.')
    .argument('[file]', 'the file to write (else mivket.yaml)')
    .option('--page <file>', 'the page that snippets are put into, its slots marked')
    .option(
      '--slot <list>',
      'slots, with their widths on a neutral page: article:680,banner:full',
      list,
    )
    .option('--width <list>', 'the widths of window to look at, px: 320,768,1280', list)
    .option('--origin <origin>', 'where the page stands on the web')
    .option('--language <tag>', 'the language that vendors are asked for')
    .option('--hold-on <level>', 'hold on blocker, concern or advice')
    .option('--force', 'write it anew where it is there already')
    .action(async (file: string | undefined, options: Record<string, unknown>) => {
      const { init } = await import('./init.js');
      outcome.code = await init(file, options, world);
    });
}

function addDemo(program: Command, world: World, outcome: { code: number }): void {
  const command = program
    .command('demo')
    .description(
      'Start the stand-ins of a made-up seed library, audit its snippets, and say what to try next.',
    );
  addOutput(command)
    .option('--keep <folder>', KEEP)
    .option('--browser <path>', BROWSER)
    .option('--serve', 'keep the stand-ins running, for audits of your own')
    .action(async (options: Record<string, unknown>) => {
      const { demo } = await import('./demo.js');
      outcome.code = await demo(options, world);
    });
}
