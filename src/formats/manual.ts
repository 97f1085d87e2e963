import { decapitalize } from '../core/words/list.js';
import type { CommandAbout, ProgramAbout } from './about.js';

/** The manual page (roff, `man` macros). */
export function formatManual({ name, version, about, commands, exits }: ProgramAbout): string {
  const parts = [
    `.\\" Made from the commands themselves: \`npm run generate\`.`,
    `.TH ${name.toUpperCase()} 1 "" "${name} ${version}"`,
    '.SH NAME',
    `${name} \\- ${toRoff(decapitalizeSentence(about))}`,
    '.SH SYNOPSIS',
    `.B ${name}\n.I command\n[\\fIoptions\\fR] [\\fIinputs\\fR...]`,
    '.SH DESCRIPTION',
    toRoff(about),
    '.SH COMMANDS',
    ...commands.map((one) => formatCommand(name, one)),
    '.SH EXIT STATUS',
    ...exits.map(([code, meaning]) => `.TP\n.B ${code}\n${toRoff(meaning)}`),
    '.SH FILES',
    `.TP\n.I mivket.yaml\n${toRoff('The house file, looked for from the working folder upward.')}`,
    `.TP\n.I ~/.cache/mivket\n${toRoff('The browser that comes along, unpacked; may be removed at any time.')}`,
    '.SH ENVIRONMENT',
    `.TP\n.B MIVKET_BROWSER\n${toRoff('A browser to use, as --browser.')}`,
    `.TP\n.B NO_COLOR\n${toRoff('No colours.')}`,
    `.TP\n.BR HTTPS_PROXY ", " HTTP_PROXY ", " ALL_PROXY ", " NO_PROXY\n${toRoff('The way to the web.')}`,
  ];
  return `${parts.join('\n')}\n`;
}

function formatCommand(program: string, { name, about, usage, options }: CommandAbout): string {
  const list = options.map(
    ({ flags, about: words }) => `.TP\n.B ${toRoff(flags)}\n${toRoff(words)}`,
  );
  return [`.SS ${program} ${name} ${toRoff(usage)}`, toRoff(about), ...list].join('\n');
}

/** Words as roff: hyphens that can be copied, nothing that is taken for a request. */
function toRoff(words: string): string {
  return words
    .replaceAll('\\', '\\e')
    .replaceAll('-', '\\-')
    .replace(/^([.'])/gm, '\\&$1');
}

function decapitalizeSentence(words: string): string {
  return decapitalize(words).replace(/\.$/, '');
}
