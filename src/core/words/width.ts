import type { WidthBlame } from '../measure/blame-width.js';

/** CSS in a sentence: `max-width: 100%`. */
export function quoteCss(property: string, value: string): string {
  return `\`${property}: ${value}\``;
}

/** What to change where something reaches too far: what was seen to cure, or else what has to be decided. */
export function cureWidth(blame: WidthBlame): string {
  if (blame.culprit.at === 'made') return cureMade(blame);
  return blame.change ?? decide(blame);
}

function decide(blame: WidthBlame): string {
  const { reason, declaration, attribute, tag } = blame;
  const named = declaration
    ? quoteCss(declaration.property, declaration.value)
    : attribute && `\`${attribute}\``;
  if (named === null) return decideByContent(blame);
  if (reason === 'size') return decideSize(blame, named);
  if (reason === 'animation') return `Let ${named} end within the page, or take it out.`;
  if (reason === 'tracks')
    return `Let the columns of ${named} shrink, or make them fewer on narrow screens.`;
  if (reason === 'row') return `Let what stands side by side by ${named} wrap, or make it smaller.`;
  if (reason === 'text') return `Take ${named} out, so that the text can break.`;
  if (reason === 'letters') return `Make ${named} smaller, or let long words break.`;
  if (reason === 'room') return `Take ${named} out, or make it smaller.`;
  return tag
    ? `Take ${named} out, or make it fit the room there is.`
    : `Take ${named} out, or keep it within the page.`;
}

function decideByContent({ reason, tag }: WidthBlame): string {
  if (reason === 'text' && tag === 'pre')
    return 'Give the <pre> a scroller of its own (`overflow-x: auto`), or let its lines wrap (`white-space: pre-wrap`).';
  if (reason === 'text') return 'Let long words and addresses break: `overflow-wrap: anywhere`.';
  return CONTENT.test(tag)
    ? 'Let it shrink with its room: `max-width: 100%`.'
    : 'See which part of its content cannot shrink, and let it.';
}

/** What comes with a width by its nature. */
const CONTENT = /^(img|iframe|video|audio|embed|object|canvas|input|textarea|select)$/;

function decideSize({ declaration, attribute, width, tried }: WidthBlame, named: string): string {
  if (tried) return `Make ${named} smaller, or take it out.`;
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
