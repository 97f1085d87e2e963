import { squeeze } from '../core/words/squeeze.js';
const CONTROLS = /[\u0000-\u0008\u000b-\u001f\u007f]/g;

/** What takes no room, or turns the writing, by its name in Unicode. */
const NAMES: Record<string, string> = {
  '\u00ad': 'soft hyphen',
  '\u034f': 'combining grapheme joiner',
  '\u061c': 'Arabic letter mark',
  '\u180e': 'Mongolian vowel separator',
  '\u200b': 'zero width space',
  '\u200c': 'zero width non-joiner',
  '\u200d': 'zero width joiner',
  '\u200e': 'left-to-right mark',
  '\u200f': 'right-to-left mark',
  '\u2028': 'line separator',
  '\u2029': 'paragraph separator',
  '\u202a': 'left-to-right embedding',
  '\u202b': 'right-to-left embedding',
  '\u202c': 'pop directional formatting',
  '\u202d': 'left-to-right override',
  '\u202e': 'right-to-left override',
  '\u2060': 'word joiner',
  '\u2066': 'left-to-right isolate',
  '\u2067': 'right-to-left isolate',
  '\u2068': 'first strong isolate',
  '\u2069': 'pop directional isolate',
  '\ufeff': 'zero width no-break space',
};
const HIDDEN = String.raw`\u0080-\u009f\u00ad\u034f\u061c\u180e\u200b\u200e\u200f\u2028-\u202e\u2060-\u206f\ufeff\ufff9-\ufffb`;
const JOINERS = String.raw`\u200c\u200d`;
/** Joiners belong to emoji, and to words of Indic scripts, Arabic and Persian. */
const INVISIBLE = new RegExp(
  String.raw`[${HIDDEN}]|(?<![\p{Emoji}\p{M}\p{sc=Arabic}])[${JOINERS}]`,
  'gu',
);
const UNSAFE = new RegExp(String.raw`[\u007f${HIDDEN}${JOINERS}]`, 'g');

/**
 * Text from a snippet, safe for a terminal: control characters are shown as the pictures Unicode has
 * for them, and what cannot be seen by its name.
 */
export function clean(text: string): string {
  return text
    .replace(/\r\n?/g, '\n')
    .replace(CONTROLS, (control) =>
      control === '\u007f' ? '\u2421' : String.fromCharCode(0x2400 + control.charCodeAt(0)),
    )
    .replace(INVISIBLE, (character) => `[${NAMES[character] ?? getCode(character)}]`);
}

/** The same on one line. */
export function cleanLine(text: string): string {
  return squeeze(clean(text));
}

/** JSON that says the same, and is safe for a terminal. */
export function escapeJson(json: string): string {
  return json.replace(
    UNSAFE,
    (character) => `\\u${character.charCodeAt(0).toString(16).padStart(4, '0')}`,
  );
}

function getCode(character: string): string {
  return `U+${character.codePointAt(0)!.toString(16).toUpperCase().padStart(4, '0')}`;
}
