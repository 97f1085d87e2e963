/** px of one em or rem in a condition: the browser's own letters count, not the page's. */
const EM = 16;

/**
 * Whether a media condition holds on a screen of a width, as far as its width and its kind of device tell;
 * null where something else decides.
 * @param query the condition as written, such as `screen and (max-width: 600px)`
 * @param width of the window, px
 */
export function holdsAt(query: string, width: number): boolean | null {
  const answers = query
    .toLowerCase()
    .split(',')
    .map((one) => holdsOne(one.trim(), width));
  if (answers.includes(true)) return true;
  return answers.includes(null) ? null : false;
}

function holdsOne(query: string, width: number): boolean | null {
  if (/^not\b|\bor\b/.test(query)) return null;
  const parts = query.split(/\band\b/).map((part) => holdsPart(part.trim(), width));
  if (parts.includes(false)) return false;
  return parts.includes(null) ? null : true;
}

function holdsPart(part: string, width: number): boolean | null {
  if (/^(only\s+)?(screen|all)$/.test(part) || part === '') return true;
  if (/^(only\s+)?(print|speech|tty|tv|projection|handheld|braille|embossed|aural)$/.test(part))
    return false;
  const plain = /^\(\s*(min|max)-width\s*:\s*([\d.]+)(px|r?em)\s*\)$/.exec(part);
  if (plain)
    return compare(plain[1] === 'min' ? '>=' : '<=', width, toPixels(plain[2]!, plain[3]!));
  const range = /^\(\s*width\s*(>=|<=|>|<)\s*([\d.]+)(px|r?em)\s*\)$/.exec(part);
  if (range) return compare(range[1]!, width, toPixels(range[2]!, range[3]!));
  return null;
}

function toPixels(number: string, unit: string): number {
  return Number(number) * (unit === 'px' ? 1 : EM);
}

function compare(sign: string, a: number, b: number): boolean {
  if (sign === '>=') return a >= b;
  if (sign === '<=') return a <= b;
  return sign === '>' ? a > b : a < b;
}
