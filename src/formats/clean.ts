const CONTROLS = /[\u0000-\u0008\u000b-\u001f\u007f]/g;
const HIDDEN = /[\u0080-\u009f\u061c\u200e\u200f\u202a-\u202e\u2066-\u2069\ufeff]/g;

/**
 * Text from a snippet, safe for a terminal: control characters are shown as the pictures Unicode has
 * for them, and what would turn the writing direction as a replacement character.
 */
export function clean(text: string): string {
  return text
    .replace(/\r\n?/g, '\n')
    .replace(CONTROLS, (control) =>
      control === '\u007f' ? '\u2421' : String.fromCharCode(0x2400 + control.charCodeAt(0)),
    )
    .replace(HIDDEN, '\ufffd');
}

/** The same on one line. */
export function cleanLine(text: string): string {
  return clean(text).replace(/\s+/g, ' ').trim();
}
