import {
  CHANGING_KINDS,
  SEEN_KINDS,
  type FactKind,
  type Facts,
  type Gap,
  type Hang,
  type RequestFact,
} from '../core/evidence.js';
import { flatMap } from '../core/lists.js';
import type { FileType } from '../facts/file-type.js';
import type { Kind } from '../facts/kind.js';
import { KINDS, listKinds } from '../facts/kinds.js';
import type { Reading } from './collect/read.js';
import type { RequestLog } from './page/request-log.js';

/** Why nothing is known of what is stored. */
const UNTOLD = 'what is stored on the device was not told in time';

/** What of a render decides whether all was seen. */
export interface Sight {
  facts: Facts;
  reading: Reading | null;
  hung: Hang | null;
  requests: Pick<RequestLog, 'requests' | 'dropped'>;
  /** Which of the render's snippets is meant. */
  of: number;
  /** The page was left, so that nothing more could be read of it. */
  left: boolean;
  /** Why it was cut short: the time for the snippet was over; null where it was not. */
  cut: string | null;
}

const READ = listKinds(({ inPage }) => inPage);
const OBJECTS = listKinds(({ ofElements }) => ofElements);
const CAPPED = listKinds(({ ofElements, ofPage }) => ofElements || ofPage);
const LAYOUT = listKinds(({ layout }) => layout);
const FRAME = listKindsOf('document');

/** What comes to nothing that is measured. */
const IDLE: readonly FileType[] = ['track', 'ping', 'prefetch', 'manifest'];

/** What an answer could have shown. */
function listShown(type: FileType): readonly FactKind[] {
  if (IDLE.includes(type)) return [];
  if (type === 'document') return FRAME;
  if (type === 'style') return CHANGING_KINDS.filter((kind) => !(KINDS[kind] as Kind).unstyled);
  if (type === 'picture' || type === 'film' || type === 'font')
    return [...LAYOUT, ...listKindsOf(type)];
  return CHANGING_KINDS;
}

function listKindsOf(type: FileType): readonly FactKind[] {
  return listKinds(({ files }) => files?.includes(type));
}

/** What could still change while something has not come to rest; all else could change anything. */
const BY_MOTION: Record<string, readonly FactKind[]> = {
  fonts: LAYOUT,
  pictures: [...LAYOUT, ...listKindsOf('picture')],
  media: listKindsOf('film'),
  films: [...LAYOUT, ...listKindsOf('film')],
};

/** Refusals that tell of the host itself, and not of this run. */
const TRUE_OF_HOST = /^(unknown-name|unreachable)$/;

/** All that was not seen, or only in part. */
export function findGaps(sight: Sight): Gap[] {
  const { facts, reading, hung } = sight;
  if (sight.left)
    return flatMap(SEEN_KINDS, (kind) =>
      list(facts, [kind], 'the page was left', READ.includes(kind)),
    );
  const gaps = [...findLost(sight), ...findCapped(sight)];
  if (reading?.stored === null) gaps.push(...list(facts, ['stored'], UNTOLD, true));
  if (hung && reading) gaps.push(...list(facts, CHANGING_KINDS, 'its code had to be stopped'));
  if (sight.cut !== null) gaps.push(...listCut(facts, sight.cut));
  // A page that hangs is not merely late.
  const moving = hung ? [] : new Set(facts.page.stillMoving);
  for (const motion of moving)
    gaps.push(...list(facts, BY_MOTION[motion] ?? CHANGING_KINDS, describeMotion(motion)));
  gaps.push(...findWithheld(facts));
  return gaps;
}

/** What is missing where the time was over. */
export function listCut(facts: Facts, why: string): Gap[] {
  return list(facts, CHANGING_KINDS, why);
}

/** What was not read at all. */
function findLost({ facts, reading, hung, of }: Sight): Gap[] {
  if (reading?.raw.slots[of]) return [];
  if (reading) return list(facts, READ, 'the slot is no longer on the page', true);
  return list(facts, READ, hung ? 'the page hangs' : 'the page could not be read', true);
}

/** What there was too much of. */
function findCapped({ facts, reading, requests }: Sight): Gap[] {
  const gaps: Gap[] = [];
  const { total, elements } = reading?.raw ?? { total: 0, elements: [] };
  if (total > elements.length) {
    const capped = list(facts, CAPPED, 'more elements than are read');
    gaps.push(...capped.map((gap) => (gap.kind === 'elements' ? { ...gap, seen: total } : gap)));
  } else if (reading?.objects.unplaced)
    gaps.push(...list(facts, OBJECTS, 'more elements than are followed'));
  const asked = requests.requests.length + requests.dropped;
  if (requests.dropped > 0) {
    const [gap] = list(facts, ['traffic'], 'more requests than are kept');
    gaps.push({ ...gap!, seen: asked });
  }
  return gaps;
}

function list(facts: Facts, kinds: readonly FactKind[], why: string, whole = false): Gap[] {
  return kinds.map((kind) => {
    const of = facts[kind];
    const kept = Array.isArray(of) ? of.length : 1;
    return { kind, why, seen: null, kept: whole ? null : kept };
  });
}

function describeMotion(motion: string): string {
  if (motion === 'the load') return 'the page had not loaded when the time was over';
  if (motion === 'the page') return 'the page did not answer in time';
  if (motion === 'the network') return 'requests were still under way when the time was over';
  if (motion === 'films') return 'the size of a film had not come when the time was over';
  if (motion === 'the document') return 'the page was still changing when the time was over';
  return `${motion} had not come to rest when the time was over`;
}

/** Each kind once for each reason: a kind of which nothing counts outdoes one of which something does. */
function findWithheld(facts: Facts): Gap[] {
  const gaps = new Map<string, Gap>();
  for (const request of facts.traffic) {
    const why = getReason(request);
    if (why === null) continue;
    for (const kind of getKinds(request)) {
      const [gap] = list(facts, [kind], why, isSpoilt(kind, request));
      const key = `${kind} ${why}`;
      if (gap!.kept === null || !gaps.has(key)) gaps.set(key, gap!);
    }
  }
  return [...gaps.values()];
}

/** Without its styles or its film, what was measured of it is not as visitors have it. */
function isSpoilt(kind: FactKind, { type, inFrame }: RequestFact): boolean {
  if (type === 'film') return listKindsOf(type).includes(kind);
  return type === 'style' && !inFrame && kind !== 'traffic';
}

/** Why an answer is missing that a visitor may get; null where it is there, or is missing for everybody. */
function getReason({ refused, status, failed, host }: RequestFact): string | null {
  // Only the gate knows of it: a connection that nothing was asked on.
  if (failed === 'refused') return null;
  if (refused?.kind === 'private-address') return `${host} is ${refused.words}: it was not asked`;
  if (refused?.kind === 'odd-status') return `${host}: ${refused.words}`;
  if (refused) return TRUE_OF_HOST.test(refused.kind) ? null : refused.words;
  if (status === 401 || status === 403 || status === 429)
    return `${host} answers with ${status}: visitors may see more`;
  return null;
}

function getKinds({ type, inFrame }: RequestFact): readonly FactKind[] {
  const kinds = listShown(type);
  return inFrame && kinds.length > 0 ? FRAME : kinds;
}
