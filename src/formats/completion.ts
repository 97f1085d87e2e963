import { flatMap } from '../core/lists.js';
import type { CommandAbout, OptionAbout, ProgramAbout, Takes } from './about.js';

const HEAD = 'Made from the commands themselves: `npm run generate`.';

/** Completion for bash. */
export function formatBash({ name, commands }: ProgramAbout): string {
  const words = (all: readonly string[]) =>
    `COMPREPLY=($(compgen -W '${all.join(' ')}' -- "$current"))`;
  const cases = commands.map(
    (command) => `    ${command.name})
      case $before in
${listValued(command)
  .map(({ long, takes }) => `        ${long}) ${words(takes)}; return ;;`)
  .join('\n')}
${listNamed(command.options, 'file').map(stopAt).join('')}${listNamed(command.options, 'words').map(stopAt).join('')}      esac
      if [[ $current == -* ]]; then
        ${words(command.options.map(({ long }) => long))}
      ${Array.isArray(command.takes) ? `else\n        ${words(command.takes)}\n      ` : ''}fi
      ;;`,
  );
  return `# ${HEAD}
_${name}() {
  local current=\${COMP_WORDS[COMP_CWORD]} before=\${COMP_WORDS[COMP_CWORD - 1]}
  COMPREPLY=()
  if [[ $COMP_CWORD -eq 1 ]]; then
    ${words(commands.map((one) => one.name))}
    return
  fi
  case \${COMP_WORDS[1]} in
${cases.join('\n')}
  esac
}
complete -o default -F _${name} ${name}
`;
}

/** Behind such an option nothing of ours comes: files are the shell's. */
function stopAt({ long }: OptionAbout): string {
  return `        ${long}) return ;;\n`;
}

/** Completion for zsh. */
export function formatZsh({ name, commands }: ProgramAbout): string {
  const quote = (text: string) => `'${text.replaceAll("'", "'\\''")}'`;
  const plain = (text: string) => text.replace(/[[\]:\\]/g, '\\$&');
  const list = commands.map((one) => `    ${quote(`${one.name}:${plain(one.about)}`)}`);
  const cases = commands.map((command) => {
    const options = command.options.map(({ long, about, takes }) => {
      const value = takes === null ? '' : `:value:${toZshAction(takes)}`;
      return `        ${quote(`*${long}[${plain(about)}]${value}`)}`;
    });
    const rest =
      command.takes === null ? [] : [`        ${quote(`*:input:${toZshAction(command.takes)}`)}`];
    return `    ${command.name})
      _arguments \\
${[...options, ...rest].join(' \\\n')}
      ;;`;
  });
  return `#compdef ${name}
# ${HEAD}
_${name}() {
  local -a commands
  commands=(
${list.join('\n')}
  )
  if (( CURRENT == 2 )); then
    _describe command commands
    return
  fi
  local command=$words[2]
  shift words
  (( CURRENT-- ))
  case $command in
${cases.join('\n')}
  esac
}
_${name} "$@"
`;
}

function toZshAction(takes: Takes): string {
  if (takes === 'file') return '_files';
  return Array.isArray(takes) ? `(${takes.join(' ')})` : '';
}

/** Completion for fish. */
export function formatFish({ name, commands }: ProgramAbout): string {
  const quote = (text: string) => `'${text.replace(/[\\']/g, '\\$&')}'`;
  const lines = flatMap(commands, (command) => {
    const under = `-n ${quote(`__fish_seen_subcommand_from ${command.name}`)}`;
    const options = command.options.map(({ long, about, takes }) => {
      const value = takes === null ? '' : ` ${toFishValue(takes)}`;
      return `complete -c ${name} ${under} -l ${long.slice(2)}${value} -d ${quote(about)}`;
    });
    const rest = Array.isArray(command.takes)
      ? [`complete -c ${name} ${under} -f -a ${quote(command.takes.join(' '))}`]
      : [];
    return [
      `complete -c ${name} -n __fish_use_subcommand -f -a ${command.name} -d ${quote(command.about)}`,
      ...options,
      ...rest,
    ];
  });
  return `# ${HEAD}\n${lines.join('\n')}\n`;
}

function toFishValue(takes: Takes): string {
  if (takes === 'file') return '-r -F';
  return Array.isArray(takes) ? `-x -a '${takes.join(' ')}'` : '-x';
}

function listValued({ options }: CommandAbout): { long: string; takes: readonly string[] }[] {
  return flatMap(options, ({ long, takes }) =>
    Array.isArray(takes) ? [{ long, takes: takes as readonly string[] }] : [],
  );
}

function listNamed(options: readonly OptionAbout[], takes: 'file' | 'words'): OptionAbout[] {
  return options.filter((one) => one.takes === takes);
}
