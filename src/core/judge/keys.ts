import { sha256 } from '@noble/hashes/sha2.js';
import { bytesToHex, utf8ToBytes } from '@noble/hashes/utils.js';
import { getCulpritKey, getMade, type Fact } from '../check.js';
import { squeeze } from '../words/squeeze.js';

/** As many hexadecimal digits tell the findings of a snippet apart. */
const DIGITS = 16;

/** What a finding is known by. */
export interface Keyed {
  id: string;
  fact: Pick<Fact<unknown>, 'where' | 'culprit' | 'group'>;
}

/**
 * A key for each finding of a snippet that stays the same between runs, wherever in the source it stands by then: of
 * what it is, of the piece of the source that it points at, and of how many like it stand before.
 */
export function listFindingKeys(text: string, all: readonly Keyed[]): string[] {
  const order = [...all.keys()].sort(
    (a, b) => all[a]!.fact.where.offset - all[b]!.fact.where.offset || a - b,
  );
  const counts = new Map<string, number>();
  const keys: string[] = [];
  for (const i of order) {
    const base = toKeyText(text, all[i]!);
    const before = counts.get(base) ?? 0;
    counts.set(base, before + 1);
    keys[i] = bytesToHex(sha256(utf8ToBytes(`${base}\0${before}`))).slice(0, DIGITS);
  }
  return keys;
}

/** Offsets would change with every line that is put in before; white space says nothing. */
function toKeyText(text: string, { id, fact: { where, culprit, group = '' } }: Keyed): string {
  const piece = squeeze(text.slice(where.offset, where.endOffset));
  const part = culprit.at === 'element' ? (culprit.part ?? '') : '';
  const what = culprit.at === 'snippet' ? getCulpritKey(culprit) : piece;
  return [id, what, part, getMade(culprit) ?? '', group].join('\0');
}
