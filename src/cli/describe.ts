import type { Command, Option } from 'commander';
import { CHECKS } from '../checks/index.js';
import { level } from '../core/finding.js';
import { INSERTS } from '../core/render.js';
import type { CommandAbout, OptionAbout, ProgramAbout, Takes } from '../formats/about.js';
import { PRINTED } from '../formats/table.js';
import { EXITS } from './exits.js';

const IDS = CHECKS.map(({ id }) => id);
const FORMATS_OF_RUNS = PRINTED.map(({ name }) => name);

/** What the values of options may be, where that is not any words. */
const VALUES: Record<string, Takes> = {
  '--insert': INSERTS,
  '--hold-on': level.options,
  '--only': IDS,
  '--skip': IDS,
};
/** How options call a value that is a file or a folder. */
const FILED = /<(file|folder|run)>|--browser /;

/** The commands as they are described, for shells and manuals. */
export function describeProgram(program: Command): ProgramAbout {
  return {
    name: program.name(),
    version: program.version() ?? '',
    about: program.description(),
    commands: program.commands.map(describeCommand),
    exits: EXITS,
  };
}

function describeCommand(command: Command): CommandAbout {
  const [first] = command.registeredArguments;
  const named = first?.name() === 'finding' ? IDS : 'file';
  return {
    name: command.name(),
    about: command.description(),
    usage: command.usage(),
    takes: first ? named : null,
    options: command.options.map(describeOption),
  };
}

function describeOption(option: Option): OptionAbout {
  const { flags, description, long } = option;
  return { long: long!, flags, about: description, takes: getTakes(option) };
}

function getTakes({ flags, long, required, description }: Option): Takes {
  if (!required) return null;
  // Each command says which it can print.
  if (long === '--format')
    return FORMATS_OF_RUNS.filter((name) => new RegExp(`\\b${name}\\b`).test(description));
  return VALUES[long!] ?? (FILED.test(flags) ? 'file' : 'words');
}
