import wrapAnsi from 'wrap-ansi';

/** Wraps text to `width` columns, every line after the first indented by `indent` too. */
export function wrap(text: string, width: number, indent: string, first: string = indent): string {
  const room = Math.max(width - indent.length, 20);
  const lines = wrapAnsi(text, room, { hard: true }).split('\n');
  return lines.map((line, i) => (i === 0 ? first : indent) + line).join('\n');
}
