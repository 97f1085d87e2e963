import type { WidthBlame } from '../measure/blame-width.js';

/** CSS in a sentence: `max-width: 100%`. */
export function quoteCss(property: string, value: string): string {
  return `\`${property}: ${value}\``;
}

/** What to change where something reaches too far: the blamed declaration by its name, not a general rule. */
export function cureWidth(blame: WidthBlame): string {
  const { culprit, reason, declaration, attribute, tag } = blame;
  if (culprit.at === 'made') return cureMade(blame);
  const named = declaration && quoteCss(declaration.property, declaration.value);
  if (reason === 'size') return cureSize(blame, named ?? `\`${attribute ?? tag}\``);
  if (reason === 'place' && named) return `Take ${named} out, or make it fit the room there is.`;
  if (reason === 'room' && named) return `Take ${named} out, or make it smaller.`;
  if (reason === 'animation' && named) return `Let ${named} end within the page, or take it out.`;
  if (reason === 'tracks' && named)
    return `Let the columns shrink: minmax(0, 1fr) instead of what ${named} has.`;
  if (reason === 'row') return 'Let the row wrap: `flex-wrap: wrap`.';
  if (reason === 'text' && tag === 'pre')
    return 'Give the <pre> a scroller of its own (`overflow-x: auto`), or let its lines wrap (`white-space: pre-wrap`).';
  if (reason === 'text' && named) return `Take ${named} out, so that the text can break.`;
  if (reason === 'text') return 'Let long words and addresses break: `overflow-wrap: anywhere`.';
  return CONTENT.test(tag)
    ? 'Let it shrink with its room: `max-width: 100%`.'
    : 'See which part of its content cannot shrink, and let it.';
}

/** What comes with a width by its nature. */
const CONTENT = /^(img|iframe|video|audio|embed|object|canvas|input|textarea|select)$/;

function cureSize({ declaration, attribute, tag, width }: WidthBlame, named: string): string {
  if (declaration?.property.startsWith('min-')) return `Take ${named} out, or lower it.`;
  if (/^(td|th|col)$/.test(tag)) return `Take ${named} out of the cell, or make it smaller.`;
  const written = /[\d.]+/.exec(attribute ?? '')?.[0];
  const most = declaration?.value ?? `${written ?? Math.round(width)}px`;
  return declaration === null || /^[\d.]+(px|r?em)$/i.test(most)
    ? `Instead of ${named}, let it shrink with its room: \`width: 100%; max-width: ${most}\`.`
    : `Take ${named} out, or set \`max-width: 100%\` beside it.`;
}

/** What somebody else's script makes only they can change. */
function cureMade({ culprit, maker }: WidthBlame): string {
  if (culprit.at === 'made' && culprit.inRoot) return 'Change its width inside the <template>.';
  return maker
    ? `Ask whoever runs ${maker} for a version that shrinks with its room.`
    : 'Change the script that makes it, so that it shrinks with its room.';
}
